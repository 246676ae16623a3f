import { logsOf, system, bring } from './world.ts';
import { perSecond, timed, type Result } from './measure.ts';
import { ownClient } from '../packages/server/src/database/connect.ts';
import { from as copyFrom, to as copyTo } from 'pg-copy-streams';
import { pipeline } from 'node:stream/promises';
import { createReadStream, createWriteStream } from 'node:fs';
import { rm } from 'node:fs/promises';

/** The demo brought in with everything on, against bare COPY of the same rows into a table without an index, in the same database. */
export async function benchImport(): Promise<Result[]> {
  const { folder, records } = await logsOf('demo-logs', 'demo');
  const own = await system('import', true);
  try {
    const ms = await bring(own.server.url, folder);
    const bare = await bareCopy(own.postgres.url);
    return [
      {
        what: `import of the demo (${records.toLocaleString('en')} records), everything on, fsync on`,
        figure: perSecond(records, ms),
        raw: `${perSecond(records, bare)} bare COPY of the same rows, text`,
        ratio: (bare / ms).toFixed(2),
        budget: '≥ 0.3',
      },
    ];
  } finally {
    await own.stop();
  }
}

async function bareCopy(url: string): Promise<number> {
  const client = await ownClient(url);
  const file = '/var/tmp/fadenweg-bench-rows';
  try {
    await pipeline(client.query(copyTo('copy (select * from record) to stdout')), createWriteStream(file));
    const runs: number[] = [];
    for (let i = 0; i < 3; i++) {
      await client.query('drop table if exists bare');
      await client.query('create table bare as select * from record limit 0');
      runs.push((await timed(() => pipeline(createReadStream(file, { highWaterMark: 1 << 20 }), client.query(copyFrom('copy bare from stdin'))))).ms);
    }
    await client.query('drop table bare');
    return runs.sort((a, b) => a - b)[1]!;
  } finally {
    await rm(file, { force: true });
    await client.end();
  }
}
