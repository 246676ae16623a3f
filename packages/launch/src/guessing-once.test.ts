import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { ImportInfo, LogRecord, Page, SourceInfo, Summary, WorkInfo } from '@fadenweg/api';
import { sendFiles } from './client.ts';
import { dice } from './testing/dice.ts';
import { all, startSystem, type System } from './testing/system.ts';

/** Whatever is guessed about times: each import ends, and what it comes to does not depend on how often it is looked at. */
let system: System;
beforeAll(async () => {
  system = await startSystem();
});
afterAll(() => system?.stop());

interface Log {
  path: string;
  text: string;
  modified: number;
}
async function bring(logs: readonly Log[], environment: string): Promise<ImportInfo> {
  const files = [];
  for (const { path, text, modified } of logs) {
    const file = join(system.folder, `${environment}-${path.replaceAll('/', '_')}`);
    await writeFile(file, text);
    files.push({ file, path, size: Buffer.byteLength(text), modified });
  }
  const { id } = await sendFiles(system.url, files, { environment, zone: 'UTC' });
  for (const until = Date.now() + 45_000; ;) {
    const now = await system.get<ImportInfo>(`/imports/${id}`);
    if (now.state === 'done' || now.state === 'failed') return now;
    if (Date.now() > until) throw new Error(`the import does not end: ${JSON.stringify(now.waitsFor)}`);
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
}
const clock = (i: number): string =>
  [8 + Math.floor(i / 3600), Math.floor(i / 60) % 60, i % 60].map((part) => String(part).padStart(2, '0')).join(':');
const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];
const order = (i: number): string => `LX-${100_000 + i}`;
/** How often each source was read. */
const readings = async (): Promise<number> =>
  (await system.get<Page<WorkInfo>>('/work?state=done&limit=200')).items.filter((one) => one.kind === 'read-again').length;

describe('a year that no line tells', () => {
  const without = (days: readonly [string, number][]): string =>
    days.flatMap(([day, count]) => Array.from({ length: count }, (_, i) => `${day} ${clock(i)} host-1 desk[7]: order ${order(i)} taken`)).join('\n') + '\n'; // prettier-ignore
  const telling = (count: number, what: string): string =>
    Array.from({ length: count }, (_, i) => `2026-10-25T${clock(i)}.100Z INFO order ${order(i)} ${what}`).join('\n') + '\n';

  test('is taken from the neighbours once, also where the lines lead to another one each time', async () => {
    const before = await readings();
    const done = await bring(
      [
        { path: 'desk/messages', text: without([['Nov 25', 1], ['Oct 25', 120], ['Nov 25', 1]]), modified: Date.UTC(2026, 9, 26) }, // prettier-ignore
        { path: 'store/store.log', text: telling(120, 'stored'), modified: Date.UTC(2026, 9, 26) },
      ],
      'once',
    );
    expect(done).toMatchObject({ state: 'done', records: 242 });
    expect((await readings()) - before).toBeLessThanOrEqual(2);
  });

  test('is that of the neighbours where the date of the file leads elsewhere', async () => {
    await bring(
      [
        { path: 'desk/messages', text: without([['Oct 25', 120]]), modified: Date.UTC(2031, 5, 1) },
        { path: 'store/store.log', text: telling(120, 'shipped'), modified: Date.UTC(2031, 5, 1) },
      ],
      'copied',
    );
    const records = await all<LogRecord>(system, '/records?environment=copied');
    expect(new Set(records.map((one) => one.at.slice(0, 10)))).toEqual(new Set(['2026-10-25']));
  });

  test('is put right by what comes later, and not by another environment', async () => {
    await bring([{ path: 'desk/messages', text: without([['Oct 25', 110]]), modified: Date.UTC(2031, 5, 1) }], 'early'); // prettier-ignore
    await bring([{ path: 'store/store.log', text: telling(110, 'packed'), modified: 0 }], 'elsewhere');
    const days = async (): Promise<string[]> => [...new Set((await all<LogRecord>(system, '/records?environment=early')).map((one) => one.at.slice(0, 10)))]; // prettier-ignore
    expect(await days()).toEqual(['2030-10-25']);
    await bring([{ path: 'store/store.log', text: telling(110, 'billed'), modified: 0 }], 'early');
    expect(await days()).toEqual(['2026-10-25']);
  });
});

