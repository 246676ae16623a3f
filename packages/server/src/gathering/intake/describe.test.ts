import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe as describeFile, prefixHash } from './describe.ts';

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
