import { dateOrderOf } from './calendar.ts';
import { decode, encode, guessEncoding, looksBinary, type Encoding } from './encoding.ts';
import { frame } from './framing.ts';
import { lacksOf } from './lacking.ts';
import { guessFormats, lacksDay, openReader, sampleOf } from './registry.ts';
import { componentOf, dayOfPath } from './source-naming.ts';
import { emptyDraft, type ReadingContext, type ReadingHints, type Sample } from './types.ts';
import { regionsIn } from './zone-guess.ts';
import { zoneClock } from './zones.ts';

/** Bytes of a beginning by which a source is described and read. */
export const SAMPLE = 1 << 16;
/** Places in a larger file that are looked at, too, and how much at each. */
const SLICES = 16;
const SLICE = 1 << 14;
const STRIDE = 1 << 20;
const DAY = 86_400_000_000;
/** No file was written later, whatever its date says, in microseconds. */
const LATEST = Date.UTC(2200, 0, 1) * 1000;

/** The bytes of a source, wherever they lie. */
export interface SourceBytes {
  readonly size: number;
  /** Those from a position on, fewer than asked for at the end. */
  at(from: number, length: number): Uint8Array;
}
export interface Description {
  format: string;
  confidence: number;
  encoding: Encoding;
  component: string;
  host: string;
  hints: ReadingHints;
  /** Said where the file is no log at all. */
  problem: string | null;
}

/**
 * What a file is: format with its confidence, encoding, component and host, and how its dates are to be read.
 *
 * @param modified when it was last written, in microseconds
 */
export function describeSource(bytes: SourceBytes, path: string, modified: number, zone = 'UTC'): Description {
  const { size } = bytes;
  const written = Math.min(LATEST, Math.max(0, modified));
  const start = bytes.at(0, Math.min(SAMPLE, size));
  const encoding = guessEncoding(start);
  const sample = sampleOf(path, decode(start, encoding), size <= SAMPLE);
  const best = guessFormats(sample)[0] ?? { format: 'plain', confidence: 0 };
  const binary = looksBinary(start);
  const hints = hintsOf(bytes, { sample, encoding, format: best.format, path, modified: written, zone });
  const { component, host, first } = namesOf(best.format, sample);
  if (first !== null) Object.assign(hints, lacksOf(best.format, sample, first, hints));
  return {
    format: best.format,
    confidence: best.confidence,
    encoding,
    component: component === '' ? componentOf(path) : component,
    host,
    hints,
    problem: size === 0 ? 'the file is empty' : binary ? 'the file holds binary data, not text; nothing was read from it' : null,
  };
}

interface About {
  sample: Sample;
  encoding: Encoding;
  format: string;
  path: string;
  modified: number;
  zone: string;
}

/** What helps to read times that are not whole: evidence from all over the file, its name, its date. */
function hintsOf(bytes: SourceBytes, about: About): ReadingHints {
  const named = dayOfPath(about.path);
  // a file is not younger than the day that its name tells, though it may have been copied since
  const modified = named === null ? about.modified : Math.min(about.modified, (named + 2) * DAY);
  const hints: ReadingHints = { modified };
  const regions = regionsIn(about.sample.text);
  if (regions.length > 0) hints.regions = regions;
  // only dates in numbers need evidence from all over the file
  if (dateOrderOf(about.sample.text, modified)) {
    const { order, certain } = dateOrderOf(about.sample.text + slices(bytes, about.encoding), modified)!;
    hints.dateOrder = order;
    if (!certain) hints.orderBy = 'guessed';
  }
  if (lacksDay(about.format, about.sample)) hints.firstDay = named ?? firstDay(bytes, about, hints);
  return hints;
}

function slices(bytes: SourceBytes, encoding: Encoding): string {
  const { size } = bytes;
  if (size <= SAMPLE) return '';
  const texts: string[] = [];
  for (let i = 1; i <= SLICES; i++) texts.push(decode(bytes.at(Math.floor(((size - SLICE) * i) / SLICES / 2) * 2, SLICE), encoding));
  return `\n${texts.join('\n')}`;
}

/** The day of the first of times that are clocks alone: so many midnights before the file's date as the file passes. */
function firstDay(bytes: SourceBytes, about: About, hints: ReadingHints): number {
  const context: ReadingContext = { ...hints, zone: 'UTC', firstDay: 0 };
  const reader = openReader(about.format, about.sample, context);
  const draft = emptyDraft();
  let lastAt = 0;
  let place = { byte: 0, line: 1 };
  let reach = STRIDE;
  while (place.byte < bytes.size) {
    const some = bytes.at(place.byte, Math.min(reach, bytes.size - place.byte));
    const last = place.byte + some.length >= bytes.size;
    const next = frame(some, place, about.encoding, reader, last, ({ text, cut }) => {
      draft.understood = false;
      if (!cut) reader.read(text, draft);
      if (draft.understood) lastAt = draft.at;
    });
    if (next.byte === place.byte && last) break;
    reach = next.byte === place.byte ? reach + STRIDE : STRIDE;
    place = next;
  }
  const local = hints.modified + zoneClock(about.zone).offsetAt(Math.floor(hints.modified / 1000)) * 1000;
  const written = Math.floor(local / DAY) - (local % DAY < (lastAt % DAY) - DAY / 24 ? 1 : 0);
  return written - Math.floor(lastAt / DAY);
}

const HOST_FIELDS = ['host', 'hostname', 'service.host', 'host.name', 'broker', 'server', 'node', 'prefix'];
const PLAIN_NAME = /^[\w.-]{1,80}$/;

/** The component and the host that the sample's records name, where they all name the same one. */
function namesOf(format: string, sample: Sample): { component: string; host: string; first: string | null } {
  const reader = openReader(format, sample, { zone: 'UTC', modified: 0 });
  const hosts = new Set<string>();
  const components = new Set<string>();
  /** First words of the messages; a name and a number that all begin with is a host. */
  const firstWords = new Set<string>();
  let first: string | null = null;
  const bytes = encode(sample.text);
  let records = 0;
  frame(bytes, { byte: 0, line: 1 }, 'utf-8', reader, true, ({ text, cut }) => {
    if (cut || ++records > 100) return;
    const draft = emptyDraft();
    reader.read(text, draft);
    if (!draft.understood) return;
    first ??= text;
    if (draft.component !== '') components.add(draft.component);
    const name = HOST_FIELDS.find((field) => typeof draft.fields[field] === 'string');
    if (draft.host !== '') hosts.add(draft.host);
    else if (name) hosts.add(String(draft.fields[name]));
    const behind = format === 'sip-trace' ? /^(\S+) (?:recv|send|in|out)\b/.exec(draft.message) : null;
    if (behind) hosts.add(behind[1]!);
    if (format === 'text') firstWords.add(/^[a-z][a-z0-9]{1,15}-?\d{1,3}(?= )/.exec(draft.message)?.[0] ?? '');
  });
  const only = (names: Set<string>): string => (names.size === 1 && PLAIN_NAME.test([...names][0]!) ? [...names][0]! : '');
  return { component: only(components), host: only(hosts) || only(firstWords), first };
}
