import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { ImportInfo, Page, SourceInfo, StrandSummary, Summary } from '@fadenweg/api';
import { call, sendFiles } from './client.ts';
import { dice } from './testing/dice.ts';
import { startSystem, type System } from './testing/system.ts';

/** Sources by chance, brought in at once or one by one, in any order and in pieces: every import ends, and all comes to the same. */
let system: System;
beforeAll(async () => {
  system = await startSystem();
  await call(`${system.url}/api/identifier-kinds`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ name: 'parcel', label: 'Parcel', role: 'business', patterns: ['LX-\\d{7,8}'] }),
  });
}, 60_000);
afterAll(() => system?.stop());

interface Log {
  path: string;
  lines: string[];
}
const two = (value: number): string => String(value).padStart(2, '0');
const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];
const wall = (at: number): string => new Date(at).toLocaleString('sv', { timeZone: 'Europe/Berlin' });

/** Five programs that do the same parcels; how each writes is drawn. @param digit what its numbers begin with */
function drawn(seed: number, digit: number): Log[] {
  const random = dice(seed);
  const upTo = (most: number): number => Math.floor(random() * most);
  const start = Date.UTC(2026, 9, 24, 18) + upTo(20) * 3_600_000;
  const count = 70 + upTo(40);
  const times = Array.from({ length: count }, (_, i) => start + i * 300_000 + upTo(60_000));
  const parcel = (i: number): string => `LX-${digit}${100_000 + Math.floor(i / 2)}`;
  const text = (at: number, said: string): string => `${new Date(at).toISOString()} INFO ${said}`;
  const ways: Record<string, (at: number, said: string, i: number) => string> = {
    stated: text,
    berlin: (at, said) => `${wall(at)} INFO [exec-1] ${said}`,
    yearless: (at, said) => {
      const day = new Date(at);
      return `${MONTHS[day.getUTCMonth()]} ${String(day.getUTCDate()).padStart(2)} ${day.toISOString().slice(11, 19)} lw-${digit} desk[7]: ${said}`;
    },
    slashed: (at, said) => {
      const day = new Date(at);
      return `${two(day.getUTCDate())}/${two(day.getUTCMonth() + 1)}/26 ${day.toISOString().slice(11, 23)} | INFO | ${said}`;
    },
    objects: (at, said, i) => JSON.stringify({ time: new Date(at).toISOString(), level: 'info', msg: said, booth: `b${i % 5}` }),
  };
  const names = Object.keys(ways);
  const log = (path: string, way: string, words: string): Log => ({
    path,
    lines: times.map((at, i) => ways[way]!(at + words.length * 40, `${words} ${parcel(i)} for the ${['first', 'second'][i % 2]} time`, i)),
  });
  return [
    log('counter/counter.log', 'stated', 'counter took'),
    // the same events again
    { path: 'counter/counter.json', lines: times.map((at, i) => ways.objects!(at + 480, `counter took ${parcel(i)} for the ${['first', 'second'][i % 2]} time`, i)) },
    log('store/store.log', names[upTo(4)]!, 'kept'),
    log('crane/crane.log', names[upTo(5)]!, 'lifted'),
    log('gate/gate.log', names[upTo(4)]!, 'let out'),
  ]; // prettier-ignore
}

async function bring(environment: string, logs: readonly Log[]): Promise<void> {
  const files = [];
  for (const { path, lines } of logs) {
    const body = `${lines.join('\n')}\n`;
    const file = join(system.folder, `${environment}-${path.replaceAll('/', '_')}-${lines.length}`);
    await writeFile(file, body);
    files.push({ file, path, size: Buffer.byteLength(body), modified: Date.UTC(2026, 10, 1) });
  }
  const { id } = await sendFiles(system.url, files, { environment, zone: 'UTC' });
  for (const until = Date.now() + 45_000; ;) {
    const now = await system.get<ImportInfo>(`/imports/${id}`);
    if (now.state === 'done') return;
    if (now.state === 'failed' || Date.now() > until) throw new Error(`the import does not end well: ${JSON.stringify(now)}`);
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
}
/** What it comes to, without what tells the environments apart. */
async function told(environment: string, digit: number): Promise<unknown> {
  while (!(await system.get<Summary>('/summary')).still) await new Promise((resolve) => setTimeout(resolve, 50));
  const sources = (await system.get<Page<SourceInfo>>('/sources')).items.filter((one) => one.environment === environment);
  const strands = (await system.get<Page<StrandSummary>>(`/strands?environment=${environment}&limit=500`)).items;
  return {
    sources: sources.map((one) => [one.path, one.from, one.to, one.zone, one.records, one.copies, one.copyOf?.path ?? null]),
    strands: strands.map((one) => `${one.id.replace(`LX-${digit}`, 'LX-')} ${one.records} ${one.outcome} ${one.startedAt}`).sort(),
  };
}

describe('sources by chance', () => {
  test.each([1, 2, 5, 13, 16, 19, 24])(
    'come to the same in any order and in pieces, seed %i',
    async (seed) => {
      const random = dice(seed * 77);
      await bring(`whole-${seed}`, drawn(seed, 1 + 2 * (seed - 1)));
      const digit = 2 * seed;
      const logs = drawn(seed, digit);
      const order = logs.map((log) => ({ log, at: random() })).sort((a, b) => a.at - b.at);
      for (const { log } of order) {
        const part = Math.floor(log.lines.length * (0.3 + 0.5 * random()));
        if (random() < 0.5) await bring(`pieces-${seed}`, [{ ...log, lines: log.lines.slice(0, part) }]);
        await bring(`pieces-${seed}`, [log]);
      }
      expect(await told(`pieces-${seed}`, digit)).toEqual(await told(`whole-${seed}`, 1 + 2 * (seed - 1)));
    },
    120_000,
  );
});
