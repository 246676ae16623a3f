import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import type { Coverage, ImportInfo, KeptWhole, KindSuggestions, LogRecord, Page, SourceInfo, StrandSummary, Summary } from '@fadenweg/api';
import { call, filesBelow } from './client.ts';
import { all, startSystem, type System } from './testing/system.ts';

let system: System;
beforeAll(async () => {
  system = await startSystem();
}, 120_000);
afterAll(() => system.stop());

let number = 0;
/** Brings files in by path and content. */
async function bring(files: Record<string, string | Uint8Array>, query: Record<string, string> = {}): Promise<ImportInfo> {
  const root = join(system.folder, `in-${++number}`);
  for (const [path, content] of Object.entries(files)) {
    await mkdir(join(root, path, '..'), { recursive: true });
    await writeFile(join(root, path), content);
  }
  return system.bring(await filesBelow([root]), query);
}
const sources = async (): Promise<SourceInfo[]> => (await system.get<Page<SourceInfo>>('/sources')).items;
const recordsOf = async (component: string): Promise<LogRecord[]> =>
  (await all<LogRecord>(system, '/records?from=2026-01-01T00:00:00Z&to=2027-01-01T00:00:00Z')).filter((one) => one.component === component);

const clock = (minute: number): string => new Date(Date.UTC(2026, 10, 20, 8, minute)).toISOString().slice(0, 19).replace('T', ' ');
/** A world that nobody declared: bookings over three components. */
const booking = (i: number): string => `BK-${41_000 + i * 7}`;
const ITEMS = Array.from({ length: 60 }, (_, i) => i);

