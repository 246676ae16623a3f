import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Page, SourceInfo, Summary } from '@fadenweg/api';
import { sendFiles, waitForImport } from './client.ts';
import { startSystem, type System } from './testing/system.ts';

/** One program has one name, and a host is listed once, whatever folder, file, field or tag tells it. */
let system: System;
beforeAll(async () => {
  system = await startSystem();
});
afterAll(() => system?.stop());

async function bring(environment: string, logs: readonly [path: string, lines: string[]][]): Promise<number> {
  const files = [];
  for (const [path, lines] of logs) {
    const file = join(system.folder, `${environment}-${path.replaceAll('/', '_')}`);
    const text = `${lines.join('\n')}\n`;
    await writeFile(file, text);
    files.push({ file, path, size: Buffer.byteLength(text), modified: Date.UTC(2026, 10, 26) });
  }
  const { id } = await sendFiles(system.url, files, { environment, zone: 'UTC' });
  await waitForImport(system.url, id, { progress() {} });
  return id;
}
const named = async (environment: string): Promise<[string, string, string][]> =>
  (await system.get<Page<SourceInfo>>('/sources')).items.flatMap((one) =>
    one.environment === environment ? [[one.path, one.component, one.host] satisfies [string, string, string]] : [],
  );
const components = async (): Promise<string[]> => (await system.get<Summary>('/summary')).components;
const lines = (words: string): string[] => Array.from({ length: 5 }, (_, i) => `2026-11-24T10:00:0${i}Z INFO ${words} ${i}`);
const syslog = (host: string, tag: string): string[] =>
  Array.from({ length: 3 }, (_, i) => `2026-11-24T10:00:0${i}Z ${host} ${tag}[7]: swept ${i} by ${tag}`);

describe('names', () => {
  test('a folder that records name as a host is the host; the files in it tell what wrote them', async () => {
    await bring('machines', [
      ['lw-app-1/order-desk.log', lines('order taken')],
      ['lw-app-1/error.log', lines('error seen')],
      ['lw-db-1/labdb-004852.csv.log', lines('statement ran')],
      ['lw-log-1/messages', [...syslog('lw-app-1', 'cron'), ...syslog('lw-db-1', 'cron')]],
      ['lw-voice-1/voice.log', lines('call answered')],
    ]);
    expect(await named('machines')).toEqual([
      ['lw-app-1/error.log', 'lw-app-1', 'lw-app-1'],
      ['lw-app-1/order-desk.log', 'order-desk', 'lw-app-1'],
      ['lw-db-1/labdb-004852.csv.log', 'labdb', 'lw-db-1'],
      ['lw-log-1/messages', 'cron', 'lw-log-1'],
      // a third of the folders beside it are hosts
      ['lw-voice-1/voice.log', 'voice', 'lw-voice-1'],
    ]);
    expect(await components()).toEqual(['cron', 'labdb', 'lw-app-1', 'order-desk', 'voice']);
  });

  test('a folder that nothing names as a host stays the component', async () => {
    await bring('programs', [['desk/taking.log', lines('desk takes')], ['store/keeping.log', lines('store keeps')]]); // prettier-ignore
    expect(await named('programs')).toEqual([['desk/taking.log', 'desk', ''], ['store/keeping.log', 'store', '']]); // prettier-ignore
  });

  test('what no source tells any more is listed nowhere', async () => {
    const id = await bring('gone', [['crane/crane.log', lines('crane moved')]]);
    expect(await components()).toContain('crane');
    expect((await fetch(`${system.url}/api/imports/${id}`, { method: 'DELETE' })).status).toBeLessThan(300);
    while ((await named('gone')).length > 0) await new Promise((resolve) => setTimeout(resolve, 50));
    expect(await components()).not.toContain('crane');
  });
});
