import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe as describeFile, prefixHash } from './describe.ts';
import { componentOf, dayOfPath, familyOf, folderOf } from '../../evidence/naming.ts';

let folder: string;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'fadenweg-describe-'));
});
afterAll(() => rm(folder, { recursive: true, force: true }));

async function about(path: string, content: string) {
  const file = join(folder, 'file');
  await writeFile(file, content);
  return describeFile(file, path, Date.UTC(2026, 10, 25, 8) * 1000);
}

describe('what a file is', () => {
  test.each([
    ['order-desk/order-desk.log', 'order-desk'],
    ['logs/order-desk.log', 'order-desk'],
    ['var/log/postgresql-2026-11-24.csv', 'postgresql'],
    ['relay.2026-11-24.log.3', 'relay'],
    ['a/b/edge/access.log', 'edge'],
    ['access.log', 'access'],
    ['.log', 'unnamed'],
    ['2026/app.jsonl', 'app'],
    ['logs.zip/order-desk/app.log.2', 'order-desk'],
    ['order-desk.tar.gz/app.log', 'order-desk'],
    ['relay_20261124-0930.log', 'relay'],
    ['switch/sip.log', 'switch'],
    ['logs/relay-error.log', 'relay'],
    ['relay-json.log', 'relay'],
    ['night shift.zip/relay.log', 'relay'],
    ['night shift.zip/labdb-2026-11-24.csv', 'labdb'],
    ['order-desk.access.log', 'order-desk'],
    ['incident-4711/access.log', 'access'],
    ['incident-4711/edge/access.log', 'edge'],
    ['lens-calc/calc.log', 'lens-calc'],
    ['lens-calc/a.log', 'lens-calc'],
    ['relay/error_ssl.log', 'relay'],
    ['production/order-desk/order-desk.log', 'order-desk'],
    ['containers/desk-7d9f8b6c5-x2x9z_lab_order-desk-0123456789abcdef0123456789abcdef0123456789abcdef0123456789abcdef.log', 'order-desk'],
    ['logs/order-desk-7d9f8b6c5-x2x9z.log', 'order-desk'],
    ['ticket-service/app.log', 'ticket-service'],
    ['ticket-4711/relay.log', 'relay'],
    ['night shift.tar.gz/relay.log', 'relay'],
    ['pods/lab_order-desk-7d9f8b6c5-x2x9z_0d1b2c3d/order-desk/0.log', 'order-desk'],
    ['x/0123456789abcdef0123456789abcdef0123456789abcdef0123456789abcdef/json.log', '0123456789ab'],
  ])('the component of %s is %s', (path, component) => expect(componentOf(path)).toBe(component));

  test('the parts of a rotated log are one family', () => {
    const parts = ['app.log', 'app.log.1', 'app.log.2.gz', 'app.2026-11-24.log', 'app-20261123.log.gz', 'app.1.log', 'app_2026-11-24_0930.log'];
    expect(new Set(parts.map((name) => familyOf(`order-desk/${name}`)))).toEqual(new Set(['order-desk/app.log']));
    expect(familyOf('a/access.log')).not.toBe(familyOf('a/error.log'));
    expect(familyOf('a/app.log')).not.toBe(familyOf('b/app.log'));
    expect(familyOf('2026-11-24')).toBe('2026-11-24');
  });

  test('the day that a path names', () => {
    const day = Date.UTC(2026, 10, 24) / 86_400_000;
    expect(['a/app-20261124.log', '2026-11-24/app.log', 'app.log.2026_11_24.gz'].map(dayOfPath)).toEqual([day, day, day]);
    expect(['app.log', 'app-1234567890.log', 'a/99999999.log'].map(dayOfPath)).toEqual([null, null, null]);
  });

  test('a clock alone: the day by the path, else so many midnights before the file’s date as it passes', async () => {
    const text = '22:00:00 INFO a: one\n23:59:00 INFO a: two\n00:01:00 INFO a: three\n23:00:00 INFO a: four\n01:00:00 INFO a: five\n';
    const last = Date.UTC(2026, 10, 25) / 86_400_000;
    expect((await about('x/cell.log', text)).hints.firstDay).toBe(last - 2);
    expect((await about('x/cell-2026-11-03.log', text)).hints.firstDay).toBe(Date.UTC(2026, 10, 3) / 86_400_000);
  });

  test('month-first is told by a day far behind in the file', async () => {
    const lines = Array.from({ length: 6000 }, (_, i) => `11/${String(1 + Math.floor(i / 300)).padStart(2, '0')}/2026 10:41:58 INFO a: line ${i}`);
    expect((await about('x/a.log', lines.join('\n'))).hints.dateOrder).toBe('month-first');
  });

  test('the component that all records name counts before the folder', async () => {
    const line = (name: string): string => `<13>1 2026-11-24T09:41:58Z app-2 ${name} 1 - - up`;
    expect(await about('logs/messages', [line('relay'), line('relay')].join('\n'))).toMatchObject({
      format: 'syslog',
      component: 'relay',
      host: 'app-2',
    });
    expect(await about('logs/messages', [line('relay'), line('batch')].join('\n'))).toMatchObject({ component: 'messages', host: 'app-2' });
  });

  test('the host that all records name', async () => {
    const line = (host: string): string => `{"ts":"2026-11-24T09:41:58Z","msg":"one thing","host":"${host}"}`;
    expect(await about('x/a.jsonl', [line('app-3'), line('app-3')].join('\n'))).toMatchObject({ format: 'json-lines', host: 'app-3', problem: null });
    expect(await about('x/a.jsonl', [line('app-3'), line('app-4')].join('\n'))).toMatchObject({ host: '' });
  });

  test('empty and binary files are told', async () => {
    expect((await about('x/a.log', '')).problem).toMatch(/empty/);
    expect((await about('x/a.bin', '\u0001\u0002\u0003\u0004\u0005\u0006\u0007'.repeat(50))).problem).toMatch(/binary/);
  });

  test('the fingerprint of a beginning does not depend on what follows', async () => {
    const file = join(folder, 'grows');
    await writeFile(file, 'first\n');
    const before = await prefixHash(file, 6);
    await writeFile(file, 'first\nsecond\n');
    expect(await prefixHash(file, 6)).toBe(before);
    expect(await prefixHash(file, 13)).not.toBe(before);
  });
});

describe('folders of machines', () => {
  test.each([
    ['lw-db-1/labdb-004852.csv', 'labdb'],
    ['lw-edge-1/access.log', 'lw-edge-1'],
    ['lw-app-1/order-desk.2026-11-24.log', 'order-desk'],
    ['lw-app-1/order-desk-error.log', 'order-desk'],
    ['lw-app-1/lw-app-1.log', 'lw-app-1'],
    ['lw-log-1/messages', 'lw-log-1'],
  ])('%s is of %s', (path, component) => {
    expect(componentOf(path, true)).toBe(component);
  });
  test('the innermost folder, and those above it', () => {
    expect(folderOf('a/b/c.log')).toEqual({ name: 'b', above: 'a' });
    expect(folderOf('c.log')).toBeNull();
  });
});
