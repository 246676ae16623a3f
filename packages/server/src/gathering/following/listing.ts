import { readdir, stat } from 'node:fs/promises';
import { basename, dirname, join, relative } from 'node:path';
import { familyOf } from '@fadenweg/core/reading';
import { keyOf } from './growing-file.ts';

/** More files are not followed. */
export const MOST_FILES = 2000;

export interface ListedFile {
  file: string;
  /** As the source is called: below the followed folder, with its name. */
  path: string;
  key: string;
  size: number;
  /** In milliseconds since 1970. */
  modified: number;
}

/**
 * The files of what is followed, the oldest first: all below a folder but hidden ones; of a single file also those beside it that are parts of the same log.
 *
 * @throws where the path cannot be read
 */
export async function listed(path: string): Promise<ListedFile[]> {
  const about = await stat(path).catch((error: NodeJS.ErrnoException) => {
    if (error.code === 'ENOENT') return null;
    throw error;
  });
  const folder = about?.isDirectory() === true;
  const base = folder ? path : dirname(path);
  const names = folder
    ? (await readdir(path, { recursive: true, withFileTypes: true })).filter((one) => one.isFile()).map((one) => join(one.parentPath, one.name))
    : (await readdir(base, { withFileTypes: true }))
        .filter((one) => one.isFile() && familyOf(one.name) === familyOf(basename(path)))
        .map((one) => join(base, one.name));
  const seen = names.filter((file) => !relative(base, file).split('/').some((part) => part.startsWith('.'))).slice(0, MOST_FILES); // prettier-ignore
  const files = await Promise.all(
    seen.map(async (file): Promise<ListedFile | null> => {
      const one = await stat(file).catch(() => null); // gone since it was listed
      if (!one) return null;
      return { file, path: join(basename(base), relative(base, file)), key: keyOf(one), size: one.size, modified: one.mtimeMs };
    }),
  );
  return files.filter((one) => one !== null).sort((a, b) => a.modified - b.modified || a.file.localeCompare(b.file));
}
