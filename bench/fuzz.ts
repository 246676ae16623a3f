import { fuzz } from '../packages/core/src/reading/testing/fuzz.ts';
import type { Result } from './measure.ts';

const LINES = 1_000_000;

/** A million mutated lines through the readers of all formats; whatever is not as it has to be ends the bench. */
export async function benchFuzz(): Promise<Result[]> {
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
