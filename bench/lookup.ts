import { execFile } from 'node:child_process';
import { join } from 'node:path';
import { promisify } from 'node:util';
import type { Page, StrandSummary, Summary } from '@fadenweg/api';
import { call } from '../packages/launch/src/client.ts';
import { ms, perSecond, quantile, times, type Result } from './measure.ts';
import { askApart, type Question } from './asker.ts';
import { bring, logsOf, quiet, system } from './world.ts';

const run = promisify(execFile);
const CALLS = 200;

/** A strand by its order number at a given size: search, the whole strand and its records, against `grep -F` over the same raw files. */
export async function benchLookup(records = Number(process.env.FADENWEG_BENCH_RECORDS ?? 5_000_000)): Promise<Result[]> {
  const name = `lookup-${records}`;
  const logs = await logsOf(`${name}-logs`, records);
  const own = await system(name, false);
  try {
    const { url } = own.server;
    const results: Result[] = [];
    if ((await call<Summary>(`${url}/api/summary`)).records === 0) {
      const took = await bring(url, logs.folder);
      results.push({
        what: `import of ${logs.records.toLocaleString('en')} records`,
        figure: perSecond(logs.records, took),
        raw: '',
        ratio: '',
        budget: 'see the import of the demo',
      });
    }
    const { items } = await call<Page<StrandSummary>>(`${url}/api/strands?flow=lens-order&limit=500&sort=-duration`);
    const whole = (id: string): Question => [
      [`${url}/api/search?text=${encodeURIComponent(id)}`],
      [`${url}/api/strands/order:${id}`, `${url}/api/strands/order:${id}/records`],
    ];
    const { from, to } = await call<Summary>(`${url}/api/summary`);
    const ids: string[] = [];
    // orders of each stretch, no two of them the same
    for (let i = 0; i < CALLS; i++) {
      const at = Date.parse(from!) + ((Date.parse(to!) - Date.parse(from!)) * (i + 1)) / CALLS;
      const page = await call<Page<StrandSummary>>(`${url}/api/strands?flow=lens-order&limit=1&sort=-started&to=${new Date(at).toISOString()}`);
      ids.push(page.items[0]!.name);
    }
    await quiet();
    await askApart(ids.slice(0, 10).map(whole));
    const found = await askApart(ids.slice(10).map(whole));
    const grep = await times(3, (i) => run('grep', ['-rF', items[i]!.name, join(logs.folder, 'logs')], { maxBuffer: 64 << 20 }));
    results.push({
      what: `strand by its order number, whole answer, at ${logs.records.toLocaleString('en')} records: p50 / p95`,
      figure: `${ms(quantile(found, 0.5))} / ${ms(quantile(found, 0.95))}`,
      raw: `${ms(grep[1]!)} grep -F over the raw files`,
      ratio: `${(grep[1]! / quantile(found, 0.95)).toFixed(0)} times faster`,
      budget: 'p95 ≤ 60 ms, ≥ 20 times',
    });
    const list = await times(60, (i) => call(`${url}/api/strands?outcome=failed&limit=100&sort=${i % 2 ? 'duration' : '-started'}`));
    results.push({ what: 'first page of the failed strands: p95', figure: ms(quantile(list, 0.95)), raw: '', ratio: '', budget: 'p95 ≤ 50 ms' });
    const summary = await call<Summary>(`${url}/api/summary`);
    const day = await times(40, () =>
      call(`${url}/api/records/timeline?from=${summary.from}&to=${new Date(Date.parse(summary.from!) + 86_400_000).toISOString()}&slots=120`),
    );
    results.push({ what: 'timeline of a day from roll-ups: p95', figure: ms(quantile(day, 0.95)), raw: '', ratio: '', budget: 'p95 ≤ 60 ms' });
    return results;
  } finally {
    await own.stop();
  }
}
