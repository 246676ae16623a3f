import { describe, expect, test } from '@jest/globals';
import { learnUsual } from '../usual/learn.ts';
import { Usual } from '../usual/index-of.ts';
import { dice, lessons, milling, said, usualOf } from '../usual/testing/legs.ts';
import { departed } from './departed.ts';
import { headline } from './sentence.ts';
import { BORNE_OUT, LASTED } from './sure.ts';

const usual = usualOf(200);
const leg = (of: Parameters<typeof milling>[1]) => milling(dice(5), { start: 0, ...of });

describe('what departs from the usual, in sentences', () => {
  test('nothing of a good leg does', () => expect(departed({ records: leg({}), usual })).toEqual([]));

  test('what took long is surer where a record says what no good leg has than where it says nothing else', () => {
    const late = leg({ grinding: 20_000 });
    const warning = { ...late[1]!, at: late[1]!.at + 15_000_000, component: 'keeper', message: 'the stone is worn', shape: 990, level: 4 as const };
    expect(departed({ records: late, usual })[0]!.confidence).toBe(LASTED);
    const [found] = departed({ records: [...late.slice(0, 2), warning, ...late.slice(2)], usual });
    expect([found!.confidence, found!.record]).toEqual([BORNE_OUT, 2]);
  });

  test('what another component did before is named with it, what the same did is not', () => {
    expect(headline(departed({ records: leg({ grinding: 60_000 }), usual })[0]!.sentence)).toMatch(/1 min after “grinding for 0”/);
    const late = leg({});
    const cart = late.slice(0, 3).concat(late.slice(3).map((record) => ({ ...record, at: record.at + 60_000_000 })));
    expect(headline(departed({ records: cart, usual })[0]!.sentence)).toMatch(
      /^Slow in cart: “loaded” came 1 min after mill’s “ground \d+ sacks for 0”/,
    );
  });

  test('a number is told with its usual range, or the one number that it always was', () => {
    expect(headline(departed({ records: leg({ sacks: 3 }), usual })[0]!.sentence)).toMatch(
      /but: “ground 3 sacks for 0”\. Usually \d+ to \d+ \(200 good ones\)\.$/,
    );
    const always = new Usual(learnUsual('milling', lessons(Array.from({ length: 200 }, (_, i) => milling(dice(i + 1), { sacks: 12 }))))!);
    expect(headline(departed({ records: leg({ sacks: 3000 }), usual: always })[0]!.sentence)).toMatch(/Usually 12 \(200 good ones\)\.$/);
  });

  test('a share is told with both numbers, where they stand, and what it usually is', () => {
    const random = dice(3);
    const run = (took: number, wrote: number) => [
      said(0, 'reader', `took ${took} rows`),
      said(50, 'writer', `wrote ${wrote} rows`),
      said(60, 'reader', 'closed', { marks: 4 }),
    ];
    const good = Array.from({ length: 200 }, () => {
      const took = 100 + Math.floor(random() * 100_000);
      return run(took, took);
    });
    const shares = new Usual(learnUsual('rows', lessons(good))!);
    const [found] = departed({ records: run(5000, 2000), usual: shares });
    expect([found!.kind, found!.record, found!.evidence]).toEqual(['odd-volume', 1, [0, 1]]);
    expect(headline(found!.sentence)).toBe(
      'Ended without an error in writer, but: “wrote 2000 rows”, of reader’s “took 5000 rows”: 2,000 of 5,000 are 40 %, usually 100 % (199 good ones).',
    );
    expect(departed({ records: run(5000, 5000), usual: shares })).toEqual([]);
  });
});