describe('logs without year, zone or day, in any order of lines', () => {
  test.each([1, 2, 3, 4, 5, 6])('end, and stay as they are, seed %i', async (seed) => {
    const random = dice(seed);
    const pick = <T>(from: readonly T[]): T => from[Math.floor(random() * from.length)]!;
    const lineOf: Record<string, (month: number, day: number, i: number) => string> = {
      yearless: (month, day, i) => `${MONTHS[month]} ${String(day).padStart(2)} ${clock(i)} h-${seed} desk[7]: order ${order(i)} taken`,
      clockOnly: (_month, _day, i) => `${clock(i)},120 INFO [w-1] desk.Orders - order ${order(i)} taken`,
      zoneless: (month, day, i) =>
        `2026-${String(month + 1).padStart(2, '0')}-${String(day).padStart(2, '0')} ${clock(i)} INFO order ${order(i)} taken`,
      ambiguous: (month, day, i) =>
        `${String(day).padStart(2, '0')}/${String(month + 1).padStart(2, '0')}/26 ${clock(i)} INFO order ${order(i)} taken`,
      whole: (month, day, i) => new Date(Date.UTC(2026, month, day, 8, 0, i)).toISOString() + ` INFO order ${order(i)} taken`,
    };
    const logs: Log[] = Array.from({ length: 6 }, (_, file) => {
      const line = lineOf[pick(Object.keys(lineOf))]!;
      const lines = Array.from({ length: 3 }, () => [Math.floor(random() * 12), 1 + Math.floor(random() * 28), 1 + Math.floor(random() * 60)] as const); // prettier-ignore
      const text = lines.flatMap(([month, day, count]) => Array.from({ length: count }, (_, i) => line(month, day, i + file))).join('\n');
      return { path: `c-${file}/c-${file}.log`, text: `${text}\n`, modified: Date.UTC(2026, Math.floor(random() * 12), 15) };
    });
    expect(await bring(logs, `seed-${seed}`)).toMatchObject({ state: 'done', errors: [] });
    const told = async (): Promise<unknown> =>
      (await system.get<Page<SourceInfo>>('/sources')).items
        .filter((one) => one.environment === `seed-${seed}`)
        .map((one) => [one.path, one.from, one.to, one.zone, one.records]);
    const before = await told();
    // another import, which tells nothing of these, leaves them as they are
    await bring([{ path: 'other/other.log', text: '2026-05-05T10:00:00Z INFO nothing to do with it\n', modified: 0 }], `other-${seed}`);
    expect(await told()).toEqual(before);
  });
});

describe('a record whose time is not understood', () => {
  const whole = (i: number): string => `2026-03-0${1 + i} 10:00:00 INFO order ${order(i)} taken`;
  test('stands between its neighbours, at the begin of its source too, and moves no last day', async () => {
    const text = ['a banner that tells no time', whole(0), 'not a time either', whole(1), 'nor this'].join('\n') + '\n';
    await bring([{ path: 'desk/desk.log', text, modified: Date.UTC(2026, 10, 30) }], 'banner');
    await bring(
      [
        { path: 'desk/late.log', text: `${whole(2)}\n`, modified: Date.UTC(2026, 10, 30) },
        { path: 'notes/read-me.txt', text: 'how to start it\nand how to stop it\n', modified: Date.UTC(2026, 10, 30) },
      ],
      'notes',
    );
    const told = (environment: string): Promise<LogRecord[]> => all<LogRecord>(system, `/records?order=oldest&environment=${environment}`);
    expect((await told('banner')).map((one) => [one.at.slice(0, 10), one.timeFrom, one.message.split('\n')[0]])).toEqual([
      ['2026-03-01', 'neighbour', 'a banner that tells no time'],
      ['2026-03-01', 'told', expect.stringContaining('taken')],
      ['2026-03-02', 'told', expect.stringContaining('taken')],
    ]);
    expect((await told('notes')).map((one) => [one.at.slice(0, 10), one.timeFrom])).toEqual([
      ['2026-03-03', 'told'],
      ['2026-11-30', 'file'],
      ['2026-11-30', 'file'],
    ]);
    const { environments } = await system.get<Summary>('/summary');
    expect(environments.filter((one) => ['banner', 'notes'].includes(one.name)).map((one) => one.to?.slice(0, 10))).toEqual(['2026-03-02', '2026-03-03']); // prettier-ignore
  });
});

