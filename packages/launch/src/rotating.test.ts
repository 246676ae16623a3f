import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { appendFile, copyFile, mkdir, readdir, rename, truncate } from 'node:fs/promises';
import { join } from 'node:path';
import type { FollowInfo, FoundPage, LogRecord, Summary } from '@fadenweg/api';
import { call } from './client.ts';
import { ChildServer } from './testing/child-server.ts';
import { dice } from './testing/dice.ts';
import { all, startSystem, type System } from './testing/system.ts';

/** A file that is followed and rotated by copying and emptying, while the server is there, down, or killed: every line once. */
let system: System;
let child: ChildServer | null = null;
beforeAll(async () => {
  system = await startSystem();
});
afterAll(async () => {
  await child?.kill();
  await system?.stop();
});

const ROUNDS = 6;
const line = (i: number): string => `2026-11-24 10:${String(Math.floor(i / 6000) % 60).padStart(2, '0')}:${String(Math.floor(i / 100) % 60).padStart(2, '0')},${String((i % 100) * 10).padStart(3, '0')} INFO [t] o.X - line ${i}\n`; // prettier-ignore

test.each([2, 3])(
  'rotated by copying at any moment, seed %i',
  async (seed) => {
    const random = dice(seed);
    const folder = join(system.folder, `logs-${seed}`);
    await mkdir(folder);
    const file = join(folder, 'app.log');
    const own = (child = new ChildServer(await system.postgres.createDatabase(`rotating${seed}`), join(system.folder, `spool-${seed}`)));
    await own.start();
    let next = 0;
    const write = async (count: number): Promise<void> => {
      await appendFile(file, Array.from({ length: count }, () => line(next++)).join(''));
    };
    await write(300);
    await call<FollowInfo>(`${own.url}/api/follows`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ path: folder, environment: 'production', zone: 'UTC' }),
    });
    const records = async (): Promise<number> => (await call<Summary>(`${own.url}/api/summary`)).records;
    for (let round = 0; round < ROUNDS; round++) {
      await write(200 + Math.floor(random() * 1500));
      await new Promise((resolve) => setTimeout(resolve, random() * 1200));
      const down = random() < 0.75;
      if (down) await own.kill(random() < 0.7 ? 'SIGKILL' : 'SIGTERM');
      await write(Math.floor(random() * 400));
      const older = (await readdir(folder)).filter((name) => /\.\d+$/.test(name)).sort();
      for (const name of older.reverse())
        await rename(
          join(folder, name),
          join(
            folder,
            name.replace(/\d+$/, (n) => String(Number(n) + 1)),
          ),
        );
      await copyFile(file, `${file}.1`);
      await truncate(file);
      await write(1 + Math.floor(random() * 300));
      if (down) await own.start();
      // where it is there it has seen the emptied file before that is emptied again
      const until = Date.now() + 20_000;
      while ((await records()) < next && Date.now() < until) await new Promise((resolve) => setTimeout(resolve, 150));
    }
    const until = Date.now() + 40_000;
    while ((await records()) !== next && Date.now() < until) await new Promise((resolve) => setTimeout(resolve, 200));
    const there: System = { ...system, get: <T>(path: string) => call<T>(`${own.url}/api${path}`) };
    const numbers = (await all<LogRecord>(there, '/records?order=oldest&quiet=show')).map((one) => Number(/line (\d+)/.exec(one.message)![1]));
    const seen = new Set(numbers);
    expect({ missing: Array.from({ length: next }, (_, i) => i).filter((i) => !seen.has(i)).slice(0, 5), doubled: numbers.length - seen.size }).toEqual({ missing: [], doubled: 0 }); // prettier-ignore
    expect((await there.get<FoundPage>('/records?limit=1&quiet=show')).items).toHaveLength(1);
    await own.kill('SIGTERM');
    // a last start leaves no file behind that nobody needs
    await own.start();
    await new Promise((resolve) => setTimeout(resolve, 500));
    const [spool] = await readdir(join(system.folder, `spool-${seed}`));
    expect((await readdir(join(system.folder, `spool-${seed}`, spool!))).length).toBeLessThanOrEqual(1);
    await own.kill('SIGTERM');
  },
  240_000,
);
