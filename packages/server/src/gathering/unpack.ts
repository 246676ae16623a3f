import { createHash } from 'node:crypto';
import { createReadStream, createWriteStream } from 'node:fs';
import { open, rm, stat } from 'node:fs/promises';
import { Transform, type Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { createGunzip } from 'node:zlib';
import tar from 'tar-stream';
import yauzl from 'yauzl';

/** A file as it came, or one that an archive holds. */
export interface Arrived {
  path: string;
  modified: Date;
  file: string;
  size: number;
  /** SHA-256, hexadecimal. */
  contentHash: string;
}
export interface Refused {
  path: string;
  problem: string;
}
/** How archives are bounded, against those that are made to fill a disk. */
export interface UnpackLimits {
  /** Archives inside of archives. */
  depth: number;
  members: number;
  /** Unpacked bytes of one archive. */
  bytes: number;
  /** Unpacked bytes for each packed one, counted above `freeBytes`. */
  ratio: number;
  freeBytes: number;
}
export const UNPACK_LIMITS: UnpackLimits = { depth: 4, members: 20_000, bytes: 64 * 2 ** 30, ratio: 300, freeBytes: 256 * 2 ** 20 };

/** Writes what arrives to a file, and takes its size and SHA-256 on the way, so that it need not be read again for them. */
export async function spool(content: Readable, file: string, guard?: (bytes: number) => void): Promise<{ size: number; contentHash: string }> {
  const hash = createHash('sha256');
  let size = 0;
  const watch = new Transform({
    transform(chunk: Buffer, _encoding, done) {
      hash.update(chunk);
      size += chunk.length;
      try {
        guard?.(chunk.length);
        done(null, chunk);
      } catch (error) {
        done(error as Error);
      }
    },
  });
  await pipeline(content, watch, createWriteStream(file, { highWaterMark: 1 << 20 }));
  return { size, contentHash: hash.digest('hex') };
}

type Packing = 'gzip' | 'zip' | 'tar' | null;

async function packingOf(file: string): Promise<Packing> {
  const handle = await open(file);
  try {
    const head = Buffer.alloc(512);
    const { bytesRead } = await handle.read(head, 0, 512, 0);
    if (head[0] === 0x1f && head[1] === 0x8b) return 'gzip';
    if (head.readUInt32LE(0) === 0x04034b50 || head.readUInt32LE(0) === 0x06054b50) return 'zip';
    return bytesRead === 512 && head.toString('latin1', 257, 262) === 'ustar' ? 'tar' : null;
  } finally {
    await handle.close();
  }
}

/**
 * A file itself, or the files inside of it where it is packed (gzip, zip, tar, also one inside the other), each as soon as it is unpacked.
 * An archive that breaks off gives what came before; a member that must not be unpacked is refused with the reason, and the others come.
 * Files are written beside the given one, which goes away when it was an archive; the caller owns what it is given.
 */
export async function* unpack(arrived: Arrived, limits: UnpackLimits = UNPACK_LIMITS, depth = 0): AsyncGenerator<Arrived | Refused> {
  const packing = await packingOf(arrived.file);
  if (packing === null) {
    yield arrived;
    return;
  }
  if (depth >= limits.depth) {
    await rm(arrived.file, { force: true });
    yield { path: arrived.path, problem: `the archive lies ${limits.depth} archives deep; it was not opened` };
    return;
  }
  let total = 0;
  const guard = (bytes: number): void => {
    total += bytes;
    if (total > limits.bytes) throw new Error(`the archive holds more than ${Math.round(limits.bytes / 2 ** 30)} GB; what came behind was not read`);
    if (total > limits.freeBytes && total > arrived.size * limits.ratio)
      throw new Error(`the archive grows to more than ${limits.ratio} times its size; what came behind was not read`);
  };
  try {
    const members = packing === 'gzip' ? gzip(arrived, guard) : packing === 'zip' ? zip(arrived, limits, guard) : untar(arrived, limits, guard);
    for await (const member of members) {
      if ('problem' in member) yield member;
      else yield* unpack(member, limits, depth + 1);
    }
  } catch (error) {
    yield { path: arrived.path, problem: `could not be unpacked: ${(error as Error).message}` };
  } finally {
    await rm(arrived.file, { force: true });
  }
}

type Guard = (bytes: number) => void;
const nextFile = (base: string): string => `${base}-${process.hrtime.bigint().toString(36)}`;

async function* gzip(arrived: Arrived, guard: Guard): AsyncGenerator<Arrived | Refused> {
  const file = nextFile(arrived.file);
  const path = arrived.path.replace(/\.tgz$/i, '.tar').replace(/\.gz$/i, '');
  let problem: string;
  try {
    yield { path, modified: arrived.modified, file, ...(await spool(createReadStream(arrived.file).pipe(createGunzip()), file, guard)) };
    return;
  } catch (error) {
    problem = (error as Error).message;
  }
  // a log that is still being packed breaks off: what is there counts
  const { size } = await stat(file).catch(() => ({ size: 0 }));
  if (size > 0 && /unexpected end of file/.test(problem)) {
    const whole = nextFile(arrived.file);
    yield { path, modified: arrived.modified, file: whole, ...(await spool(createReadStream(file), whole)) };
    problem = 'the packed file breaks off; what it holds up to there was read';
  }
  await rm(file, { force: true });
  yield { path: arrived.path, problem };
}

/** Why a member of an archive must not be unpacked, null for one that may. */
export function memberProblem(name: string): string | null {
  if (/^(?:[\\/]|[A-Za-z]:)/.test(name)) return 'the archive gives it an absolute path';
  return name.split(/[\\/]/).includes('..') ? 'its path leads out of the archive' : null;
}

async function* untar(arrived: Arrived, limits: UnpackLimits, guard: Guard): AsyncGenerator<Arrived | Refused> {
  const extract = tar.extract();
  const feeding = pipeline(createReadStream(arrived.file), extract);
  feeding.catch(() => {}); // thrown to whoever reads the members
  let members = 0;
  for await (const entry of extract) {
    const { name, type, mtime } = entry.header;
    const path = `${arrived.path}/${name}`;
    const problem = type === 'file' || type === 'contiguous-file' ? memberProblem(name) : type === 'directory' ? null : `a ${type} is no file`;
    if (problem !== null || type === 'directory') {
      entry.resume();
      if (problem !== null) yield { path, problem };
      continue;
    }
    if (++members > limits.members) throw new Error(`more than ${limits.members} files in one archive; what came behind was not read`);
    const file = nextFile(arrived.file);
    yield { path, modified: mtime ?? arrived.modified, file, ...(await spool(entry as unknown as Readable, file, guard)) };
  }
  await feeding;
}

async function* zip(arrived: Arrived, limits: UnpackLimits, guard: Guard): AsyncGenerator<Arrived | Refused> {
  const archive = await new Promise<yauzl.ZipFile>((resolve, reject) =>
    yauzl.open(arrived.file, { lazyEntries: true, autoClose: false, decodeStrings: false, validateEntrySizes: true }, (error, opened) =>
      error ? reject(error) : resolve(opened),
    ),
  );
  try {
    if (archive.entryCount > limits.members) throw new Error(`more than ${limits.members} files in one archive`);
    for (let entry = await nextEntry(archive); entry; entry = await nextEntry(archive)) {
      // undecoded, since a name that leads elsewhere would end the whole archive
      const name = Buffer.from(entry.fileName as unknown as Uint8Array).toString('utf8');
      if (name.endsWith('/')) continue;
      const path = `${arrived.path}/${name}`;
      const problem = memberProblem(name) ?? ((entry.generalPurposeBitFlag & 1) === 1 ? 'it is encrypted' : null);
      if (problem !== null) {
        yield { path, problem };
        continue;
      }
      const file = nextFile(arrived.file);
      yield { path, modified: entry.getLastModDate(), file, ...(await spool(await entryStream(archive, entry), file, guard)) };
    }
  } finally {
    archive.close();
  }
}

function nextEntry(archive: yauzl.ZipFile): Promise<yauzl.Entry | null> {
  return new Promise((resolve, reject) => {
    const settle = (done: () => void): void => {
      archive.removeAllListeners();
      done();
    };
    archive.once('entry', (entry: yauzl.Entry) => settle(() => resolve(entry)));
    archive.once('end', () => settle(() => resolve(null)));
    archive.once('error', (error: Error) => settle(() => reject(error)));
    archive.readEntry();
  });
}
const entryStream = (archive: yauzl.ZipFile, entry: yauzl.Entry): Promise<Readable> =>
  new Promise((resolve, reject) => archive.openReadStream(entry, (error, stream) => (error ? reject(error) : resolve(stream))));
