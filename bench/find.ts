import { execFileSync } from 'node:child_process';
import { join } from 'node:path';
import type { FoundPage, LogRecord, Page, Summary, TimelinePart } from '@fadenweg/api';
import { call } from '../packages/launch/src/client.ts';
import { ownClient } from '../packages/server/src/database/own-client.ts';
import { ms, quantile, times, timed, type Result } from './measure.ts';
import { bring, logsOf, quiet, system } from './world.ts';

const RECORDS = 5_000_000;
const DAY = 86_400_000;
/** Searches with what they have to show: frequent words, rare ones, conditions, one that finds nothing. */
const SEARCHES: { q: string; budget: string }[] = [
  { q: 'order', budget: 'frequent word: first page ≤ 150 ms' },
  { q: 'lock timeout', budget: 'first lines ≤ 300 ms' },
  { q: 'LX-101234', budget: 'rare word ≤ 300 ms' },
  { q: 'nowhere-at-all', budget: 'absent word ≤ 300 ms' },
  { q: 'where level >= error', budget: 'first lines ≤ 300 ms' },
  { q: 'where component = labdb and took > 2s', budget: 'first lines ≤ 300 ms' },
  { q: 'deadlock where outcome = failed', budget: 'first lines ≤ 300 ms' },
];

/** Waits until the words of all large days are indexed; milliseconds since the call, and bytes. */
async function wordsIndexed(url: string): Promise<{ ms: number; bytes: number; leaves: number }> {
  const client = await ownClient(url);
  const begin = Date.now();
  try {
    for (;;) {
      const { rows } = await client.query<{ large: number; indexed: number; bytes: number }>(
        `select (select count(*) from pg_inherits i join pg_class c on c.oid = i.inhrelid where i.inhparent = 'record'::regclass and pg_relation_size(c.oid) >= 3000000)::int as large,
           count(*) filter (where x.indisvalid)::int as indexed, coalesce(sum(pg_relation_size(c.oid)), 0)::bigint as bytes
           from pg_index x join pg_class c on c.oid = x.indexrelid where c.relname ~ '^record_[0-9]{8}_words$'`,
      );
      const { large, indexed, bytes } = rows[0]!;
      if (large > 0 && indexed >= large) return { ms: Date.now() - begin, bytes: Number(bytes), leaves: indexed };
      await new Promise((resolve) => setTimeout(resolve, 500));
    }
  } finally {
    await client.end();
  }
}

const NEWEST = 1_000_000;
/** Words in the newest million records, whose words are not indexed yet: to the end, with a part of the answer after each call. */
async function newest(url: string, database: string, summary: Summary): Promise<Result[]> {
  const client = await ownClient(database);
  try {
    const { rows } = await client.query<{ at: number }>('select at from record order by at desc, id desc offset $1 limit 1', [NEWEST]);
    const from = new Date(rows[0]!.at / 1000).toISOString();
    const { rows: indexes } = await client.query<{ name: string }>(`select relname as name from pg_class where relname ~ '^record_[0-9]{8}_words$'`);
    for (const { name } of indexes) if (name >= `record_${from.slice(0, 10).replaceAll('-', '')}`) await client.query(`drop index ${name}`);
    const results: Result[] = [];
    for (const word of ['nowhere-at-all', 'LX-101234']) {
      let calls = 0;
      const search = async (): Promise<void> => {
        calls = 0;
        for (let after: string | null = ''; after !== null; calls++) {
          const window: string = `q=${word}&from=${from}&to=${summary.to!}${after === '' ? '' : `&after=${after}`}`;
          after = (await call<FoundPage>(`${url}/api/records?limit=100&${window}`)).next;
        }
      };
      // warm: the database's processes know the pages by then
      await times(5, search);
      const taken = await times(15, search);
      results.push({
        what: `“${word}” in the newest million, not yet indexed: to the end`,
        figure: `${ms(quantile(taken, 0.95))} in ${calls} parts`,
        raw: '',
        ratio: '',
        budget: '≤ 1 s with progress',
      });
    }
    return results;
  } finally {
    await client.end();
  }
}