describe('dates in numbers that may be read in two orders', () => {
  const slashed = (first: number, second: number, what = 'taken'): string => Array.from({ length: 30 }, (_, i) => `${two(first)}/${two(second)}/26 ${clock(i)} INFO order ${order(i)} ${what}`).join('\n') + '\n'; // prettier-ignore
  const two = (value: number): string => String(value).padStart(2, '0');
  const telling = (month: number, day: number): string => Array.from({ length: 30 }, (_, i) => `2026-${two(month)}-${two(day)}T${clock(i)}Z INFO order ${order(i)} sent on`).join('\n') + '\n'; // prettier-ignore
  const sourceOf = async (environment: string): Promise<SourceInfo> =>
    (await system.get<Page<SourceInfo>>('/sources')).items.find((one) => one.environment === environment && /desk/.test(one.path))!;

  test('are read as they fall together with what came with them, whichever order that is', async () => {
    for (const [environment, month, day, first, second] of [
      ['march', 3, 10, 10, 3],
      ['october', 10, 3, 10, 3],
    ] as const) {
      await bring(
        [
          { path: 'desk/desk.log', text: slashed(first, second, environment), modified: Date.UTC(2026, 10, 30) },
          { path: 'send/send.log', text: telling(month, day), modified: Date.UTC(2026, 10, 30) },
        ],
        environment,
      );
      expect((await sourceOf(environment)).from?.slice(0, 10)).toBe(`2026-${two(month)}-${two(day)}`);
    }
  });

  test('are told to be guessed where nothing says which is right, and set by a person who knows', async () => {
    await bring([{ path: 'desk/desk.log', text: slashed(8, 4), modified: Date.UTC(2026, 10, 30) }], 'alone');
    const guessed = await sourceOf('alone');
    expect(guessed).toMatchObject({ dateOrderBy: 'guessed' });
    const other = guessed.dateOrder === 'day-first' ? 'month-first' : 'day-first';
    const change = { method: 'PUT', headers: { 'content-type': 'application/json' }, body: JSON.stringify({ dateOrder: other }) };
    expect((await fetch(`${system.url}/api/sources/${guessed.id}`, change)).status).toBe(202);
    while ((await sourceOf('alone')).state !== 'done') await new Promise((resolve) => setTimeout(resolve, 100));
    expect(await sourceOf('alone')).toMatchObject({ dateOrder: other, dateOrderBy: 'set' });
    expect((await sourceOf('alone')).from?.slice(0, 10)).toBe(other === 'day-first' ? '2026-04-08' : '2026-08-04');
    // and what is told by the dates themselves is not guessed
    await bring([{ path: 'desk/desk.log', text: slashed(8, 24), modified: Date.UTC(2026, 10, 30) }], 'sure');
    expect(await sourceOf('sure')).toMatchObject({ dateOrderBy: null });
  });
});

describe('kinds that are declared one after the other', () => {
  test('each is taken up while sources are still read again for the one before', async () => {
    const line = (i: number, part: number): string =>
      `2026-10-25T${clock(i)}.100Z INFO [exec-${i % 7}] order ${order(i)} part ${part} is packed with care and sent on its way`;
    const logs = Array.from({ length: 12 }, (_, part) => ({
      path: `part-${part}/part.log`,
      text: Array.from({ length: 8000 }, (_, i) => line(i, part)).join('\n') + '\n',
      modified: 0,
    }));
    expect(await bring(logs, 'declared')).toMatchObject({ state: 'done', records: 96_000 });
    for (let i = 0; i < 5; i++) {
      const kind = { name: `kind-${i}`, label: `kind ${i}`, role: 'business', patterns: [`Q${i}-\\d{6}`], fields: [] };
      const answer = await fetch(`${system.url}/api/identifier-kinds`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(kind) }); // prettier-ignore
      expect(answer.status).toBe(201);
      // some sources are being read when the next one comes
      await new Promise((resolve) => setTimeout(resolve, 150 + 130 * i));
    }
  }, 90_000);
});
