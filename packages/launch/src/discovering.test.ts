import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { createReadStream } from 'node:fs';
import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { createInterface } from 'node:readline';
import { Readable } from 'node:stream';
import type { IdentifierKind, ImportInfo, LogRecord, Page, Summary, WorkInfo } from '@fadenweg/api';
import { f1, generateHuts, HUT_FLOWS, HUT_KINDS, HUT_MEANINGS, Scoring, type Told, type Truth } from '@fadenweg/standin';
import { call, filesBelow } from './client.ts';
import { declare } from './demo-data.ts';
import { all, startSystem, type System } from './testing/system.ts';

/** A world of which only the bookings are declared: what ties the rest shows in the data. */
let system: System;
let root: string;
let imported: ImportInfo;
const DAY = Date.UTC(2026, 10, 24) * 1000;

beforeAll(async () => {
  system = await startSystem();
  root = join(system.folder, 'huts');
  await mkdir(root);
  await generateHuts(root, 77, DAY, 6, 400, 0.1);
  await declare(system.url, { kinds: HUT_KINDS, flows: HUT_FLOWS, meanings: HUT_MEANINGS });
  imported = await system.bring(await filesBelow([join(root, 'logs')]));
}, 120_000);
afterAll(() => system.stop());

const lines = async (stream: NodeJS.ReadableStream): Promise<unknown[]> => {
  const all: unknown[] = [];
  for await (const line of createInterface({ input: stream })) if (line !== '') all.push(JSON.parse(line));
  return all;
};
const kinds = async (): Promise<IdentifierKind[]> => (await system.get<Page<IdentifierKind>>('/identifier-kinds')).items;
async function scored(): Promise<Scoring> {
  const scoring = new Scoring((await lines(createReadStream(join(root, 'truth/truth.jsonl')))) as Truth[]);
  const response = await fetch(`${system.url}/api/strands/export?records=true`);
  for (const told of await lines(Readable.fromWeb(response.body as never))) scoring.add(told as Told);
  scoring.end();
  return scoring;
}

describe('links that nobody declared', () => {
  test('are found with their evidence: request numbers, entries of the ledger and payment references, and nothing that is used again', async () => {
    expect(imported).toMatchObject({ state: 'done', errors: [] });
    const found = (await kinds()).filter((kind) => kind.discovered);
    expect(found.map((kind) => [kind.role, kind.patterns, kind.fields])).toEqual([
      ['link', ['rq-\\w{8}'], []],
      ['link', ['L-\\w{7}'], []],
      ['link', [], ['ref']],
    ]);
    for (const { discovered } of found) {
      expect(discovered!.single).toBeGreaterThan(0.97);
      expect(discovered!.free).toBeGreaterThan(20);
    }
  });

  test('bring in what belongs to the strands, and nothing else', async () => {
    const scoring = await scored();
    const bookings = scoring.byFlow.get('booking')!;
    expect(bookings.records.wrong).toBe(0);
    expect(f1(bookings.records)).toBeGreaterThan(0.995);
    expect(bookings.carried.right).toBeGreaterThan(400);
    expect(bookings.carried.wrong).toBe(0);
    // queries hours later, payments that were asked for twice, the ledger beside the locks
    expect(bookings.course.right).toBeGreaterThan(1000);
    expect(bookings.course.wrong).toBeLessThan(bookings.course.right / 100);
  });

  test('that somebody confirms are declared from then on; those taken away stay away', async () => {
    const found = (await kinds()).filter((kind) => kind.discovered);
    const [request, reference] = [found.find((kind) => kind.patterns[0]?.startsWith('rq-')), found.find((kind) => kind.fields[0] === 'ref')];
    const json = { 'content-type': 'application/json' };
    const confirmed = await call<{ sourcesReadAgain: number }>(`${system.url}/api/identifier-kinds/${request!.name}`, {
      method: 'PUT',
      headers: json,
      body: JSON.stringify({ ...request, label: 'request' }),
    });
    expect(confirmed.sourcesReadAgain).toBe(0);
    await call(`${system.url}/api/identifier-kinds/${reference!.name}`, { method: 'DELETE' });
    const more = join(system.folder, 'more');
    await mkdir(more);
    await generateHuts(more, 78, DAY + 86_400_000_000, 6, 400, 0.1);
    await system.bring(await filesBelow([join(more, 'logs')]));
    const now = await kinds();
    expect(now.find((kind) => kind.name === request!.name)).toMatchObject({ label: 'request' });
    expect(now.filter((kind) => kind.discovered).map((kind) => kind.patterns)).toEqual([['L-\\w{7}']]);
  }, 120_000);
});

describe('what is found in one environment', () => {
  const textOf = (count: number, order: boolean): string =>
    Array.from({ length: count }, (_, i) => {
      const at = new Date(Date.UTC(2026, 10, 24, 8) + i * 700).toISOString();
      const [call, step] = [Math.floor(i / 3), i % 3];
      return `${at} INFO ${['taken', 'priced', 'stored'][step]} zq-${(call * 7919 + 4_000_000).toString(36)}x${order && step === 0 ? ` for LX-${300_000 + call}` : ''}`;
    }).join('\n') + '\n';
  test('holds there alone, and has nothing read again elsewhere, until somebody confirms it', async () => {
    const own = await startSystem();
    try {
      const bring = async (environment: string, name: string, text: string): Promise<void> => {
        const file = join(own.folder, `${environment}-${name}`);
        await writeFile(file, text);
        const done = await own.bring([{ file, path: `${name}/${name}.log`, size: Buffer.byteLength(text), modified: 0 }], {
          environment,
          zone: 'UTC',
        });
        expect(done).toMatchObject({ state: 'done', errors: [] });
      };
      const rereadings = async (): Promise<number> =>
        (await own.get<Page<WorkInfo>>('/work?state=done&limit=200')).items.filter((one) => one.kind === 'read-again').length;
      const kindsOf = (): Promise<Page<IdentifierKind>> => own.get<Page<IdentifierKind>>('/identifier-kinds');
      const kind = { name: 'order', label: 'order', role: 'business', patterns: ['LX-\\d{6}'], fields: [] };
      await call(`${own.url}/api/identifier-kinds`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(kind) });
      await bring('large', 'desk', textOf(6000, false));
      const before = await rereadings();
      await bring('small', 'shop', textOf(1500, true));
      const found = (await kindsOf()).items.filter((one) => one.discovered);
      expect(found.map((one) => one.environments)).toEqual([['small']]);
      const named = async (environment: string): Promise<number> =>
        (await all<LogRecord>(own, `/records?environment=${environment}`)).filter((one) => one.identifiers.some(({ kind: name }) => name === found[0]!.name)).length; // prettier-ignore
      expect([await named('small'), await named('large')]).toEqual([1500, 0]);
      expect((await rereadings()) - before).toBe(1); // that of the small one
      const { discovered: _discovered, environments: _environments, ...confirmed } = found[0]!;
      await call(`${own.url}/api/identifier-kinds/${confirmed.name}`, { method: 'PUT', headers: { 'content-type': 'application/json' }, body: JSON.stringify(confirmed) }); // prettier-ignore
      while (!(await own.get<Summary>('/summary')).still) await new Promise((resolve) => setTimeout(resolve, 100));
      expect([await named('small'), await named('large')]).toEqual([1500, 6000]);
    } finally {
      await own.stop();
    }
  });
});