/** Searches over all time at five million records, and what Find asks beside them. */
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
    const words = await wordsIndexed(own.postgres.url);
    await quiet();
    const all = `from=${summary.from}&to=${summary.to}`;
    const end = Date.parse(summary.to!) - DAY / 2;
    const span = (length: number): string => `from=${new Date(end - length).toISOString()}&to=${new Date(end).toISOString()}`;
    const results: Result[] = [
      {
        what: `words of ${words.leaves} days indexed in the background, waiting included`,
        figure: `${Math.round(words.ms / 1000)} s, ${Math.round(words.bytes / 1e6)} MB`,
        raw: `${summary.records.toLocaleString('en')} records`,
        ratio: '',
        budget: '',
      },
    ];
    for (const { q, budget } of SEARCHES) {
      const window = `q=${encodeURIComponent(q)}&${all}`;
      const grep = await timed(() => {
        const word = q.startsWith('where') ? 'error' : q.split(' ')[0]!;
        try {
          execFileSync('grep', ['-r', '-c', '-i', '-F', word, join(logs.folder, 'logs')], { stdio: 'ignore' });
        } catch {
          // grep ends with 1 where it finds nothing
        }
        return Promise.resolve();
      });
      let shown = 0;
      await call(`${url}/api/records?limit=100&${window}`);
      const first = await times(15, async () => {
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
        what: `“${q}” over all: first answer, p95`,
        figure: `${ms(quantile(first, 0.95))} with ${shown} lines; all ${total.toLocaleString('en')} counted in ${ms(whole.ms)}`,
        raw: `${ms(grep.ms)} for grep -c`,
        ratio: (grep.ms / whole.ms).toFixed(1),
        budget,
      });
    }
    const measure = async (what: string, path: string, budget: string): Promise<void> => {
      await call(`${url}/api/${path}`);
      const taken = await times(15, () => call(`${url}/api/${path}`));
      results.push({ what: `${what}, p95`, figure: ms(quantile(taken, 0.95)), raw: '', ratio: '', budget });
    };
    await measure('timeline of a day from the sums by minute', `records/timeline?${span(DAY)}&slots=120`, '≤ 60 ms');
    await measure('timeline of a day with a word', `records/tally?${span(DAY)}&q=lock&slotMs=720000`, '≤ 400 ms');
    await measure(
      'values of five fields over an hour, first answer',
      `records/values?effort=quick&${span(3_600_000)}&fields=component,level,outcome,shop,took`,
      '≤ 250 ms',
    );
    await measure(
      'values of five fields over an hour, of the latest 20,000',
      `records/values?${span(3_600_000)}&fields=component,level,outcome,shop,took`,
      '',
    );
    await measure(
      'values of five fields over a day (of the latest)',
      `records/values?${span(DAY)}&fields=component,level,outcome,shop,took`,
      '≤ 1.2 s',
    );
    const deep = (await call<FoundPage>(`${url}/api/records?limit=1&to=${new Date(end - DAY).toISOString()}`)).items[0]!;
    await measure('a page of 100 records a day deep', `records?limit=100&${all}&after=${deep.id}`, '≤ 50 ms');
    await measure('21 records around one', `records/${deep.id}/around?scope=all`, '≤ 50 ms');
    await measure('21 records around one in its source', `records/${deep.id}/around?scope=source`, '≤ 50 ms');
    const { items } = await call<Page<LogRecord>>(`${url}/api/records/${deep.id}/around?scope=all`);
    if (!items.some((one) => one.id === deep.id)) throw new Error('the record does not stand among those around it');
    results.push(...(await newest(url, own.postgres.url, summary)));
    return results;
  } finally {
    await own.stop();
  }
}
