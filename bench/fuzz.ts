import { fuzz } from '../packages/core/src/reading/testing/fuzz.ts';
import { DEMO_ZONE } from '@fadenweg/standin';
import type { FoundPage, Page, SourceInfo, StrandSummary } from '@fadenweg/api';
import { call, filesBelow, sendFiles, waitForImport } from '../packages/launch/src/client.ts';
import { declareDemo } from '../packages/launch/src/demo-data.ts';
import { fuzzApi } from '../packages/launch/src/testing/api-fuzz.ts';
import type { Result } from './measure.ts';
import { logsOf, system } from './world.ts';

const LINES = 1_000_000;

/** Worlds by chance of the API's calls, and bad values that are tried at each place of each. */
const SEEDS = [11, 12, 13, 14, 15];
const EACH = 12;
const LONGEST = 5000;

export async function benchFuzz(): Promise<Result[]> {
  return [...(await fuzzReaders()), await fuzzCalls()];
}

/** Each call of the API with bad values at each place; a fault of the server, an answer that takes long or tells of the inside ends the bench. */
async function fuzzCalls(): Promise<Result> {
  const { folder } = await logsOf('small-100k', 100_000);
  const own = await system('fuzz', true);
  try {
    const { url } = own.server;
    await declareDemo(url);
    const { id } = await sendFiles(url, await filesBelow([`${folder}/logs`]), { environment: 'production', zone: DEMO_ZONE });
    await waitForImport(url, id, { progress() {} });
    const first = async <T>(path: string): Promise<T> => (await call<Page<T>>(`${url}/api${path}`)).items[0]!;
    const strand = await first<StrandSummary>('/strands?limit=1');
    const record = await first<FoundPage['items'][number]>('/records?limit=1');
    const source = await first<SourceInfo>('/sources');
    const real = {
      id: [strand.id, record.id, String(source.id), 'x'],
      name: ['order', 'lens-order'],
      by: ['component', 'level'],
      fields: ['component'],
    };
    let calls = 0;
    let slowest = 0;
    for (const seed of SEEDS) {
      const found = await fuzzApi(url, { seed, each: EACH, longest: LONGEST, real });
      calls += found.calls;
      slowest = Math.max(slowest, found.slowestMs);
      const fault = found.faults[0];
      if (fault) throw new Error(`seed ${seed}: ${fault.fault}\n${fault.call}`);
    }
    return {
      what: `fuzz of the API: ${calls.toLocaleString('en')} spoilt calls`,
      figure: 'no fault',
      raw: `slowest answer ${slowest.toFixed(0)} ms`,
      ratio: '',
      budget: 'no 5xx, no hang over 5 s, no leak',
    };
  } finally {
    await own.stop();
  }
}

/** A million mutated lines through the readers of all formats; whatever is not as it has to be ends the bench. */
async function fuzzReaders(): Promise<Result[]> {
  let lines = 0;
  let records = 0;
  let slowest = 0;
  for (let seed = 1; lines < LINES; seed++) {
    const found = fuzz(seed, 5000, () => performance.now());
    lines += found.lines;
    records += found.records;
    slowest = Math.max(slowest, found.slowestMs);
    const fault = found.faults[0];
    if (fault) throw new Error(`${fault.format}, seed ${seed}: ${fault.fault}\n${JSON.stringify(Buffer.from(fault.bytes).toString('latin1'))}`);
  }
  return [
    {
      what: `fuzz of all readers: ${lines.toLocaleString('en')} mutated lines, ${records.toLocaleString('en')} records`,
      figure: 'no fault',
      raw: `slowest source ${slowest.toFixed(0)} ms`,
      ratio: '',
      budget: 'no exception, no hang, nothing lost',
    },
  ];
}
