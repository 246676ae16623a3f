import { expect, test } from '@jest/globals';
import { mkdtemp, readdir, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { clearSpool } from './spool-folder.ts';

test('what nobody needs is taken away, what a source is read from stays', async () => {
  const above = await mkdtemp(join(tmpdir(), 'fadenweg-spool-'));
  const folder = join(above, 'own');
  expect(await clearSpool(folder, [])).toBe(0);
  for (const name of ['1-a', '2-b', 'follow-3']) await writeFile(join(folder, name), name);
  expect(await clearSpool(folder, [join(folder, '2-b'), join(above, 'elsewhere')])).toBe(2);
  expect(await readdir(folder)).toEqual(['2-b']);
  await rm(above, { recursive: true });
});
