import { logsOf, system, bring } from './world.ts';
import { perSecond, timed, type Result } from './measure.ts';
import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';
import type { Health } from '@fadenweg/api';
import { Usual, type FlowUsual } from '@fadenweg/core/usual';
import { call } from '../packages/launch/src/client.ts';
import { ownClient } from '../packages/server/src/database/own-client.ts';
import { from as copyFrom, to as copyTo } from 'pg-copy-streams';
import { pipeline } from 'node:stream/promises';
import { createReadStream, createWriteStream } from 'node:fs';
import { rm } from 'node:fs/promises';

/** The demo brought in with everything on, against bare COPY of the same rows into tables without an index, in the same database. */
export async function benchImport(): Promise<Result[]> {
  const { folder, records } = await logsOf('demo-logs', 'demo');
  const own = await system('import', true);
  try {
    const ms = await bring(own.server.url, folder);
    const bare = await bareCopy(own.postgres.url, EVERYTHING);
    const { weavingMs } = await call<Health>(`${own.server.url}/api/health`);
    const share = (part: number): string => `${((part / ms) * 100).toFixed(1)} %`;
    const alone = await bareCopy(own.postgres.url, ['record']);
    const what = `import of the demo (${records.toLocaleString('en')} records), everything on, fsync on`;
    return [
      { what, figure: perSecond(records, ms), raw: `${perSecond(records, bare)} bare COPY of all the rows that it leaves, text`, ratio: (bare / ms).toFixed(2), budget: '≥ 0.3' }, // prettier-ignore
      { what, figure: perSecond(records, ms), raw: `${perSecond(records, alone)} bare COPY of the rows of records alone, text`, ratio: (alone / ms).toFixed(2), budget: '' }, // prettier-ignore
      { what: 'of it stitching: tying, carrying over', figure: share(weavingMs.tying + weavingMs.carrying), raw: '', ratio: '', budget: '≤ 25 %' },
      { what: 'of it findings: what is usual learned, outcome and findings of all strands', figure: share(weavingMs.learning + weavingMs.findings), raw: `learning ${share(weavingMs.learning)}; judging with reading, paths and storing ${share(weavingMs.judging)}`, ratio: '', budget: '≤ 15 %' }, // prettier-ignore
      await usualOf(own.postgres.url),
    ];
  } finally {
    await own.stop();
  }
}

/** What the usual of a hundred flows takes in memory: that of the demo's, over and over. */
async function usualOf(url: string): Promise<Result> {
  const client = await ownClient(url);
  const { rows } = await client.query<{ usual: string }>('select usual::text as usual from flow where usual is not null');
  await client.end();
  setFlagsFromString('--expose-gc');
  const collect = runInNewContext('gc') as () => void;
  collect();
  const before = process.memoryUsage().heapUsed;
  const known = Array.from({ length: FLOWS }, (_, i) => new Usual(JSON.parse(rows[i % rows.length]!.usual) as FlowUsual));
  collect();
  const taken = process.memoryUsage().heapUsed - before;
  return { what: `the usual of ${known.length} flows in memory`, figure: `${(taken / (1 << 20)).toFixed(1)} MB`, raw: `${rows.length} flows of the demo, over and over`, ratio: '', budget: '≤ 200 MB' }; // prettier-ignore
}
const FLOWS = 100;

/** Tables that an import fills. */
const EVERYTHING = ['record', 'raw_block', 'sighting', 'edge', 'minute_count', 'shape', 'tie', 'relation', 'strand'];

/** The median of three runs of the rows of these tables, one table after the other. */
async function bareCopy(url: string, tables: readonly string[]): Promise<number> {
  const client = await ownClient(url);
  let sum = 0;
  try {
    for (const table of tables) {
      const file = `/var/tmp/fadenweg-bench-rows-${table}`;
      await pipeline(client.query(copyTo(`copy (select * from ${table}) to stdout`)), createWriteStream(file));
      const runs: number[] = [];
      for (let i = 0; i < 3; i++) {
        await client.query('drop table if exists bare');
        await client.query(`create table bare as select * from ${table} limit 0`);
        runs.push(
          (await timed(() => pipeline(createReadStream(file, { highWaterMark: 1 << 20 }), client.query(copyFrom('copy bare from stdin'))))).ms,
        );
      }
      await client.query('drop table bare');
      await rm(file);
      sum += runs.sort((a, b) => a - b)[1]!;
    }
    return sum;
  } finally {
    await client.end();
  }
}
