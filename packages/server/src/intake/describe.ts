import { createHash } from 'node:crypto';
import { open } from 'node:fs/promises';
import { decode, emptyDraft, guessEncoding, guessFormats, looksBinary, openReader, sampleOf, type Encoding } from '@fadenweg/core';

const SAMPLE = 1 << 16;
const HEAD = 4096;

export interface Description {
  format: string;
  confidence: number;
  encoding: Encoding;
  component: string;
  host: string;
  size: number;
  headHash: string;
  /** Said where the file is no log at all. */
  problem: string | null;
}

/** What a file is: format with its confidence, encoding, component and host, and the fingerprint of its beginning. */
export async function describe(file: string, path: string): Promise<Description> {
  const handle = await open(file);
  try {
    const { size } = await handle.stat();
    const start = Buffer.alloc(Math.min(SAMPLE, size));
    await handle.read(start, 0, start.length, 0);
    const encoding = guessEncoding(start);
    const sample = sampleOf(path, decode(start, encoding), size <= SAMPLE);
    const best = guessFormats(sample)[0] ?? { format: 'plain', confidence: 0 };
    const binary = looksBinary(start);
    return {
      format: best.format,
      confidence: best.confidence,
      encoding,
      component: componentOf(path),
      host: hostOf(best.format, sample),
      size,
      headHash: createHash('sha256').update(start.subarray(0, HEAD)).digest('hex'),
      problem: size === 0 ? 'the file is empty' : binary ? 'the file holds binary data, not text; nothing was read from it' : null,
    };
  } finally {
    await handle.close();
  }
}

/** SHA-256 of the first `length` bytes of a file. */
export async function prefixHash(file: string, length: number): Promise<string> {
  const handle = await open(file);
  try {
    return await hashOf(handle, length);
  } finally {
    await handle.close();
  }
}

async function hashOf(handle: Awaited<ReturnType<typeof open>>, length: number): Promise<string> {
  const hash = createHash('sha256');
  const buffer = Buffer.alloc(1 << 20);
  for (let position = 0; position < length;) {
    const { bytesRead } = await handle.read(buffer, 0, Math.min(buffer.length, length - position), position);
    if (bytesRead === 0) break;
    hash.update(buffer.subarray(0, bytesRead));
    position += bytesRead;
  }
  return hash.digest('hex');
}

/** The innermost folder names the component, else the file's name without its endings, dates and numbers. */
export function componentOf(path: string): string {
  const parts = path.split('/').filter((part) => part !== '' && part !== '.');
  const folder = parts.length > 1 ? parts[parts.length - 2]! : '';
  if (folder !== '' && !/^(?:logs?|var|tmp|data|\d[\d.-]*)$/i.test(folder)) return folder.slice(0, 60);
  const bare = (parts[parts.length - 1] ?? 'unnamed')
    .replace(/\.(?:log|txt|jsonl?|csv|xml|out|err|gz|\d+)(?=\.|$)/gi, '')
    .replace(/[._-]?\d{4}-?\d{2}-?\d{2}.*$/, '');
  return (bare === '' ? 'unnamed' : bare).slice(0, 60);
}

const HOST_FIELDS = ['host', 'hostname', 'service.host', 'host.name', 'broker', 'server', 'node', 'prefix'];

/** The host that the sample's records name, where they all name the same one. */
function hostOf(format: string, sample: ReturnType<typeof sampleOf>): string {
  const reader = openReader(format, sample, { zone: 'UTC', year: 2000 });
  const seen = new Set<string>();
  for (const line of sample.lines.slice(0, 60)) {
    const draft = emptyDraft();
    reader.start(line);
    reader.read(line, draft);
    if (!draft.understood) continue;
    const name = HOST_FIELDS.find((field) => typeof draft.fields[field] === 'string');
    if (name) seen.add(String(draft.fields[name]));
    const behind = format === 'sip-trace' ? /^(\S+) (?:recv|send|in|out)\b/.exec(draft.message) : null;
    if (behind) seen.add(behind[1]!);
  }
  const only = [...seen];
  return only.length === 1 && /^[\w.-]{1,80}$/.test(only[0]!) ? only[0]! : '';
}
