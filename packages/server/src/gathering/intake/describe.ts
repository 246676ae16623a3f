import { createHash } from 'node:crypto';
import { readSync } from 'node:fs';
import { open } from 'node:fs/promises';
import { describeSource, type Description, type SourceBytes } from '@fadenweg/core/reading';

/** Bytes that the fingerprint of a beginning is of. */
export const HEAD = 4096;

/** What a file is, how long it is, and the fingerprint of its beginning. */
export interface DescribedFile extends Description {
  size: number;
  headHash: string;
}

/** @param modified when it was last written, in microseconds */
export async function describe(file: string, path: string, modified: number, zone = 'UTC'): Promise<DescribedFile> {
  const handle = await open(file);
  try {
    const { size } = await handle.stat();
    const bytes: SourceBytes = {
      size,
      at(from, length) {
        const buffer = Buffer.alloc(Math.max(0, Math.min(length, size - from)));
        let read = 0;
        while (read < buffer.length) {
          const more = readSync(handle.fd, buffer, read, buffer.length - read, from + read);
          if (more === 0) break; // it was cut meanwhile
          read += more;
        }
        return buffer.subarray(0, read);
      },
    };
    const about = describeSource(bytes, path, modified, zone);
    return { ...about, size, headHash: createHash('sha256').update(bytes.at(0, HEAD)).digest('hex') };
  } finally {
    await handle.close();
  }
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
