import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { IdentifierKind, Page, StrandSummary, Summary } from '@fadenweg/api';
import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { call, filesBelow } from './client.ts';
import { declare } from './demo-data.ts';
import { startSystem, type System } from './testing/system.ts';

/** Orders that each borrow one of a few desks' sessions, which are used again ten minutes later; the session is closed half a minute after the order. */
let system: System;
const ORDERS = 40;
const KEEP = { case: 'keep', separators: 'keep', leadingZeros: 'keep', phone: false };
const kind = (name: string, role: string, pattern: string, leaseMs: number | null) => ({ name, label: name, role, patterns: [pattern], fields: [], normal: KEEP, scope: 'global', leaseMs }); // prettier-ignore

function world(): string {
  const lines: [number, string][] = [];
  for (let i = 0; i < ORDERS; i++) {
    const begin = Date.UTC(2026, 10, 24, 8) + i * 200_000;
    const session = `se-${i % 3}`;
    lines.push([begin, `order ORD-${10_000 + i} taken in ${session}`], [begin + 1000, `${session} priced`], [begin + 31_000, `${session} closed`]);
  }
  return lines.map(([at, text]) => `${new Date(at).toISOString()} INFO desk ${text}\n`).join('');
}
const settled = async (): Promise<void> => {
  while (!(await system.get<Summary>('/summary')).still) await new Promise((resolve) => setTimeout(resolve, 50));
};
const records = async (): Promise<number[]> => (await system.get<Page<StrandSummary>>('/strands?limit=200')).items.map((one) => one.records);
const lend = (leaseMs: number) =>
  call<IdentifierKind & { sourcesReadAgain: number }>(`${system.url}/api/identifier-kinds/session`, {
    method: 'PUT',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(kind('session', 'link', '\\bse-\\d\\b', leaseMs)),
  });

beforeAll(async () => {
  system = await startSystem();
  await declare(system.url, {
    kinds: [kind('order', 'business', 'ORD-\\d{5}', null), kind('session', 'link', '\\bse-\\d\\b', 10_000)] as never,
    flows: [],
    meanings: [],
  });
  await mkdir(join(system.folder, 'desk'));
  await writeFile(join(system.folder, 'desk', 'desk.log'), world());
  await system.bring(await filesBelow([join(system.folder, 'desk')]));
}, 60_000);
afterAll(() => system.stop());

test('a value is lent for longer or shorter without reading anything again', async () => {
  const all = (count: number): number[] => Array.from({ length: ORDERS }, () => count);
  expect(await records()).toEqual(all(2));
  expect(await lend(60_000)).toMatchObject({ sourcesReadAgain: 0, leaseMs: 60_000 });
  await settled();
  expect(await records()).toEqual(all(3));
  expect(await lend(10_000)).toMatchObject({ sourcesReadAgain: 0 });
  await settled();
  expect(await records()).toEqual(all(2));
  // what is the same changes nothing
  expect(await lend(10_000)).toMatchObject({ sourcesReadAgain: 0 });
  expect((await system.get<Summary>('/summary')).still).toBe(true);
}, 60_000);
