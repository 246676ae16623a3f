import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { componentOf, describe as describeFile, prefixHash } from './describe.ts';

let folder: string;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'fadenweg-describe-'));
});
afterAll(() => rm(folder, { recursive: true, force: true }));

async function about(path: string, content: string) {
  const file = join(folder, 'file');
  await writeFile(file, content);
  return describeFile(file, path);
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
  ])('the component of %s is %s', (path, component) => expect(componentOf(path)).toBe(component));

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
