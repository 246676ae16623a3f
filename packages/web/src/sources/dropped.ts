export interface Dropped {
  file: File;
  path: string;
}
const MOST = 20_000;

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
