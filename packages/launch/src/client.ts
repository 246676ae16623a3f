import { once } from 'node:events';
import { open, readdir, stat } from 'node:fs/promises';
import http, { type IncomingMessage } from 'node:http';
import https from 'node:https';
import { isUtf8 } from 'node:buffer';
import { basename } from 'node:path';
import { Readable, Transform } from 'node:stream';
import { text } from 'node:stream/consumers';
import { pipeline } from 'node:stream/promises';
import type { ReadableStream } from 'node:stream/web';
import type { ImportInfo, Problem, SourceText } from '@fadenweg/api';
import { visiblePath } from '@fadenweg/core/reading';
import { Stop } from './commands.ts';

export interface FileToSend {
  file: string | Buffer;
  /** Path below the imported folder. */
  path: string;
  size: number;
  modified: number;
}

/** The files behind paths: files as they are, folders with all that is in them. */
export async function filesBelow(paths: readonly string[]): Promise<FileToSend[]> {
  const files: FileToSend[] = [];
  for (const path of paths) {
    const info = await stat(path).catch(() => null);
    if (!info) throw new Stop(`“${path}” does not exist.`);
    if (info.isDirectory()) await addBelow(Buffer.from(path), '', files);
    else files.push({ file: path, path: visiblePath(basename(path)), size: info.size, modified: info.mtimeMs });
  }
  return files.sort((a, b) => a.path.localeCompare(b.path));
}
const SLASH = Buffer.from('/');
/** Names are bytes: one that is no UTF-8 is opened by them, and shown as if it were Latin-1. */
async function addBelow(folder: Buffer, path: string, files: FileToSend[]): Promise<void> {
  for (const entry of await readdir(folder, { withFileTypes: true, encoding: 'buffer' })) {
    const file = Buffer.concat([folder, SLASH, entry.name]);
    const own = `${path}${visiblePath(isUtf8(entry.name) ? entry.name.toString('utf8') : entry.name.toString('latin1'))}`;
    if (entry.isDirectory()) await addBelow(file, `${own}/`, files);
    if (!entry.isFile()) continue;
    const about = await stat(file).catch(() => null); // removed since it was listed
    if (about) files.push({ file, path: own, size: about.size, modified: about.mtimeMs });
  }
}

/**
 * Sends files as one import, streaming; returns its first state.
 *
 * @param missed told of a file that can no longer be read; the others go on
 */
export const sendFiles = (
  url: string,
  files: readonly FileToSend[],
  query: Record<string, string>,
  missed: (path: string, reason: string) => void = () => {},
): Promise<ImportInfo> => sendParts(`${url}/api/imports?${new URLSearchParams(query)}`, files, missed);

/** Registers files as the source text of a component's version. */
export const sendSourceText = (url: string, files: readonly FileToSend[], component: string, version: string): Promise<SourceText> =>
  sendParts(`${url}/api/source-texts?${new URLSearchParams({ component, version })}`, files, (path, reason) => {
    throw new Stop(`“${path}” cannot be read: ${reason}`);
  });

function sendParts<T>(address: string, files: readonly FileToSend[], missed: (path: string, reason: string) => void): Promise<T> {
  const boundary = `fadenweg-${Date.now().toString(36)}`;
  async function* body(): AsyncGenerator<Buffer> {
    for (const { file, path, size, modified } of files) {
      const handle = await open(file).catch((error: NodeJS.ErrnoException) => {
        missed(path, error.code === 'ENOENT' ? 'it is gone' : error.message);
        return null;
      });
      if (!handle) continue;
      try {
        const name = path.replaceAll('"', '%22').replace(/[\r\n]/g, ' ');
        yield Buffer.from(
          `--${boundary}\r\ncontent-disposition: form-data; name="modified:${name}"\r\n\r\n${Math.floor(modified)}\r\n--${boundary}\r\ncontent-disposition: form-data; name="file"; filename="${name}"\r\ncontent-type: application/octet-stream\r\n\r\n`,
        );
        // a file that grows meanwhile is sent as long as it was when it was listed
        if (size > 0) yield* handle.createReadStream({ end: size - 1 }) as AsyncIterable<Buffer>;
        yield Buffer.from('\r\n');
      } finally {
        await handle.close(); // also where the sending is given up
      }
    }
    yield Buffer.from(`--${boundary}--\r\n`);
  }
  return post<T>(address, `multipart/form-data; boundary=${boundary}`, body());
}

