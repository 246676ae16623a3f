import { existsSync } from 'node:fs';
import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { ImportInfo } from '@fadenweg/api';
import { filesBelow, sendFiles, waitForImport } from '../packages/launch/src/client.ts';
import { HOME, system } from './world.ts';
import type { Result } from './measure.ts';

const FILES = 10_000;

/** Ten thousand files of two lines each, as a batch system leaves one for each run. */
export async function benchSmall(): Promise<Result[]> {
  const folder = join(HOME, 'small-logs');
  const last = join(folder, `run-${FILES - 1}.out`);
  if (!existsSync(last)) {
    await mkdir(folder, { recursive: true });
    for (let i = 0; i < FILES; i++) {
      const [hour, minute, second] = [i / 3600, (i / 60) % 60, i % 60].map((part) => String(Math.floor(part)).padStart(2, '0'));
      const at = `2026-11-24 ${hour}:${minute}:${second}`;
      await writeFile(
        join(folder, `run-${i}.out`),
        `${at}.100 INFO price-list run R-${i} begins\n${at}.900 INFO price-list run R-${i} ends, 12 articles\n`,
      );
    }
  }
  const own = await system('small', true);
  try {
    const begin = Date.now();
    const started = await sendFiles(own.server.url, await filesBelow([folder]), { environment: 'production', zone: 'UTC' });
    const ended: ImportInfo = await waitForImport(own.server.url, started.id, { progress() {} });
    const ms = Date.now() - begin;
    if (ended.records !== 2 * FILES || ended.understood !== 2 * FILES)
      throw new Error(`${ended.understood} of ${ended.records} records were understood`);
    return [{ what: `${FILES.toLocaleString('en')} files of two lines`, figure: `${(ms / 1000).toFixed(1)} s, ${(ms / FILES).toFixed(1)} ms each`, raw: 'all understood', ratio: '', budget: '' }]; // prettier-ignore
  } finally {
    await own.stop();
  }
}
