import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { said } from '../usual/testing/legs.ts';
import { headline } from './sentence.ts';
import type { StrandRecord } from '../path/types.ts';
import type { Finding, FlowRules } from './types.ts';
import { oddVolumes } from './volume.ts';

const odd = (records: StrandRecord[], flow: FlowRules): Finding | null => oddVolumes({ records, flow })[0] ?? null;

const flow = (...expects: FlowRules['expects']): FlowRules => ({ name: 'f', label: 'f', kind: 'run', prefix: '', patienceMs: null, expects });
const rows = { field: 'rows', words: 'rows', min: 10, max: 20 };

describe('a declared volume', () => {
  test.each(['took 4 rows', 'rows=4', 'rows: 4', 'rows 4', 'rows = 4', 'rows=4, done', 'took 4 rows.'])('is read from “%s”', (message) => {
    const found = odd([said(0, 'job', 'begins'), said(9, 'job', message)], flow(rows))!;
    expect([found.kind, found.record, found.evidence]).toEqual(['odd-volume', 1, [1]]);
    expect(headline(found.sentence)).toBe(`Ended without an error in job, but: “${message}”. Expected: 10 to 20.`);
  });

  test.each(['took 4 arrows', 'rowsX=4', 'narrows=4', 'took 4.5 rowsets', 'took x4 rows', 'in batch_4 rows'])('is not read from “%s”', (message) => {
    expect(odd([said(0, 'job', message)], flow(rows))).toBeNull();
  });

  test('is found exactly where it lies out of its bounds', () => {
    fc.assert(
      fc.property(fc.nat(100_000), fc.nat(50_000), fc.option(fc.nat(50_000)), (count, min, more) => {
        const max = more === null ? null : min + more;
        const found = odd([said(0, 'job', `wrote ${count} rows`)], flow({ ...rows, min, max }));
        expect(found !== null).toBe(count < min || (max !== null && count > max));
      }),
    );
  });

  test('is the whole number, with its thousands and fractions, also beside letters of any language', () => {
    const bound = { ...rows, min: 10, max: 2000 };
    for (const message of ['took 1,204 rows', 'rows: 1,204', 'took 10.5 rows', '12 rows'])
      expect(odd([said(0, 'job', message)], flow(bound))).toBeNull();
    expect(odd([said(0, 'job', 'took 12,204 rows')], flow(bound))).not.toBeNull();
    expect(odd([said(0, 'job', 'heute 4 Übernahmen')], flow({ ...rows, words: 'Übernahmen' }))).not.toBeNull();
    expect(odd([said(0, 'job', 'heute Übernahmen: 4')], flow({ ...rows, words: 'Übernahmen' }))).not.toBeNull();
    expect(odd([said(0, 'job', 'heute 4 Übernahmenä')], flow({ ...rows, words: 'Übernahmen' }))).toBeNull();
  });

  test('without an upper bound says so, and its words are no pattern', () => {
    const open = flow({ field: 'x', words: 'rows (all)', min: 1000, max: null });
    expect(headline(odd([said(0, 'job', '7 rows (all)')], open)!.sentence)).toMatch(/Expected: 1,000 or more\.$/);
    expect(odd([said(0, 'job', '7 rows all')], open)).toBeNull();
  });
});
