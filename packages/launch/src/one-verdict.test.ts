import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { ExportedStrand, StrandSummary } from '@fadenweg/api';
import { serverLog, startServer } from '@fadenweg/server';
import { FULL_DAY, generate, generateHuts, HUT_FLOWS, HUT_KINDS, HUT_MEANINGS } from '@fadenweg/standin';
import { call, filesBelow, sendFiles, waitForImport } from './client.ts';
import { declare, declareDemo, type Declared } from './demo-data.ts';
import { all, startSystem, type System } from './testing/system.ts';

/** The list shows what the weaver judged, the page works it out anew: of every strand of five worlds they say the same. */
let system: System;
beforeAll(async () => {
  system = await startSystem();
});
afterAll(() => system?.stop());

const HOUR = 3_600_000_000;
interface World {
  name: string;
  zone: string;
  make(folder: string): Promise<unknown>;
  declaring(url: string): Promise<void>;
}
const works = (seed: number): World => ({
  name: `works${seed}`,
  zone: 'Europe/Berlin',
  make: (out) => generate({ out, seed, faultRate: 0.2, storyDay: FULL_DAY, stretches: [{ from: FULL_DAY + 9 * HOUR, hours: 2, records: 5000 }] }),
  declaring: declareDemo,
});
const huts = (seed: number): World => ({
  name: `huts${seed}`,
  zone: 'Europe/Berlin',
  make: (out) => generateHuts(out, seed, FULL_DAY, 8, 500, 0.2),
  declaring: (url) => declare(url, { kinds: HUT_KINDS, flows: HUT_FLOWS, meanings: HUT_MEANINGS }),
});
/** Messages of hundreds of letters, with the declared step behind them; one strand of thousands of records; some that are doubled. */
const wordy: World = {
  name: 'wordy',
  zone: 'UTC',
  async make(folder) {
    const at = (ms: number): string => new Date(Date.UTC(2026, 10, 20, 8) + ms).toISOString();
    const lines: [number, string][] = [];
    for (let i = 0; i < 120; i++) {
      const order = `LX-${400_000 + i}`;
      const base = i * 20_000;
      lines.push([base, `INFO desk order ${order} taken for file-${Math.floor(i / (i > 100 ? 2 : 1))}x`]);
      lines.push([
        base + 40,
        `INFO desk ${'very long preamble of words '.repeat(i % 40)}${i % 9 === 0 ? 'kept back' : 'handed to the cutter'} ${order}`,
      ]);
      if (i % 7 !== 0) lines.push([base + 90, `INFO desk ${order} shipped`]);
    }
    for (let i = 0; i < 6000; i++) lines.push([3_000_000 + i * 10, `INFO desk LX-499999 step ${i % 50}`]);
    await mkdir(join(folder, 'logs/desk'), { recursive: true });
    await writeFile(join(folder, 'logs/desk/desk.log'), lines.sort(([a], [b]) => a - b).map(([ms, text]) => `${at(ms)} ${text}`).join('\n')); // prettier-ignore
  },
  declaring: (url) =>
    declare(url, {
      kinds: [
        { name: 'order', label: 'order', role: 'business', patterns: ['LX-\\d{6}'], fields: [] },
        { name: 'order-file', label: 'order file', role: 'shared', patterns: ['file-\\d+x'], fields: [], once: true },
      ],
      flows: [{ name: 'order', label: 'order', kind: 'order', prefix: 'LX-', patienceMs: 60_000, expects: [], must: [{ component: null, words: 'handed to the cutter', withinMs: null }] }],
      meanings: [{ component: null, contains: 'shipped', means: 'done' }],
    } as unknown as Declared), // prettier-ignore
};

test.each([works(21), works(22), huts(23), huts(24), wordy])('in $name', async ({ name, zone, make, declaring }) => {
  const folder = join(system.folder, name);
  await make(folder);
  const databaseUrl = await system.postgres.createDatabase(name);
  const server = await startServer({ databaseUrl, port: 0, spool: join(system.folder, 'spool'), web: null, log: serverLog('silent') });
  try {
    await declaring(server.url);
    const started = await sendFiles(server.url, await filesBelow([join(folder, 'logs')]), { environment: 'production', zone });
    expect(await waitForImport(server.url, started.id, { progress() {} })).toMatchObject({ state: 'done', errors: [] });
    const own: System = { ...system, get: <T>(path: string) => call<T>(`${server.url}/api${path}`) };
    const listed = await all<StrandSummary>(own, '/strands?sort=started');
    const pages = new Map<string, ExportedStrand>();
    for (const line of (await (await fetch(`${server.url}/api/strands/export`)).text()).trim().split('\n')) {
      const strand = JSON.parse(line) as ExportedStrand;
      pages.set(strand.id, strand);
    }
    const said = (one: { id: string; outcome: string; headline: string }): string => `${one.id} ${one.outcome} ${one.headline}`;
    // the page also tells when, and who held a lock
    const short = (text: string): string => text.replace(/,? \d\d:\d\d:\d\d\.\d+ UTC/g, '').replace(/ The lock was held by [^.]*\.$/, '');
    expect(listed.map(said)).toEqual(
      listed.map(({ id }) => {
        const { outcome, findings } = pages.get(id)!;
        return said({ id, outcome, headline: short(findings[0]?.sentence ?? '') });
      }),
    );
    expect(listed.length).toBeGreaterThan(40);
    expect(new Set(listed.map((one) => one.outcome)).size).toBeGreaterThan(2);
    // one asked for by itself is told as in the export
    for (const { id } of listed.filter((_, i) => i % 17 === 0)) expect(await own.get(`/strands/${encodeURIComponent(id)}`)).toEqual(pages.get(id));
  } finally {
    await server.close();
  }
});
