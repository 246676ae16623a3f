import { describe, expect, test } from '@jest/globals';
import type { StrandRecord } from '../path/types.ts';
import { pathOf } from '../path/path.ts';
import { sentenceText } from '../findings/sentence.ts';
import { judgedLeg } from '../findings/leg.ts';
import { verdict } from '../findings/verdict.ts';
import { departures } from './depart.ts';
import { Usual } from './index-of.ts';
import { learnUsual } from './learn.ts';
import { dice, lessons, said } from './testing/legs.ts';

const random = dice(21);
let number = 0;
/** A run reads some orders, rejects a few, and writes the rest. */
function run({ read = 30 + Math.floor(random() * 60), rejected = random() < 0.3 ? 1 : 0 } = {}): StrandRecord[] {
  const at = (number += 1_800_000);
  return [
    said(at, 'batch', 'export started'),
    said(at + 400, 'batch', `read ${read} orders`),
    ...(rejected > 0 ? [said(at + 900, 'batch', `rejected ${rejected} orders without a price`, { level: 4 })] : []),
    said(at + 1500, 'batch', `wrote ${read - rejected} invoices`),
    said(at + 1600, 'batch', 'export finished', { marks: 4 }),
  ];
}
const usualOf = (odd: number): Usual =>
  new Usual(learnUsual('export', lessons([...Array.from({ length: 45 }, () => run()), ...Array.from({ length: odd }, () => run({ read: 55, rejected: 23 }))]))!); // prettier-ignore

describe('numbers of a leg that go together', () => {
  test('are found though each of them varies, also with a few odd ones among them', () => {
    for (const usual of [usualOf(0), usualOf(3)]) {
      expect(usual.of.proportions).toHaveLength(1);
      const [one] = usual.of.proportions;
      expect([usual.of.sayings[one!.saying]!.text, usual.of.sayings[one!.to.saying]!.text]).toEqual(['wrote ‹› invoices', 'read ‹› orders']);
      expect(one!.median).toBeGreaterThan(0.96);
      expect(one!.low).toBeGreaterThan(0.7);
    }
  });
  test('tell a run that wrote far less of what it read, at the record that states the rest', () => {
    const usual = usualOf(3);
    const odd = run({ read: 52, rejected: 23 });
    expect(departures(odd, usual).filter((one) => one.kind === 'share')).toMatchObject([{ kind: 'share', record: 2, value: 29, other: 1, of: 52 }]);
    expect(verdict(judgedLeg({ records: odd, path: pathOf(odd, () => false), flow: null, evidenceEnd: 1e18, usual })).outcome).toBe('odd'); // prettier-ignore
    // without the line in between, at what was written
    const silent = odd.filter((_, i) => i !== 2);
    const { outcome, findings } = verdict(judgedLeg({ records: silent, path: pathOf(silent, () => false), flow: null, evidenceEnd: 1e18, usual })); // prettier-ignore
    expect([outcome, findings.map((one) => one.record)]).toEqual(['odd', [2]]);
    expect(sentenceText(findings[0]!.sentence, () => 'noon')).toBe(
      'Ended without an error in batch, but noon: “wrote 29 invoices”, of “read 52 orders”: 29 of 52 are 56 %, usually 100 % (45 good ones).',
    );
  });
  test('what was written of nothing departs, and is told without a share', () => {
    const odd = run({ read: 0, rejected: 0 }).map((one) => (one.message.startsWith('wrote') ? { ...one, message: 'wrote 40 invoices' } : one));
    const told = verdict(judgedLeg({ records: odd, path: pathOf(odd, () => false), flow: null, evidenceEnd: 1e18, usual: usualOf(0) })).findings.map((one) => sentenceText(one.sentence, () => 'noon')).join('\n'); // prettier-ignore
    expect(told).toContain('40 of 0, usually 100 %');
    expect(told).not.toContain('∞');
  });
  test('depart in none of many good runs, however large', () => {
    const usual = usualOf(0);
    expect(Array.from({ length: 300 }, () => departures(run(), usual)).flat()).toEqual([]);
    expect(departures(run({ read: 88, rejected: 2 }), usual)).toEqual([]);
  });
  test('are none where one says nothing of the other', () => {
    const legs = Array.from({ length: 80 }, () => {
      const at = (number += 1_800_000);
      return [said(at, 'batch', `read ${20 + Math.floor(random() * 80)} rows`), said(at + 9, 'batch', `freed ${20 + Math.floor(random() * 80)} pages`), said(at + 20, 'batch', 'done', { marks: 4 })]; // prettier-ignore
    });
    expect(learnUsual('x', lessons(legs))!.proportions).toEqual([]);
  });
});