/** Sends a body as it comes. The platform's `fetch` keeps all that it has sent until the end: gigabytes of memory for gigabytes of logs. */
async function post<T>(address: string, type: string, body: AsyncIterable<Buffer>): Promise<T> {
  const sending = (address.startsWith('https:') ? https : http).request(address, { method: 'POST', headers: { 'content-type': type } });
  const answered = once(sending, 'response') as Promise<[IncomingMessage]>;
  // a server that refuses answers before all is sent: then its answer counts, and not that the rest could not be sent
  let amiss: Error | null = null;
  async function* told(): AsyncGenerator<Buffer> {
    try {
      yield* body;
    } catch (error) {
      amiss = error as Error;
      throw error;
    }
  }
  pipeline(Readable.from(told()), sending).catch((error: Error) => sending.destroy(error));
  const [response] = await answered.catch((error: Error) => {
    throw amiss ?? silent(address, error.message);
  });
  const answer = JSON.parse(await text(response)) as T | Problem;
  if ((response.statusCode ?? 0) >= 400) throw refused(answer as Problem);
  return answer as T;
}

/** The server does not answer, or its database does not: it may come back. */
export class Away extends Stop {}
const silent = (url: string, why: string): Stop =>
  new Away(`${new URL(url).origin} does not answer (${why}). Is it running? Start it with bin/demo.`);
const refused = ({ status, title, detail, action }: Problem): Stop =>
  new (status === 503 ? Away : Stop)(`${title}: ${detail}${action ? ` ${action}` : ''}`);
const reached = (url: string, init?: RequestInit): Promise<Response> =>
  fetch(url, init).catch((error: Error) => {
    throw silent(url, (error.cause as Error | undefined)?.message ?? error.message);
  });

export async function call<T>(url: string, init?: RequestInit): Promise<T> {
  const response = await reached(url, init);
  if (response.status === 204) return undefined as T;
  const answer = (await response.json()) as T | Problem;
  if (!response.ok) throw refused(answer as Problem);
  return answer as T;
}

/**
 * Writes what a call answers as it comes.
 *
 * @throws Stop where it breaks off, with how much of it came
 */
export async function download(url: string, to: NodeJS.WritableStream): Promise<void> {
  const response = await reached(url);
  if (!response.ok || !response.body) throw refused((await response.json()) as Problem);
  const awaited = response.headers.get('x-strands');
  let lines = 0;
  const counted = new Transform({
    transform(chunk: Buffer, _encoding, done) {
      for (let at = chunk.indexOf(10); at >= 0; at = chunk.indexOf(10, at + 1)) lines++;
      done(null, chunk);
    },
  });
  try {
    await pipeline(Readable.fromWeb(response.body as ReadableStream<Uint8Array>), counted, to, { end: false });
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'EPIPE') return; // who reads has enough
    const how =
      awaited === null
        ? `after ${lines.toLocaleString('en')} lines`
        : `after ${lines.toLocaleString('en')} of ${Number(awaited).toLocaleString('en')} strands`;
    throw new Stop(`The export broke off ${how}: what follows is missing. Run it again. (${(error as Error).message})`);
  }
}

/** Told while an import is waited for: how it stands, or that the server or its database is away, and since when. */
export interface Waiting {
  progress(info: ImportInfo): void;
  away?(why: string): void;
}
/** A server that is away so long does not come back, in milliseconds. */
const LONGEST_AWAY = 600_000;

/** Follows an import to its end, also while the database is away or the server is started again. */
export async function waitForImport(url: string, id: number, { progress, away }: Waiting): Promise<ImportInfo> {
  let since: number | null = null;
  for (;;) {
    try {
      const info = await call<ImportInfo>(`${url}/api/imports/${id}`);
      since = null;
      progress(info);
      if (!['receiving', 'reading'].includes(info.state)) return info;
    } catch (error) {
      if (!(error instanceof Away)) throw error;
      since ??= Date.now();
      if (Date.now() - since > LONGEST_AWAY) throw error;
      away?.(error.message);
    }
    await new Promise((resolve) => setTimeout(resolve, 300));
  }
}
