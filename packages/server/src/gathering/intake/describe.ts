import { createHash } from 'node:crypto';
import { open, type FileHandle } from 'node:fs/promises';
import {
  dateOrderOf,
  decode,
  emptyDraft,
  frame,
  guessEncoding,
  guessFormats,
  lacksDay,
  lacksOf,
  looksBinary,
  openReader,
  regionsIn,
  sampleOf,
  zoneClock,
  type Encoding,
  type ReadingContext,
  type ReadingHints,
  type Sample,
} from '@fadenweg/core/reading';
import { componentOf, dayOfPath } from '../../evidence/naming.ts';

const SAMPLE = 1 << 16;
/** Bytes that the fingerprint of a beginning is of. */
export const HEAD = 4096;
/** Places in a larger file that are looked at, too, and how much at each. */
const SLICES = 16;
const SLICE = 1 << 14;
const STRIDE = 1 << 20;
const DAY = 86_400_000_000;
/** No file was written later, whatever its date says, in microseconds. */
const LATEST = Date.UTC(2200, 0, 1) * 1000;

export interface Description {
  format: string;
  confidence: number;
  encoding: Encoding;
  component: string;
  host: string;
  hints: ReadingHints;
  size: number;
  headHash: string;
  /** Said where the file is no log at all. */
  problem: string | null;
}

/**
 * What a file is: format with its confidence, encoding, component and host, how its dates are to be read, and the fingerprint of its beginning.
 *
 * @param modified when it was last written, in microseconds
 */
export async function describe(file: string, path: string, modified: number, zone = 'UTC'): Promise<Description> {
  const handle = await open(file);
  try {
    const { size } = await handle.stat();
    const written = Math.min(LATEST, Math.max(0, modified));
    const start = Buffer.alloc(Math.min(SAMPLE, size));
    await handle.read(start, 0, start.length, 0);
    const encoding = guessEncoding(start);
    const sample = sampleOf(path, decode(start, encoding), size <= SAMPLE);
    const best = guessFormats(sample)[0] ?? { format: 'plain', confidence: 0 };
    const binary = looksBinary(start);
    const hints = await hintsOf(handle, size, { sample, encoding, format: best.format, path, modified: written, zone });
    const { component, host, first } = namesOf(best.format, sample);
    if (first !== null) Object.assign(hints, lacksOf(best.format, sample, first, hints));
    return {
      format: best.format,
      confidence: best.confidence,
      encoding,
      component: component === '' ? componentOf(path) : component,
      host,
      hints,
      size,
      headHash: createHash('sha256').update(start.subarray(0, HEAD)).digest('hex'),
      problem: size === 0 ? 'the file is empty' : binary ? 'the file holds binary data, not text; nothing was read from it' : null,
    };
  } finally {
    await handle.close();
  }
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
async function hintsOf(handle: FileHandle, size: number, about: About): Promise<ReadingHints> {
  const named = dayOfPath(about.path);
  // a file is not younger than the day that its name tells, though it may have been copied since
  const modified = named === null ? about.modified : Math.min(about.modified, (named + 2) * DAY);
  const hints: ReadingHints = { modified };
  const regions = regionsIn(about.sample.text);
  if (regions.length > 0) hints.regions = regions;
  // only dates in numbers need evidence from all over the file
  if (dateOrderOf(about.sample.text, modified)) {
    const { order, certain } = dateOrderOf(about.sample.text + (await slices(handle, size, about.encoding)), modified)!;
    hints.dateOrder = order;
    if (!certain) hints.orderBy = 'guessed';
  }
  if (lacksDay(about.format, about.sample)) hints.firstDay = named ?? (await firstDay(handle, size, about, hints));
  return hints;
}

async function slices(handle: FileHandle, size: number, encoding: Encoding): Promise<string> {
  if (size <= SAMPLE) return '';
  const texts: string[] = [];
  const buffer = Buffer.alloc(SLICE);
  for (let i = 1; i <= SLICES; i++) {
    const { bytesRead } = await handle.read(buffer, 0, SLICE, Math.floor(((size - SLICE) * i) / SLICES / 2) * 2);
    texts.push(decode(buffer.subarray(0, bytesRead), encoding));
  }
  return `\n${texts.join('\n')}`;
}

/** The day of the first of times that are clocks alone: so many midnights before the file's date as the file passes. */
async function firstDay(handle: FileHandle, size: number, about: About, hints: ReadingHints): Promise<number> {
  const context: ReadingContext = { ...hints, zone: 'UTC', firstDay: 0 };
  const reader = openReader(about.format, about.sample, context);
  const draft = emptyDraft();
  let lastAt = 0;
  let place = { byte: 0, line: 1 };
  let reach = STRIDE;
  while (place.byte < size) {
    const buffer = Buffer.alloc(Math.min(reach, size - place.byte));
    await handle.read(buffer, 0, buffer.length, place.byte);
    const last = place.byte + buffer.length >= size;
    const next = frame(buffer, place, about.encoding, reader, last, ({ text, cut }) => {
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

/** SHA-256 of the first `length` bytes of a file. */
export async function prefixHash(file: string, length: number): Promise<string> {
  const handle = await open(file);
  try {
    const hash = createHash('sha256');
    const buffer = Buffer.alloc(1 << 20);
    for (let position = 0; position < length;) {
      const { bytesRead } = await handle.read(buffer, 0, Math.min(buffer.length, length - position), position);
      if (bytesRead === 0) break;
      hash.update(buffer.subarray(0, bytesRead));
      position += bytesRead;
    }
    return hash.digest('hex');
  } finally {
    await handle.close();
  }
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
  const bytes = Buffer.from(sample.text);
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
