import type { Draft, Fields, Reader, RecordReader, ReadingContext, Sample } from './shared.ts';
import { flatten, parseObject } from '../json-fields.ts';
import { NamedFields, namesOf, programField } from '../named-fields.ts';
import { clearDraft, emptyDraft } from '../types.ts';
import { InnerJson } from './inner-json.ts';
import { InnerText } from './inner-text.ts';

/** Objects line by line are that, also where nothing in them tells a time. */
const TIMELESS = 0.94;
const MOST_LINES = 40;
/** Guessing, describing and reading open the same sample again and again. */
const known = new WeakMap<Sample, Known>();
interface Known {
  /** Messages that may hold a level, read on where nearly no record tells one. */
  messages: string[];
  program: string | null;
}
/** Where so many records tell no level, their messages may. */
const LEVELLESS = 0.8;
/** Lines that a program may say before its first object. */
const BANNER = 30;

/** One JSON object a line (RFC 8259), of any nesting; nested names become paths with dots. */
export const jsonLines: Reader = {
  format: 'json-lines',
  confidence(sample) {
    const all = sample.lines.filter((line) => line.trim() !== '').slice(0, 200);
    const first = all.findIndex((line) => line.startsWith('{'));
    const lines = first > 0 && first <= BANNER && first < all.length / 2 ? all.slice(first) : all;
    if (lines.length === 0) return 0;
    const named = new NamedFields({ zone: 'UTC', modified: 0 });
    let sum = 0;
    for (const line of lines) {
      const object = line.trimStart().startsWith('{') ? parseObject(line) : null;
      if (!object) continue;
      const fields: Fields = {};
      flatten(object, '', fields);
      sum += named.hasTime(fields) ? 1 : lines.length > 1 ? TIMELESS : 0.5;
    }
    return (sum / lines.length) * 0.98;
  },
  open: (sample: Sample, context: ReadingContext): RecordReader => new JsonLinesReader(sample, context),
};

class JsonLinesReader implements RecordReader {
  private readonly named: NamedFields;
  private readonly innerJson: InnerJson;
  private readonly innerText: InnerText | null = null;
  private readonly program: string | null;
  constructor(sample: Sample, context: ReadingContext) {
    this.named = new NamedFields(context);
    this.innerJson = new InnerJson(context);
    let about = known.get(sample);
    if (!about) known.set(sample, (about = learn(sample)));
    this.program = about.program;
    this.innerText = InnerText.of(about.messages, context);
  }
  start(): void {}
  begins(): boolean {
    return true;
  }

  read(text: string, draft: Draft): void {
    const object = parseObject(text);
    if (!object) {
      draft.message = text;
      return;
    }
    const fields: Fields = {};
    flatten(object, '', fields);
    const { component, host } = namesOf(fields, this.program);
    draft.component = component;
    draft.host = host;
    if (!this.named.read(fields, text, draft) || draft.message === text) return;
    this.innerJson.read(draft);
    this.innerText?.read(draft);
  }
}

/** What names the program, and the messages of a sample's records, if nearly none of them tells a level. Read by a reader of its own: a source's own begins where the source does. */
function learn(sample: Sample): Known {
  const named = new NamedFields({ zone: 'UTC', modified: 0 });
  const draft = emptyDraft();
  const messages: string[] = [];
  const records: Fields[] = [];
  const lines = sample.lines.slice(0, MOST_LINES).filter((line) => line !== '');
  for (const line of lines) {
    const object = parseObject(line);
    if (!object) continue;
    clearDraft(draft);
    const fields: Fields = {};
    flatten(object, '', fields);
    records.push(fields);
    if (named.read(fields, line, draft) && draft.level === 0 && draft.message !== line) messages.push(draft.message);
  }
  return { messages: messages.length >= lines.length * LEVELLESS ? messages : [], program: programField(records) };
}
