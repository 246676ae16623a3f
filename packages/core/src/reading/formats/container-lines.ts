import type { Draft, Reader, RecordReader, ReadingContext, Sample } from './shared.ts';
import { sampleOf } from '../sample.ts';
import { TimeReader } from '../times.ts';
import { InnerJson } from './inner-json.ts';
import { text } from './text.ts';
import { parseObject } from '../json-fields.ts';

/** What is put around a line that a program in a container writes: when it was taken in, from which stream, and whether it is whole. */
interface Line {
  time: string;
  stream: string;
  whole: boolean;
  text: string;
}

/** Time, stream and a flag for a whole line (F) or a part of one (P), then the line, as container runtimes keep it. */
const FLAGGED = /^(\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(?:\.\d{1,9})?(?:Z|[+-]\d\d:\d\d)) (stdout|stderr) ([FP])(?: (.*))?$/s;
/** Zones differ by whole quarters of an hour, in microseconds. */
const QUARTER = 900_000_000;
const MOST_LINES = 250;
/** Below it no format is known to fit. */
const UNSURE = 0.1;
/** How lines of a stack trace begin, and others that go on with what was said. */
const CONTINUES = /^(?:[ \t]|$|Caused by: |Traceback \(most|\.\.\. \d+ more|(?:[a-z][\w$]*\.)+[A-Z][\w$]*(?:Exception|Error)\b)/;

/**
 * Lines of programs in containers, each with time and stream around it, as text or as an object of JSON (`log`, `stream`, `time`). What is inside is read by
 * whatever format it has; a stack trace is one record again, however many lines were wrapped.
 *
 * @param formats of what may be inside
 */
export const containerLines = (formats: readonly Reader[]): Reader => ({
  format: 'container-lines',
  confidence(sample) {
    const lines = sample.lines.filter((line) => line !== '').slice(0, MOST_LINES);
    return lines.length === 0 ? 0 : (lines.filter((line) => unwrapped(line) !== null).length / lines.length) * 0.99;
  },
  open: (sample, context) => new ContainerReader(formats, sample, context),
});

function surest(formats: readonly Reader[], sample: Sample): { one: Reader; sure: number } {
  return formats.map((one) => ({ one, sure: one.confidence(sample) })).sort((a, b) => b.sure - a.sure)[0]!;
}

function unwrapped(line: string): Line | null {
  if (line.charCodeAt(0) !== 123) {
    const hit = FLAGGED.exec(line);
    return hit && { time: hit[1]!, stream: hit[2]!, whole: hit[3] === 'F', text: hit[4] ?? '' };
  }
  if (!line.includes('"log"') || !line.includes('"stream"')) return null;
  const object = parseObject(line);
  if (!object) return null;
  const { log, stream, time } = object;
  if (typeof log !== 'string' || typeof time !== 'string' || (stream !== 'stdout' && stream !== 'stderr')) return null;
  return { time, stream, whole: log.endsWith('\n'), text: log.replace(/\r?\n$/, '') };
}

class ContainerReader implements RecordReader {
  private readonly inside: RecordReader;
  private readonly times: TimeReader;
  /** Lines of this source say whether they are whole. */
  private readonly tells: boolean;
  private readonly json: InnerJson;
  /** The program tells no time. */
  private readonly timeless: boolean;
  /** The line before was a part of one. */
  private open = false;
  private stream = '';

  constructor(formats: readonly Reader[], sample: Sample, context: ReadingContext) {
    this.times = new TimeReader(context);
    this.json = new InnerJson(context);
    const lines = sample.lines.slice(0, MOST_LINES).map(unwrapped).filter((line) => line !== null); // prettier-ignore
    this.tells = lines.filter(({ whole }) => whole).length * 2 >= lines.length;
    const within = sampleOf(sample.path, joined(lines, this.tells), true);
    const best = surest(formats, within);
    this.timeless = best.sure < UNSURE;
    // without a time of its own a line is read as if it began with the one around it
    const heads = lines.filter(({ text }) => !CONTINUES.test(text)).map(({ time, text }) => `${time} ${text}`);
    const timed = this.timeless ? sampleOf(sample.path, heads.join('\n'), true) : within;
    this.inside = (this.timeless ? text : best.one).open(timed, context);
  }

  start(firstLine: string): void {
    const line = unwrapped(firstLine);
    this.open = this.isPart(line);
    this.stream = line?.stream ?? '';
    if (!this.timeless) this.inside.start(line ? line.text : firstLine);
  }
  begins(text: string): boolean {
    const line = unwrapped(text);
    const goesOn = this.open;
    this.open = this.isPart(line);
    if (goesOn) return false;
    const own = line ? line.text : text;
    // what one stream writes does not go on in the other
    return (line !== null && line.stream !== this.stream) || (this.timeless ? !CONTINUES.test(own) : this.inside.begins(own));
  }
  private isPart(line: Line | null): boolean {
    return line !== null && this.tells && !line.whole;
  }

  read(record: string, draft: Draft): void {
    const lines = record.split('\n').map((line) => unwrapped(line) ?? { ...BARE, text: line });
    const said = joined(lines, this.tells);
    this.inside.read(this.timeless ? `${lines[0]!.time} ${said}` : said, draft);
    const first = lines.find((line) => line.time !== '' && this.times.readAny(line.time, 0) !== null);
    if (!first) {
      if (!draft.understood) draft.message = record;
      return;
    }
    const taken = this.times.at;
    draft.fields.stream ??= first.stream;
    if (!draft.understood) {
      draft.message = said;
      draft.at = taken;
      draft.timeText = first.time;
    } else draft.at -= Math.round((draft.at - taken) / QUARTER) * QUARTER; // the program's own time, in whatever zone it is told
    draft.understood = true;
    this.json.read(draft);
  }
  save(): unknown {
    return this.inside.save?.();
  }
}
const BARE: Line = { time: '', stream: '', whole: true, text: '' };

/** What the program wrote: parts of a line are one again. */
function joined(lines: readonly Line[], tells: boolean): string {
  let text = '';
  lines.forEach(({ text: own, whole }, i) => (text += own + (i === lines.length - 1 || (tells && !whole) ? '' : '\n')));
  return text;
}
