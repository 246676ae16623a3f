import { holdsSeveral } from '@fadenweg/core/reading';

export interface Dropped {
  file: File;
  path: string;
}
const MOST = 20_000;

/** The files of one folder without its name, where that tells nothing of what wrote them: then each goes by its own name. */
export function withoutSoleFolder<T extends { path: string }>(files: readonly T[]): T[] {
  const folder = files[0]?.path.split('/')[0] ?? '';
  const names = files.map(({ path }) => path.slice(folder.length + 1));
  const sole = files.every(({ path }, i) => path.startsWith(`${folder}/`) && !names[i]!.includes('/'));
  return sole && holdsSeveral(folder, names) ? files.map((one, i) => ({ ...one, path: names[i]! })) : [...files];
}

/** All files of a drop, folders walked through, with their paths below what was dropped. */
export async function droppedFiles(data: DataTransfer): Promise<Dropped[]> {
  const entries = [...data.items].map((item) => item.webkitGetAsEntry()).filter((entry): entry is FileSystemEntry => entry !== null);
  const found: Dropped[] = [];
  for (const entry of entries) await walk(entry, found);
  return found;
}

async function walk(entry: FileSystemEntry, into: Dropped[]): Promise<void> {
  if (into.length >= MOST) return;
  if (entry.isFile) {
    const file = await new Promise<File>((resolve, reject) => (entry as FileSystemFileEntry).file(resolve, reject));
    into.push({ file, path: entry.fullPath.replace(/^\//, '') });
    return;
  }
  const reader = (entry as FileSystemDirectoryEntry).createReader();
  for (;;) {
    const some = await new Promise<FileSystemEntry[]>((resolve, reject) => reader.readEntries(resolve, reject));
    if (some.length === 0) return;
    for (const one of some) await walk(one, into);
  }
}
