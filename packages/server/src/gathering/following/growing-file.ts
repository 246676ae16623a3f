import { createHash, type Hash } from 'node:crypto';
import { open, stat, type FileHandle } from 'node:fs/promises';

/** Which file it is, whatever it is called. */
export const keyOf = ({ dev, ino }: { dev: number; ino: number }): string => `${dev}:${ino}`;

/** Bytes read at one look. */
const MOST = 4 << 20;
/** So much before the place that was reached has to be what it was: a file can be emptied and be longer again before one looks. */
const OVERLAP = 64;

/** What a look at a file found. */
export interface Look {
  /** New bytes, in their order. */
  more: Buffer;
  /** What was followed has ended: another file has its name, it is gone, or it was emptied. */
  ended: boolean;
}

/**
 * A file that grows, followed through its open handle: a new name changes nothing, and what is written until it is replaced is still read.
 */
export class GrowingFile {
  private constructor(
    readonly path: string,
    readonly key: string,
    private readonly handle: FileHandle,
    /** The next byte to read. */
    private read: number,
    private readonly hash: Hash,
    private before: Buffer,
  ) {}

  get reached(): number {
    return this.read;
  }
  /** SHA-256, hexadecimal, of the file up to the end of what is given, which goes on where it was given last. */
  hashWith(more: Uint8Array): string {
    return this.hash.update(more).copy().digest('hex');
  }

  /**
   * Opens a file to be followed from a byte on.
   *
   * @param expected hash of the bytes before that one; '' to trust them
   * @returns null where there is no such file, or it begins otherwise
   */
  static async from(path: string, byte = 0, expected = ''): Promise<GrowingFile | null> {
    const handle = await open(path).catch((error: NodeJS.ErrnoException) => {
      if (error.code === 'ENOENT') return null;
      throw error;
    });
    if (!handle) return null;
    const about = await handle.stat();
    const hash = createHash('sha256');
    let before: Buffer = Buffer.alloc(0);
    if (about.size >= byte && about.isFile()) {
      let at = 0;
      const block = Buffer.alloc(1 << 20);
      for (let bytesRead = 1; at < byte && bytesRead > 0; at += bytesRead) {
        ({ bytesRead } = await handle.read(block, 0, Math.min(block.length, byte - at), at));
        hash.update(block.subarray(0, bytesRead));
        before = Buffer.concat([before, block.subarray(0, bytesRead)]).subarray(-OVERLAP);
      }
      if (at === byte && (expected === '' || hash.copy().digest('hex') === expected))
        return new GrowingFile(path, keyOf(about), handle, byte, hash, Buffer.from(before));
    }
    await handle.close();
    return null;
  }

  /** Bytes from one place to another, both before the one that was reached. */
  async bytes(from: number, to: number): Promise<Buffer> {
    const bytes = Buffer.alloc(to - from);
    await this.handle.read(bytes, 0, bytes.length, from);
    return bytes;
  }

  async look(): Promise<Look> {
    const none = Buffer.alloc(0);
    const { size } = await this.handle.stat();
    if (size < this.read) return { more: none, ended: true };
    const named = await stat(this.path).catch(() => null); // gone, or out of reach: what is open can still be read
    const bytes = Buffer.alloc(Math.min(MOST, size - this.read) + this.before.length);
    const { bytesRead } = await this.handle.read(bytes, 0, bytes.length, this.read - this.before.length);
    if (!bytes.subarray(0, this.before.length).equals(this.before)) return { more: none, ended: true };
    const more = bytes.subarray(this.before.length, bytesRead);
    this.read += more.length;
    this.before = Buffer.from(bytes.subarray(0, bytesRead).subarray(-OVERLAP));
    return { more, ended: more.length === 0 && (named === null || keyOf(named) !== this.key) };
  }

  close(): Promise<void> {
    return this.handle.close();
  }
}
