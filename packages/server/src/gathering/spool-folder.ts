import { mkdir, readdir, rm } from 'node:fs/promises';
import { join } from 'node:path';

/**
 * Takes away what a dead process left in its spool folder: files that had arrived but were noted nowhere. Called when nothing arrives yet; the folder
 * is this database's own.
 *
 * @param needed files that sources are still to be read from
 * @returns how many were taken away
 */
export async function clearSpool(folder: string, needed: readonly string[]): Promise<number> {
  await mkdir(folder, { recursive: true });
  const kept = new Set(needed);
  const left = (await readdir(folder, { withFileTypes: true })).filter((entry) => entry.isFile() && !kept.has(join(folder, entry.name)));
  for (const { name } of left) await rm(join(folder, name), { force: true });
  return left.length;
}