describe('gathering', () => {
  test('the parts of a rotated log are one source, packed or not', async () => {
    const line = (minute: number, text: string): string => `${clock(minute)},000 INFO [main] desk.Start - ${text}\n`;
    const ended = await bring({
      'desk/app.log': ITEMS.map((i) => line(i + 40, `booked ${booking(i)}`)).join(''),
      'desk/app.log.1': line(20, 'older'),
      'desk/app.log.2.gz': gzipSync(line(0, 'oldest') + line(1, 'oldest again')),
    });
    expect(ended).toMatchObject({ state: 'done', files: 3, records: 63, keptWhole: 0, errors: [] });
    const desk = (await sources()).find((one) => one.component === 'desk')!;
    expect(desk).toMatchObject({ path: expect.stringMatching(/desk\/app\.log$/), parts: 3, records: 63, format: 'text', state: 'done' });
    const parts = await system.get<Page<SourceInfo>>(`/sources/${desk.id}/parts`);
    expect(parts.items.map((part) => part.path.replace(/.*desk\//, ''))).toEqual(['app.log.2', 'app.log.1', 'app.log']);
  });

  test('the same content under another name or packed anew adds nothing', async () => {
    const text = `${clock(0)},000 INFO [main] desk.Start - older still\n`;
    expect(await bring({ 'other/app.log': text })).toMatchObject({ files: 1, alreadyThere: 0, records: 1 });
    expect(await bring({ 'other/copy.log.gz': gzipSync(text, { level: 1 }), 'third/x.log': text })).toMatchObject({
      files: 2,
      alreadyThere: 2,
      records: 0,
    });
  });

  test('records that name their component and host have them', async () => {
    const line = (i: number, app: string): string =>
      `<13>1 2026-11-20T08:${String(i).padStart(2, '0')}:00Z hut-${i % 2} ${app} - - - ${app} says ${i}\n`;
    await bring({ 'logs/messages': ITEMS.slice(0, 20).map((i) => line(i, i % 3 === 0 ? 'keys' : 'weather')).join('') }); // prettier-ignore
    const keys = await recordsOf('keys');
    expect(keys).toHaveLength(7);
    expect(new Set(keys.map((one) => one.host))).toEqual(new Set(['hut-0', 'hut-1']));
    const [source] = (await sources()).filter((one) => one.format === 'syslog');
    await call(`${system.url}/api/sources/${source!.id}`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ component: 'messages' }),
    });
    while ((await recordsOf('messages')).length < 20) await new Promise((resolve) => setTimeout(resolve, 100));
    expect(await recordsOf('keys')).toHaveLength(0);
    expect(new Set((await recordsOf('messages')).map((one) => one.host))).toEqual(new Set(['hut-0', 'hut-1']));
  });

  test('what was not understood is kept whole and can be read, grouped by look', async () => {
    const odd = 'no time here 17\nno time here 18\nnor in this\n';
    await bring({ 'odd/a.log': `${odd}` });
    const source = (await sources()).find((one) => one.component === 'odd')!;
    expect(source).toMatchObject({ format: 'plain', records: 3, understood: 0 });
    const whole = await system.get<KeptWhole>(`/sources/${source.id}/kept-whole`);
    expect(whole.groups.map(({ count, example, line }) => [count, example, line])).toEqual([
      [2, 'no time here 17', 1],
      [1, 'nor in this', 3],
    ]);
    expect(await system.get<LogRecord>(`/records/${whole.groups[0]!.recordId}`)).toMatchObject({ message: 'no time here 17', understood: false });
  });

  test('coverage tells when each source speaks, and where it is silent', async () => {
    const line = (minute: number): string => `${clock(minute)},000 INFO [main] gap.Start - tick ${minute}\n`;
    await bring({ 'gappy/a.log': ITEMS.map((i) => line(i < 30 ? i : i + 60)).join('') });
    const coverage = await system.get<Coverage>('/coverage');
    const own = coverage.items.find((one) => one.component === 'gappy')!;
    const at = (minute: number): number => Date.UTC(2026, 10, 20, 7, minute);
    expect(own.stretches).toEqual([[at(0), at(30)], [at(90), at(120)]]); // prettier-ignore
    const late = await system.get<Coverage>('/coverage?from=2026-11-20T08:00:00Z&to=2026-11-20T08:40:00Z');
    expect(late.items.find((one) => one.component === 'gappy')!.stretches).toEqual([[at(90), at(100)]]);
  });

  test('unknown identifiers are suggested, accepted with one call, and make strands', async () => {
    const iso = (i: number, s: number): string => new Date(Date.UTC(2026, 10, 20, 7, i + 40, s)).toISOString();
    await bring({
      'bus/bus.jsonl': ITEMS.map((i) => JSON.stringify({ time: iso(i, 1), level: 'info', msg: `took over ${booking(i)}`, queue: 'keys.out' })).join(
        '\n',
      ),
      'locks/locks.log': ITEMS.map((i) => `ts=${iso(i, 2)} level=info msg="key cut" booking=${booking(i)}`).join('\n'),
    });
    const { items, best } = await system.get<KindSuggestions>('/identifier-kinds/suggestions');
    expect(best).toMatchObject({ kinds: [{ label: 'booking', role: 'business' }], examples: [expect.stringMatching(/^BK-/)], transactions: 60 });
    expect(items[0]).toMatchObject({
      label: 'booking',
      role: 'business',
      patterns: ['BK-\\d{5,7}'],
      values: 60,
      components: ['bus', 'desk', 'locks'],
    });
    const { label, name, role, patterns, fields } = items[0]!;
    await call(`${system.url}/api/identifier-kinds`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ label, name, role, patterns, fields }),
    });
    const found = async (): Promise<StrandSummary[]> => (await system.get<Page<StrandSummary>>(`/strands?identifier=${booking(7)}`)).items;
    while ((await found()).length === 0) await new Promise((resolve) => setTimeout(resolve, 200));
    expect(await found()).toMatchObject([{ businessId: booking(7), records: 3, environment: 'production' }]);
    const after = await system.get<KindSuggestions>('/identifier-kinds/suggestions');
    expect(after.items.map((one) => one.label)).not.toContain('booking');
    // somebody has said what people ask by
    expect(after.best).toBeNull();
  }, 60_000);

  test('a zone and a year that a source does not state are those in which it falls together with the others', async () => {
    const minute = (i: number): Date => new Date(Date.UTC(2025, 10, 20, 7, i, 3));
    const summer = (i: number): string => new Date(minute(i).getTime() - 5 * 3_600_000).toISOString().slice(0, 19).replace('T', ' ');
    const old = (i: number): string => minute(i).toISOString();
    const code = (i: number): string => `BK-${31_000 + i * 7}`;
    await bring({
      'weather/w.jsonl': ITEMS.map((i) => JSON.stringify({ time: old(i), level: 'info', msg: `forecast asked for ${code(i)}` })).join('\n'),
      'far/far.log': ITEMS.map((i) => `${summer(i)},000 INFO [main] far.Start - took ${code(i)}`).join('\n'),
      'hut/messages': ITEMS.map((i) => `Nov 20 08:${String(i).padStart(2, '0')}:00 hut-7 stove[1]: lit, quarter ${i}`).join('\n'),
    });
    const by = async (path: string): Promise<SourceInfo> => (await sources()).find((one) => one.path.endsWith(path))!;
    expect(await by('far/far.log')).toMatchObject({ zone: 'Etc/GMT+5', zoneBy: 'guessed', from: '2025-11-20T07:00:03.000000Z' });
    expect(await by('weather/w.jsonl')).toMatchObject({ zoneBy: 'stated' });
    expect((await by('hut/messages')).from).toBe('2025-11-20T07:00:00.000000Z');
  });

  test('an environment is seen by itself', async () => {
    await bring({ 'desk/try.log': `${clock(5)},000 INFO [main] desk.Start - booked BK-99991\n` }, { environment: 'trial', demo: 'true' });
    const summary = await system.get<Summary>('/summary');
    expect(summary.environments.map(({ name, demo }) => [name, demo])).toEqual([['production', false], ['trial', true]]); // prettier-ignore
    const trial = await system.get<Page<StrandSummary>>('/strands?environment=trial');
    expect(trial.items.map((one) => one.businessId)).toEqual(['BK-99991']);
    const own = await system.get<Page<StrandSummary>>('/strands?environment=production&limit=500');
    expect(own.items).toHaveLength(120);
    expect(new Set(own.items.map((one) => one.environment))).toEqual(new Set(['production']));
    expect(await (await fetch(`${system.url}/api/demo`, { method: 'POST' })).json()).toMatchObject({ status: 409 });
    await call(`${system.url}/api/demo`, { method: 'DELETE' });
    expect((await system.get<Summary>('/summary')).environments.map(({ name }) => name)).toEqual(['production']);
  });

  test('an archive that holds what must not be unpacked says so, and the rest comes', async () => {
    const ended = await bring({ 'bad.gz': Buffer.concat([gzipSync(`${clock(1)},000 INFO [m] bad.Start - one\n`).subarray(0, 30)]) });
    expect(ended.errors[0]).toMatchObject({ path: expect.stringMatching(/bad/) });
  });

  test('a zone shows too when identifiers are declared after the import', async () => {
    const at = (i: number): Date => new Date(Date.UTC(2026, 10, 21, 7, i, 3));
    const there = (i: number): string => new Date(at(i).getTime() - 9 * 3_600_000).toISOString().slice(0, 19).replace('T', ' ');
    await bring({
      'tower/t.jsonl': ITEMS.map((i) => JSON.stringify({ time: at(i).toISOString(), level: 'info', msg: `asked for TW-${4100 + i}` })).join('\n'),
      'crane/crane.log': ITEMS.map((i) => `${there(i)},000 INFO [main] crane.Start - lifts TW-${4100 + i}`).join('\n'),
    });
    const crane = async (): Promise<SourceInfo> => (await sources()).find((one) => one.path.endsWith('crane/crane.log'))!;
    expect((await crane()).zoneBy).toBe('given');
    await call(`${system.url}/api/identifier-kinds`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ name: 'tower', label: 'tower', role: 'business', patterns: ['TW-\\d{4}'], fields: [] }),
    });
    while ((await crane()).zoneBy !== 'guessed') await new Promise((resolve) => setTimeout(resolve, 100));
    const found = async (): Promise<StrandSummary | undefined> =>
      (await system.get<Page<StrandSummary>>('/strands?identifier=TW-4107')).items.find((one) => one.records === 2 && one.durationMs < 60_000);
    while (!(await found())) await new Promise((resolve) => setTimeout(resolve, 100));
    expect(await found()).toMatchObject({ startedAt: '2026-11-21T07:07:03.000000Z' });
    expect(await crane()).toMatchObject({ zone: 'Etc/GMT+9', from: '2026-11-21T07:00:03.000000Z' });
  }, 60_000);
});
