import { existsSync, readdirSync } from 'node:fs';
import { mkdir, writeFile } from 'node:fs/promises';
import { isRoot, run, show, Stop } from './commands.ts';

/** Where Debian puts each version's server programs. */
const VERSIONS = '/usr/lib/postgresql';
const OLDEST = 13;

/** Folder with `initdb` and `pg_ctl` of the newest server that is installed, or null. */
export function serverPrograms(): string | null {
  if (!existsSync(VERSIONS)) return null;
  const versions = readdirSync(VERSIONS)
    .map(Number)
    .filter((version) => version >= OLDEST && existsSync(`${VERSIONS}/${version}/bin/initdb`))
    .sort((a, b) => b - a);
  return versions.length > 0 ? `${VERSIONS}/${versions[0]}/bin` : null;
}

/**
 * Installs Debian packages, as root or by sudo.
 *
 * @throws Stop with what to do where neither is possible
 */
export async function install(names: string[], why: string): Promise<void> {
  const how = isRoot() ? [] : (await run('sudo', ['-n', 'true'])).code === 0 ? ['sudo', '-n'] : null;
  const byHand = `apt-get install -y ${names.join(' ')}`;
  if (how === null) throw new Stop(`${why} is not installed, and this user may not install packages. As an administrator, run once:\n  ${byHand}`);
  if ((await run('which', ['apt-get'])).code !== 0)
    throw new Stop(`${why} is not installed, and this machine has no apt-get. Install it (${names.join(', ')}), then start again.`);
  console.log(`Installing ${names.join(', ')} …`);
  const [program, ...before] = [...how, 'env', 'DEBIAN_FRONTEND=noninteractive', 'apt-get'];
  if (names.includes('postgresql') && isRoot() && !existsSync('/etc/postgresql-common/createcluster.conf')) {
    // Debian would start a server of its own at once; ours runs in its own data folder
    await mkdir('/etc/postgresql-common', { recursive: true });
    await writeFile('/etc/postgresql-common/createcluster.conf', 'create_main_cluster = false\n');
  }
  await show(program!, [...before, 'update', '-qq']);
  const code = await show(program!, [
    ...before,
    'install',
    '-y',
    '-qq',
    '--no-install-recommends',
    '-o',
    'Dpkg::Options::=--force-confold',
    ...names,
  ]);
  if (code !== 0) throw new Stop(`${names.join(', ')} could not be installed. Is the package server reachable? By hand:\n  ${byHand}`);
}
