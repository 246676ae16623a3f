import { execFile } from 'node:child_process';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { DEMO_ZONE } from '@fadenweg/standin';
import { declareDemo } from '../packages/launch/src/demo-data.ts';
import { ROOT } from '../packages/launch/src/places.ts';
import { logsOf, system } from './world.ts';
import { perSecond, type Result } from './measure.ts';

const SIZES = [1_000_000, 5_000_000, 20_000_000];
const MEGABYTE = 1 << 20;

/** Imports of growing size, each into an empty database: time for each record against the smallest, and the most memory that the server took. */
export async function benchGrowth(): Promise<Result[]> {
  const most = Number(process.env.FADENWEG_BENCH_MOST ?? SIZES[SIZES.length - 1]);
  const least = Number(process.env.FADENWEG_BENCH_LEAST ?? 0);
  const results: Result[] = [];
  let first = NaN;
  for (const size of SIZES.filter((one) => one >= least && one <= most)) {
    const { folder, records } = await logsOf(`logs-${size}`, size);
    const own = await system('growth', true);
    let peak = 0;
    const watch = setInterval(() => (peak = Math.max(peak, process.memoryUsage.rss())), 200);
    try {
      await declareDemo(own.server.url);
      const begin = Date.now();
      // by a sender of its own, so that its memory does not count
      await promisify(execFile)(process.execPath, [
        join(ROOT, 'packages/launch/dist/cli.js'),
        'import',
        join(folder, 'logs'),
        '--zone',
        DEMO_ZONE,
        '--url',
        own.server.url,
      ]);
      const ms = Date.now() - begin;
      const each = ms / records;
      if (Number.isNaN(first)) first = each;
      results.push({
        what: `import of ${records.toLocaleString('en')} records, everything on`,
        figure: `${perSecond(records, ms)}, ${(each * 1000).toFixed(1)} µs a record`,
        raw: `server’s memory at most ${Math.round(peak / MEGABYTE)} MB`,
        ratio: (each / first).toFixed(2),
        budget: '≤ 1.15 of the smallest, ≤ 1 GB',
      });
      console.error(results[results.length - 1]);
    } finally {
      clearInterval(watch);
      await own.stop();
    }
  }
  return results;
}
