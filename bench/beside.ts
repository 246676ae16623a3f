import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Summary } from '@fadenweg/api';
import { call, sendFiles, waitForImport } from '../packages/launch/src/client.ts';
import { declareDemo } from '../packages/launch/src/demo-data.ts';
import { timed, type Result } from './measure.ts';
import { bring, HOME, logsOf, quiet, system } from './world.ts';

const LINES = 20_000;
const ROUNDS = 3;
const seconds = (ms: readonly number[]): string => ms.map((one) => (one / 1000).toFixed(1)).join(', ');
const middle = (ms: readonly number[]): number => [...ms].sort((a, b) => a - b)[ms.length >> 1]!;

/** Lines of a system of its own: two logs that name its numbers. */
function line(round: number, place: number, i: number): string {
  const at = new Date(Date.UTC(2026, 10, 24, 8) + i * 137 + place * 20).toISOString().replace('T', ' ').replace('Z', '');
  return `${at} INFO [w-${i % 8}] ${place === 0 ? 'counter' : 'store'}: parcel BT${round}-${100_000 + Math.floor(i / 4)} step ${i % 4} in booth ${(i * 31) % 977}`;
}
async function write(round: number): Promise<{ file: string; path: string; size: number; modified: number }[]> {
  const folder = join(HOME, 'beside-logs');
  await mkdir(folder, { recursive: true });
  return Promise.all(
    [0, 1].map(async (place) => {
      const text = `${Array.from({ length: LINES / 2 }, (_, i) => line(round, place, i)).join('\n')}\n`;
      const file = join(folder, `${round}-${place}.log`);
      await writeFile(file, text);
      return { file, path: `${place === 0 ? 'counter' : 'store'}/own.log`, size: text.length, modified: Date.UTC(2026, 10, 25) };
    }),
  );
}

/** An import of few lines of one environment, alone and beside the demo in another one. */
export async function benchBeside(): Promise<Result[]> {
  const own = await system('beside', true);
  const { url } = own.server;
  let round = 0;
  const few = async (): Promise<number[]> => {
    const times: number[] = [];
    for (let i = 0; i < ROUNDS; i++) {
      const files = await write(++round);
      const { ms } = await timed(async () => {
        const { id } = await sendFiles(url, files, { environment: `few-${round}`, zone: 'UTC' });
        await waitForImport(url, id, { progress() {} });
      });
      times.push(ms);
      await quiet();
    }
    return times;
  };
  try {
    await declareDemo(url);
    await call(`${url}/api/identifier-kinds`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ name: 'parcel', label: 'Parcel', role: 'business', patterns: ['BT\\d+-\\d{6}'] }),
    });
    const alone = await few();
    await bring(url, (await logsOf('demo-logs', 'demo')).folder, async () => {});
    await quiet();
    const { records } = await call<Summary>(`${url}/api/summary`);
    const beside = await few();
    return [
      {
        what: `${LINES.toLocaleString('en')} lines of one environment, beside ${records.toLocaleString('en')} records of others`,
        figure: `${seconds(beside)} s`,
        raw: `${seconds(alone)} s alone`,
        ratio: (middle(beside) / middle(alone)).toFixed(2),
        budget: '≤ 1.3',
      },
    ];
  } finally {
    await own.stop();
  }
}
