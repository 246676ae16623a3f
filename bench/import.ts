import { logsOf, system, bring } from './world.ts';
import { perSecond, timed, type Result } from './measure.ts';
import { ownClient } from '../packages/server/src/database/connect.ts';
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
    const alone = await bareCopy(own.postgres.url, ['record']);
    const what = `import of the demo (${records.toLocaleString('en')} records), everything on, fsync on`;
    return [
      { what, figure: perSecond(records, ms), raw: `${perSecond(records, bare)} bare COPY of all the rows that it leaves, text`, ratio: (bare / ms).toFixed(2), budget: '≥ 0.3' }, // prettier-ignore
      { what, figure: perSecond(records, ms), raw: `${perSecond(records, alone)} bare COPY of the rows of records alone, text`, ratio: (alone / ms).toFixed(2), budget: '' }, // prettier-ignore
    ];
  } finally {
    await own.stop();
  }
}

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
