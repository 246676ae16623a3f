import type { Readable } from 'node:stream';
import busboy from 'busboy';
import type { Request } from 'express';
import { Refusal } from './problems.ts';

/** A file of an upload, in its stream. It has to be read to its end, or destroyed. */
export interface Uploaded {
  /** As it was sent: no path of ours. */
  name: string;
  modified: Date;
  content: Readable & { truncated?: boolean };
}
export interface UploadLimits {
  files: number;
  /** Bytes of one file. */
  fileSize?: number;
}
/** Files were never written before, nor will be after this. */
const LATEST = Date.UTC(2200, 0, 1);

/** Thrown by whoever takes files in where there are too many of them. */
export class TooManyFiles extends Error {}

/**
 * Takes the files of a multipart upload in, one after the other: a file is not read on before the one ahead of it is taken.
 *
 * @param take resolves when a file is taken in
 * @throws Refusal where it is no upload; TooManyFiles; what `take` throws; or what broke the upload off, also where it ends without its last boundary
 */
export async function receiveFiles(request: Request, limits: UploadLimits, take: (file: Uploaded) => Promise<void>): Promise<void> {
  if (!/^multipart\/form-data/i.test(request.headers['content-type'] ?? ''))
    throw new Refusal(415, 'Not multipart', 'Files come as multipart/form-data.', 'Send each file as a part with its path as the file name.');
  let parser: busboy.Busboy;
  try {
    parser = busboy({
      headers: request.headers,
      preservePath: true,
      defParamCharset: 'utf8',
      limits: { ...limits, fields: limits.files, fieldSize: 10_000 },
    });
  } catch (error) {
    throw new Refusal(400, 'The upload cannot be read', (error as Error).message);
  }
  const modified = new Map<string, Date>();
  let taking = Promise.resolve();
  const received = new Promise<void>((resolve, reject) => {
    const leave = (error: Error): void => {
      reject(error);
      request.unpipe(parser);
      parser.destroy(); // with the file that is being read
      request.resume(); // the sender hears the answer when all is sent
    };
    parser.on('field', (name, value) => {
      const ms = Number(value);
      if (name.startsWith('modified:') && ms >= 0 && ms < LATEST) modified.set(name.slice(9), new Date(ms));
    });
    parser.on('file', (_field, content, info) => {
      const name = info.filename ?? 'unnamed';
      content.on('error', leave); // an upload that breaks off breaks the file that is being read, too
      taking = taking.then(() => take({ name, modified: modified.get(name) ?? new Date(), content }));
      taking.catch(leave);
    });
    parser.on('filesLimit', () => leave(new TooManyFiles(`more than ${limits.files.toLocaleString('en')} files at once`)));
    parser.on('error', (error) => leave(error as Error));
    parser.on('close', () => void taking.then(resolve, reject));
    request.on('aborted', () => leave(new Error('the sender went away')));
    request.pipe(parser);
  });
  try {
    await received;
  } catch (error) {
    await taking.catch(() => {}); // what broke the upload off is told, and nothing is taken in afterwards
    throw error;
  }
}
