import { describe, expect, test } from '@jest/globals';
import type { StrandRecord } from '../path/types.ts';
import { departures } from './depart.ts';
import { farOnes } from './far-ones.ts';
import { Usual } from './index-of.ts';
import { learnUsual } from './learn.ts';
import { dice, lessons, milling, said, usualOf } from './testing/legs.ts';

type Making = Parameters<typeof milling>[1];
/** So many legs, of which so many, evenly among them, are otherwise. */
function legsWith(count: number, otherwise: number, how: (random: () => number) => Making): { records: StrandRecord[] }[] {
  const random = dice(1);
  const each = Math.floor(count / otherwise);
  return Array.from({ length: count }, (_, i) => ({ records: milling(random, i % each === 0 && i / each < otherwise ? how(random) : {}) }));
}
const slowly = (random: () => number): Making => ({ grinding: 30_000 + 5000 * random() });
const little = (random: () => number): Making => ({ sacks: 1 + Math.floor(3 * random()) });
const isLate = ({ records }: { records: StrandRecord[] }): boolean => records[4]!.at - records[0]!.at > 20_000_000;
const isLittle = ({ records }: { records: StrandRecord[] }): boolean => / \d sacks/.test(records[2]!.message);
const known = usualOf(300);

describe.each([
  ['took far longer', slowly, isLate],
  ['state a far smaller number', little, isLittle],
])('legs that %s than most', (_, how, isOne) => {
  test('are found where they may be one in twenty by chance', () => {
    const all = legsWith(120, 7, how);
    const far = farOnes(all, known);
    expect(far.size).toBe(7);
    for (const leg of all) expect(far.has(leg)).toBe(isOne(leg));
  });

  test('are usual where more than one in twenty are known to be so', () => {
    expect(farOnes(legsWith(600, 56, how), known).size).toBe(0);
    expect(farOnes(legsWith(120, 15, how), known).size).toBe(0);
  });

  test('are left to the fences where they are few', () => {
    expect(farOnes(legsWith(120, 5, how), known).size).toBe(0);
    expect(farOnes(legsWith(120, 1, how), known).size).toBe(0);
  });

  test('go another way where they say what others do not', () => {
    const all = legsWith(120, 7, how).map((leg) => {
      const { records } = leg;
      const at = records[1]!.at / 1000 + 1;
      return isOne(leg) ? { records: [...records.slice(0, 2), said(at, 'mill', 'sent to the big stone'), ...records.slice(2)] } : leg;
    });
    expect(farOnes(all, known).size).toBe(0);
  });
});

test('what varies much by itself, or by steps, has none far off', () => {
  const random = dice(9);
  const heavy = Array.from({ length: 200 }, () => ({ records: milling(random, { grinding: 1000 / (0.02 + random()) }) }));
  expect(farOnes(heavy, known).size).toBe(0);
  const steps = legsWith(120, 7, () => ({ sacks: 200 })).map(({ records }) => ({
    records: records.map((one) => ({ ...one, message: one.message.replace(/ground [34]\d/, 'ground 40') })),
  }));
  expect(farOnes(steps, known).size).toBe(0);
});

test('they do not count as usual: they are told to depart', () => {
  const late = legsWith(120, 7, slowly).map(({ records }) => records);
  const usual = new Usual(learnUsual('milling', lessons(late))!);
  expect(usual.of.legs).toBe(113);
  for (const records of late.filter((one) => isLate({ records: one })))
    expect(departures(records, usual)[0]).toMatchObject({ kind: 'late', record: 2 });
  const few = legsWith(120, 7, little).map(({ records }) => records);
  const wanted = new Usual(learnUsual('milling', lessons(few))!);
  expect(wanted.of.legs).toBe(113);
  for (const records of few.filter((one) => isLittle({ records: one }))) expect(departures(records, wanted)[0]).toMatchObject({ kind: 'volume', record: 2 }); // prettier-ignore
});

describe('legs that were late together', () => {
  /** Of so many legs, a minute apart, those of these numbers wait for the mill. */
  const queued = (count: number, isLate: (i: number) => boolean): { records: StrandRecord[] }[] => {
    const random = dice(4);
    return Array.from({ length: count }, (_, i) => ({
      records: milling(random, { start: i * 60_000, ...(isLate(i) ? { grinding: 40_000 + 20_000 * random() } : {}) }),
    }));
  };
  test('are left out however many they are, up to a quarter: a queue that grew and was worked off', () => {
    const all = queued(400, (i) => i >= 200 && i < 260);
    const far = farOnes(all, known);
    for (const [i, leg] of all.entries()) expect(far.has(leg)).toBe(i >= 200 && i < 260);
  });
  test('are how it is, where as many are late at any time, or where most are', () => {
    expect(farOnes(queued(400, (i) => i % 7 === 0), known).size).toBe(0); // prettier-ignore
    expect(
      farOnes(
        queued(400, (i) => i >= 100 && i < 300),
        known,
      ).size,
    ).toBe(0);
  });
  test('are too few to be told together', () =>
    expect(
      farOnes(
        queued(45, (i) => i >= 20 && i < 30),
        known,
      ).size,
    ).toBe(0));
});
