import { mkdir, readFile, writeFile } from 'node:fs/promises';
import { homedir } from 'node:os';
import { dirname, join } from 'node:path';

const FILE = join(process.env.XDG_STATE_HOME ?? join(homedir(), '.local', 'state'), 'fadenweg', 'last-started');

/** Where the server that was started last is found, for commands that are given no address. */
export async function rememberStarted(url: string): Promise<void> {
  await mkdir(dirname(FILE), { recursive: true });
  await writeFile(FILE, `${url}\n`);
}
export async function lastStarted(): Promise<string | null> {
  try {
    return (await readFile(FILE, 'utf8')).trim() || null;
  } catch {
    return null; // never started on this machine
  }
}
