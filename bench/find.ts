import type { FoundPage, Summary, TimelinePart } from '@fadenweg/api';
import { call } from '../packages/launch/src/client.ts';
import { ms, quantile, times, timed, type Result } from './measure.ts';
import { bring, logsOf, system } from './world.ts';

const RECORDS = 5_000_000;
/** Searches with what they have to show: frequent words, a rare one, a condition, one that finds nothing. */
const SEARCHES = [
  'timeout',
  'lock timeout',
  'where level >= error',
  'where component = labdb and took > 2s',
  'deadlock where outcome = failed',
  'nowhere-at-all',
];

/** Searches over all time at five million records: the first lines, and the whole counted to its end. */
export async function benchFind(): Promise<Result[]> {
  const logs = await logsOf(`lookup-${RECORDS}-logs`, RECORDS);
  const own = await system(`lookup-${RECORDS}`, false);
  try {
    const { url } = own.server;
    let summary = await call<Summary>(`${url}/api/summary`);
    if (summary.records === 0) {
      await bring(url, logs.folder);
      summary = await call<Summary>(`${url}/api/summary`);
    }
    const results: Result[] = [];
    for (const q of SEARCHES) {
      const window = `q=${encodeURIComponent(q)}&from=${summary.from}&to=${summary.to}`;
      let shown = 0;
      const first = await times(9, async () => {
        shown = (await call<FoundPage>(`${url}/api/records?limit=100&${window}`)).items.length;
      });
      let total = 0;
      const whole = await timed(async () => {
        for (let after: string | null = ''; after !== null;) {
          const part: TimelinePart = await call<TimelinePart>(
            `${url}/api/records/tally?${window}&slotMs=3600000${after === '' ? '' : `&after=${after}`}`,
          );
          total += part.total;
          after = part.next;
        }
      });
      results.push({
        what: `“${q}” over ${summary.records.toLocaleString('en')} records: first answer, p95`,
        figure: `${ms(quantile(first, 0.95))} with ${shown} lines`,
        raw: `${ms(whole.ms)} until all ${total.toLocaleString('en')} are counted`,
        ratio: '',
        budget: 'first lines ≤ 300 ms',
      });
    }
    return results;
  } finally {
    await own.stop();
  }
}
