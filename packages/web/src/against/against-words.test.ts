import { expect, test } from '@jest/globals';
import type { AgainstCompared } from '@fadenweg/api';
import { nameOf, othersWords, valueWords, verdicts } from './against-words.ts';

const flat = { is: 'flat', chance: 1 } as const;
const none = { outcomes: [], strands: { own: 40, others: 400, ownBefore: 0, othersBefore: 0 } };
const measure = (more: Partial<AgainstCompared>): AgainstCompared => ({ measure: 'whole', own: 1, others: 1, ownBefore: 1, othersBefore: 1, beside: flat, since: flat, ...more }); // prettier-ignore

test('what differs is said with both numbers, and what does not is innocent', () => {
  const slow = measure({ measure: 'database', own: 8000, others: 40, beside: { is: 'more', chance: 1e-9 } });
  expect(verdicts({ ...none, measures: [slow, measure({ measure: 'transit' })] })).toEqual([
    'Time in databases takes longer: 8.00 s, others 40 ms (hardly chance).',
    'As others, and so not it: on the way: queues and gaps.',
  ]);
  expect(verdicts({ ...none, measures: [measure({})] })).toEqual(['Nothing is different that chance may not have done.']);
  expect(verdicts({ ...none, measures: [measure({ beside: { is: 'few', chance: 1 }, since: { is: 'few', chance: 1 } })] })[0]).toMatch(/^Too few/);
});

test('of outcomes it is said which', () => {
  const doubled = { outcome: 'doubled' as const, own: 12, others: 0, ownBefore: 0, othersBefore: 0, beside: { is: 'more' as const, chance: 0.0005 } };
  expect(verdicts({ ...none, outcomes: [doubled], measures: [measure({ measure: 'amiss' })] })).toEqual([
    'More are doubled: 12 of 40, of others none of 400 (by chance once in 2,000).',
  ]);
});

test('what grew for everybody is said to be so', () => {
  const grown = measure({ own: 300, ownBefore: 100, others: 310, othersBefore: 100, since: { is: 'more', chance: 0.0001 } });
  expect(verdicts({ ...none, measures: [grown] })[0]).toBe(
    'The whole takes longer: 300 ms, before 100 ms, but so it is for others (by chance once in 10,000).',
  );
});

test('names, values, and whom it is compared with', () => {
  expect(nameOf({ what: 'party', name: '0059', of: 'shop' })).toBe('shop 0059');
  expect(nameOf({ what: 'host', name: 'app-3', of: '' })).toBe('host app-3');
  expect([valueWords('amiss', 0.0312), valueWords('amiss', 0), valueWords('whole', null)]).toEqual(['3.1 %', 'none', '–']);
  const strands = { own: 9, others: 9, ownBefore: 0, othersBefore: 0 };
  expect(othersWords({ what: 'component', of: '', instead: ['cell-2'], strands })).toBe('those that pass cell-2 instead');
  expect(othersWords({ what: 'host', of: '', instead: [], strands: { ...strands, others: 0 } })).toMatch(/^no others/);
});
