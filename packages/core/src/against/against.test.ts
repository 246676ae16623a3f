import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { againstAll } from './against.ts';
import type { StrandFacts, Measure } from './types.ts';

const MINUTE = 60_000_000;
const BEGIN = 1000 * MINUTE;
const strand = (i: number, more: Partial<StrandFacts> = {}): StrandFacts => ({
  at: BEGIN + i * MINUTE,
  own: false,
  flow: 'lens-order',
  outcome: 'done',
  whole: 500_000 + (i % 7) * 10_000,
  database: 100_000 + (i % 5) * 3000,
  transit: 50_000 + (i % 3) * 1000,
  here: null,
  ...more,
});
const many = (count: number, more: (i: number) => Partial<StrandFacts>): StrandFacts[] => Array.from({ length: count }, (_, i) => strand(i, more(i)));
const compared = (strands: readonly StrandFacts[], measure: Measure) =>
  againstAll(strands, BEGIN, 30 * MINUTE).measures.find((one) => one.measure === measure)!;

test('one whose time in the database has grown: the whole and the database are more, what lies elsewhere is innocent', () => {
  const grown = many(40, (i) => ({ own: true, whole: 1_500_000 + (i % 7) * 10_000, database: 1_100_000 + (i % 5) * 3000 }));
  const strands = [...many(200, () => ({})), ...grown, ...many(40, (i) => ({ own: true, at: BEGIN - (i + 1) * MINUTE }))];
  for (const measure of ['whole', 'database'] as const) {
    const one = compared(strands, measure);
    expect(one.beside.is).toBe('more');
    expect(one.since.is).toBe('more');
    expect(one.beside.chance).toBeLessThan(1e-6);
  }
  expect(compared(strands, 'transit').beside.is).toBe('flat');
  expect(compared(strands, 'rest').beside.is).toBe('flat');
  expect(compared(strands, 'amiss').beside.is).toBe('flat');
  expect(compared(strands, 'database').own).toBe(1_106_000);
});

test('who asks for what is slow by nature is not slow', () => {
  const slow = { flow: 'price-list', whole: 60_000_000 };
  const strands = [
    ...many(60, () => ({ own: true, ...slow })),
    ...many(30, () => slow),
    ...many(10, () => ({ own: true })),
    ...many(400, () => ({})),
  ];
  const whole = compared(strands, 'whole');
  expect(whole.beside.is).toBe('flat');
  // as if the others were of the same flows in that proportion
  expect(whole.others).toBe(60_000_000);
});

test('failures: so many, and so much more often; one alone tells nothing', () => {
  const failed = (i: number): Partial<StrandFacts> => ({ own: true, outcome: i < 12 ? 'failed' : 'done' });
  const strands = [...many(40, failed), ...many(200, (i) => ({ outcome: i < 2 ? 'failed' : 'done' }))];
  const amiss = compared(strands, 'amiss');
  expect(amiss).toMatchObject({ own: 0.3, others: 0.01, beside: { is: 'more' }, since: { is: 'few' } });
  expect(compared([...many(40, (i) => ({ own: true, outcome: i < 1 ? 'failed' : 'done' })), ...many(200, () => ({}))], 'amiss').beside.is).toBe(
    'flat',
  );
  const { outcomes } = againstAll(strands, BEGIN, MINUTE);
  expect(outcomes).toContainEqual(
    expect.objectContaining({
      outcome: 'failed',
      own: 12,
      others: 2,
      ownBefore: 0,
      othersBefore: 0,
      beside: expect.objectContaining({ is: 'more' }),
    }),
  );
});

test('as many amiss, but of another kind: that kind is more', () => {
  const strands = [
    ...many(40, (i) => ({ own: true, outcome: i < 8 ? 'doubled' : 'done' })),
    ...many(400, (i) => ({ outcome: i < 80 ? 'refused' : 'done' })),
  ];
  const told = againstAll(strands, BEGIN, MINUTE);
  expect(told.measures.find((one) => one.measure === 'amiss')!.beside.is).toBe('flat');
  expect(told.outcomes.find((one) => one.outcome === 'doubled')!.beside.is).toBe('more');
});

test('fewer than five on a side are too few to say; none is null', () => {
  expect(compared(many(3, () => ({ own: true })), 'whole').beside.is).toBe('few'); // prettier-ignore
  expect(compared([], 'whole')).toMatchObject({ own: null, others: null, ownBefore: null });
  expect(compared(many(30, () => ({ own: true, flow: 'never-else' })), 'whole')).toMatchObject({ others: null, beside: { is: 'few' } }); // prettier-ignore
});

test('the course counts each strand once, in its slot', () => {
  const any = fc.record({
    at: fc.integer({ min: 0, max: 500 }).map((one) => one * MINUTE),
    own: fc.boolean(),
    whole: fc.integer({ min: 0, max: 9e6 }),
  });
  fc.assert(
    fc.property(fc.array(any, { maxLength: 60 }), (list) => {
      const strands = list.map((one) => strand(0, one));
      const { course } = againstAll(strands, 250 * MINUTE, 30 * MINUTE);
      expect(course.reduce((sum, { own, others }) => sum + (own?.strands ?? 0) + (others?.strands ?? 0), 0)).toBe(strands.length);
      for (const { at, own } of course)
        expect(own?.strands ?? 0).toBe(strands.filter((one) => one.own && one.at >= at && one.at < at + 30 * MINUTE).length);
    }),
  );
});
