import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { IdentifierKind, Page, Strand, StrandSummary, Summary } from '@fadenweg/api';
import { call, filesBelow } from './client.ts';
import { declare } from './demo-data.ts';
import { startSystem, type System } from './testing/system.ts';
import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';

/** Orders with a trace of their own, and a tenant that somebody took for a link: it stands in half of all records. */
let system: System;
const ORDERS = 120;
const KEEP = { case: 'keep', separators: 'keep', leadingZeros: 'keep', phone: false };
const kind = (name: string, role: string, pattern: string) => ({ name, label: name, role, patterns: [pattern], fields: [], normal: KEEP, scope: 'global', leaseMs: null }); // prettier-ignore

function world(): string {
  const lines: string[] = [];
  for (let i = 0; i < ORDERS; i++) {
    const at = (ms: number): string => new Date(Date.UTC(2026, 10, 24, 8) + i * 60_000 + ms).toISOString();
    const tenant = `tn-${String(i % 8).padStart(3, '0')}`;
    lines.push(`${at(0)} INFO desk order ORD-${10_000 + i} taken, trace tr-${(0xabc000 + i).toString(16)} of ${tenant}`);
    lines.push(`${at(5)} INFO desk trace tr-${(0xabc000 + i).toString(16)} written for ${tenant}`);
    lines.push(`${at(9)} INFO desk housekeeping of ${tenant}`);
  }
  return lines.join('\n') + '\n';
}
const kinds = async (): Promise<IdentifierKind[]> => (await system.get<Page<IdentifierKind>>('/identifier-kinds')).items;
const tenant = async (): Promise<IdentifierKind> => (await kinds()).find((one) => one.name === 'tenant')!;

beforeAll(async () => {
  system = await startSystem();
  await declare(system.url, {
    kinds: [kind('order', 'business', 'ORD-\\d{5}'), kind('tracing', 'link', 'tr-[0-9a-f]{6}'), kind('tenant', 'link', 'tn-\\d{3}')],
    flows: [],
    meanings: [],
  });
  const folder = join(system.folder, 'desk');
  await mkdir(folder);
  await writeFile(join(folder, 'desk.log'), world());
  expect(await system.bring(await filesBelow([folder]))).toMatchObject({ state: 'done', records: ORDERS * 3, errors: [] });
}, 60_000);
afterAll(() => system.stop());

describe('a link that joins many transactions', () => {
  test('becomes shared, with what speaks for it; a real link stays one', async () => {
    expect(await tenant()).toMatchObject({
      role: 'shared',
      guarded: { values: 8, joining: 8, worst: expect.stringMatching(/^tn-00\d$/), worstCount: 15 },
    });
    expect((await kinds()).find((one) => one.name === 'tracing')).toMatchObject({ role: 'link' });
  });
  test('then ties nothing: each order has its two records, and the tenant as its party', async () => {
    const { items } = await system.get<Page<StrandSummary>>('/strands?limit=200');
    expect(items.map((one) => one.records)).toEqual(Array.from({ length: ORDERS }, () => 2));
    expect((await system.get<Strand>(`/strands/${items[0]!.id}`)).attributes.tenant).toMatch(/^tn-\d{3}$/);
  });
  test('ties again when somebody wants it so, and is left alone from then on', async () => {
    const body = JSON.stringify({ ...(await tenant()), role: 'link' });
    await call(`${system.url}/api/identifier-kinds/tenant`, { method: 'PUT', headers: { 'content-type': 'application/json' }, body });
    while (!(await system.get<Summary>('/summary')).still) await new Promise((resolve) => setTimeout(resolve, 50));
    const folder = join(system.folder, 'more');
    await mkdir(folder);
    await writeFile(join(folder, 'more.log'), '2026-11-24T18:00:00.000Z INFO desk order ORD-99999 taken of tn-001\n');
    await system.bring(await filesBelow([folder]));
    const now = await tenant();
    expect(now).toMatchObject({ role: 'link', trusted: true });
    expect(now.guarded ?? null).toBeNull();
  });
});
