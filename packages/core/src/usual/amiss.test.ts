import { describe, expect, test } from '@jest/globals';
import { amiss, type Amiss } from './amiss.ts';
import { SURELY } from './habits.ts';
import { hands } from './handing.ts';
import { dice } from './testing/legs.ts';
import { parcel, parcelsUsual, type Fate } from './testing/parcels.ts';

const usual = parcelsUsual(300);
const seen = (fate: Fate, by = usual): Amiss[] => amiss(parcel(dice(5), { start: 0, ...fate }), by, SURELY);

describe('what a leg lacks or has twice, though its end looks well', () => {
  test('is nothing in good ones', () => {
    const random = dice(99);
    for (let i = 0; i < 300; i++) expect(amiss(parcel(random), usual, SURELY)).toEqual([]);
  });
  test('what was handed on and nobody took up, with who usually does', () => {
    expect(seen({ stamp: 'lost' })).toMatchObject([
      { kind: 'untaken', record: 2, missing: { component: 'stamp', text: 'stamping ‹›' } },
      { kind: 'absent', record: 2, missing: { component: 'stamp', text: 'stamping ‹›' } },
    ]);
  });
  test('a component that fell silent in the middle of its work', () => {
    expect(seen({ stamp: 'begun' })).toMatchObject([{ kind: 'unfinished', record: 3, missing: { component: 'stamp', text: 'stamped ‹›' } }]);
  });
  test('what went to another component than it always does', () => {
    expect(seen({ stamp: 'elsewhere' })[0]).toMatchObject({ kind: 'astray', record: 3, missing: 'stamp' });
  });
  test('a component that has a part in every good leg and never spoke, of few of them too', () => {
    const learned = parcelsUsual(40);
    expect(seen({ stamp: 'lost' }, learned)).toMatchObject([{ kind: 'absent', record: 2, missing: { component: 'stamp' } }]);
    // what no good leg says tells where it went another way
    expect(seen({ stamp: 'elsewhere' }, learned)).toMatchObject([{ kind: 'absent', record: 3, missing: { component: 'stamp' } }]);
  });
  test('what was handed on and done twice, but not what had to be done again', () => {
    expect(seen({ stamp: 'twice' })).toMatchObject([{ kind: 'doubled', first: 2 }]);
    expect(seen({ stamp: 'again after an error' })).toEqual([]);
  });
  test('what a component did twice of one thing, one after the other', () => {
    const records = parcel(dice(5), { start: 0 });
    const own = records.flatMap((one, i) => (one.component === 'stamp' ? [i] : []));
    const after = records[own.at(-1)!]!.at;
    const again = own.map((i) => ({ ...records[i]!, at: records[i]!.at + after }));
    expect(amiss([...records, ...again], usual, SURELY).filter(({ kind }) => kind === 'doubled')).toMatchObject([
      { first: own[0]!, record: records.length },
    ]);
    // of something else, or interwoven, it is not the same done twice
    const other = again.map((one) => ({ ...one, keys: [999] }));
    expect(amiss([...records, ...other], usual, SURELY).filter(({ kind }) => kind === 'doubled')).toEqual([]);
    const woven = own.flatMap((i) => [records[i]!, { ...records[i]! }]);
    expect(
      amiss([...records.slice(0, own[0]!), ...woven, ...records.slice(own.at(-1)! + 1)], usual, SURELY).filter(({ kind }) => kind === 'doubled'),
    ).toEqual([]);
  });
  test('shows too where some of those that it was learned from lack it, and look good', () => {
    const others: Fate[] = [{ stamp: 'lost' }, { stamp: 'lost' }, { stamp: 'begun' }, { stamp: 'elsewhere' }, { stamp: 'twice' }];
    const learned = parcelsUsual(600, others);
    for (const kind of ['lost', 'begun', 'elsewhere', 'twice'] as const) expect(seen({ stamp: kind }, learned)).not.toEqual([]);
  });
  test('is not said where a part of the good ones does without it', () => {
    const learned = parcelsUsual(
      280,
      Array.from({ length: 20 }, () => ({ stamp: 'begun' as const })),
    );
    expect(seen({ stamp: 'begun' }, learned)).toEqual([]);
  });
  test('is not said where too few are known', () => {
    const learned = parcelsUsual(20);
    for (const kind of ['lost', 'begun', 'elsewhere', 'twice'] as const) expect(seen({ stamp: kind }, learned)).toEqual([]);
  });
});

test('handing on: what is named first, and who else names it', () => {
  const records = parcel(dice(5), { start: 0 });
  expect(hands(records)).toEqual([
    { record: 0, taker: 5 },
    { record: 2, taker: 3 },
  ]);
});
