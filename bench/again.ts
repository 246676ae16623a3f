import type { IdentifierKind, Page, SourceInfo, Summary } from '@fadenweg/api';
import { call } from '../packages/launch/src/client.ts';
import { ownClient } from '../packages/server/src/database/own-client.ts';
import { timed, type Result } from './measure.ts';
import { bring, logsOf, quiet, system } from './world.ts';

/** The kind that is declared otherwise: messages tie most of what the demo's systems do. */
const KIND = 'message';
const ROUNDS = 4;

const mean = (ms: readonly number[]): number => ms.reduce((sum, one) => sum + one, 0) / ms.length;
const seconds = (ms: readonly number[]): string => ms.map((one) => (one / 1000).toFixed(1)).join(', ');

/** Sources in which the kind was seen. */
async function holders(database: string): Promise<Set<number>> {
  const client = await ownClient(database);
  try {
    const { rows } = await client.query<{ id: number }>(
      `select distinct s.source_id as id from sighting s join identifier_kind k on k.id = s.kind_id where k.definition ->> 'name' = $1 and not k.retired`,
      [KIND],
    );
    return new Set(rows.map((row) => row.id));
  } finally {
    await client.end();
  }
}
async function still(url: string): Promise<void> {
  while (!(await call<Summary>(`${url}/api/summary`)).still) await new Promise((resolve) => setTimeout(resolve, 100));
}
async function imported(folder: string, wanted?: (path: string) => boolean): Promise<number> {
  const own = await system('again', true);
  try {
    return await bring(own.server.url, folder, undefined, wanted);
  } finally {
    await own.stop();
  }
}

/** A kind of identifiers declared otherwise, read, woven and judged again, against fresh imports of what it touches and of the whole demo. */
export async function benchAgain(): Promise<Result[]> {
  const { folder } = await logsOf('demo-logs', 'demo');
  const own = await system('again', true);
  const fresh: number[] = [];
  const again: number[] = [];
  let touched: SourceInfo[] = [];
  try {
    const { url } = own.server;
    fresh.push(await bring(url, folder));
    await quiet();
    const { items } = await call<Page<IdentifierKind>>(`${url}/api/identifier-kinds`);
    const kind = items.find((one) => one.name === KIND)!;
    const holding = await holders(own.postgres.url);
    touched = (await call<Page<SourceInfo>>(`${url}/api/sources`)).items.filter((source) => holding.has(source.id));
    for (let round = 0; round < ROUNDS; round++) {
      const declared = { ...kind, role: round % 2 === 0 ? 'shared' : 'link' };
      const { ms } = await timed(async () => {
        const body = JSON.stringify(declared);
        await call(`${url}/api/identifier-kinds/${KIND}`, { method: 'PUT', headers: { 'content-type': 'application/json' }, body });
        await still(url);
      });
      again.push(ms);
      await quiet();
    }
  } finally {
    await own.stop();
  }
  const part = await imported(folder, (path) => touched.some((source) => source.path.endsWith(path)));
  fresh.push(await imported(folder));
  const records = touched.reduce((sum, source) => sum + source.records, 0);
  return [
    {
      what: `a kind of identifiers declared otherwise (${touched.length} sources with ${records.toLocaleString('en')} records): read, woven and judged again`,
      figure: `${seconds(again)} s`,
      raw: `${seconds([part])} s a fresh import of these sources alone, ${seconds(fresh)} s of the whole demo, before and after`,
      ratio: `${(mean(again) / part).toFixed(2)}; ${(mean(again) / mean(fresh)).toFixed(2)}`,
      budget: '≤ a fresh import of what it touches',
    },
  ];
}
