import { createHash } from 'node:crypto';
import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { isRoot, run } from './commands.ts';

/** The project's root folder. */
export const ROOT = resolve(dirname(fileURLToPath(import.meta.url)), '../../..');

/** Where data goes if nothing is said: in the project, or, where the database's user could not reach it, below /var/lib. */
export async function usualDataFolder(): Promise<string> {
  const own = join(ROOT, 'data');
  if (!isRoot()) return own;
  const reach = await run('runuser', ['-u', 'postgres', '--', 'test', '-x', ROOT]);
  if (reach.code === 0 || reach.code === 127) return own;
  return join('/var/lib/fadenweg', createHash('sha256').update(ROOT).digest('hex').slice(0, 12));
}
