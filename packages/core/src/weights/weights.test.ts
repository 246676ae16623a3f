import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { weightOfWords, WordWeights } from './memo.ts';
import { weightInMarks, weightOf, weightOfShape, weightOfStrand, withWeight } from './weight.ts';
import { weightName } from './weight.ts';
import { weightWords, type Weight } from './words.ts';

const words = (text: string): string => weightWords(text).map(({ from, to, weight }) => `${text.slice(from, to)} ${weightName(weight)}`).join(', '); // prettier-ignore

describe('words that weigh', () => {
  test.each([
    ['payment failed for order LX-1', 'failed serious'],
    ['ERROR: disk full, retrying', 'ERROR serious, disk full grave, retrying notable'],
    ['java.lang.OutOfMemoryError: heap', 'java.lang.OutOfMemoryError grave'],
    ['calc.PrismOffGridException in ring 37', 'calc.PrismOffGridException serious'],
    ['order not placed because the store failed', 'failed serious'],
    ['error 0x80070005', 'error serious'],
    ['status=failed', 'failed serious'],
    ['3 of 12 failed', 'failed serious'],
    ['could not be opened: timed out', 'could not serious, timed out serious'],
    ['Verbindung verweigert', 'verweigert serious'],
    ['Der Auftrag konnte nicht gespeichert werden', 'konnte nicht serious'],
    ['Datenverlust möglich', 'Datenverlust grave'],
    ['Platte voll', 'Platte voll grave'],
    ['1 Fehler in Zeile 7', 'Fehler serious'],
    // a name that ends or begins with 0 is no number of them
    ['node0 errors', 'errors serious'],
    ['errors: 0a', 'errors serious'],
    ['errors=0x1f', 'errors serious'],
  ])('%s: %s', (text, expected) => expect(words(text)).toBe(expected));

  test.each([
    'no errors found',
    '0 errors in 12 files',
    'errors: 0',
    'errors=0, warnings=0',
    'error=null',
    '"error": null',
    'finished without any further errors',
    "didn't fail",
    'did not fail',
    'non-fatal',
    'error-free run',
    'registered ErrorHandler',
    'see /var/log/error.log',
    'wrote error.log',
    'failover done',
    'GET /errors/list 200',
    'keine Fehler gefunden',
    'fehlerfrei gelaufen',
    'ohne Warnung beendet',
    'order LX-1 accepted',
    'the first line is well\nbut this failed',
  ])('%s: none', (text) => expect(words(text)).toBe(''));

  test('looked up by what is written, a text weighs as it does by itself, whatever numbers stand in it', () => {
    const part = fc.constantFrom(
      'failed',
      'errors',
      '0',
      '7',
      'no',
      'LX-20',
      ':',
      '=',
      ' ',
      ' ',
      'order',
      '"',
      'nicht',
      'disk full',
      'a0b',
      '0.5',
      '00',
      'x=0',
      '.',
      '\n',
      'Ä',
    );
    const known = new WordWeights();
    fc.assert(
      fc.property(fc.array(part, { maxLength: 14 }), (parts) => {
        const text = parts.join('');
        expect(known.of(text)).toBe(weightOfWords(text));
      }),
      { numRuns: 3000 },
    );
  });
  test('whatever the text, words stand in it in order and do not overlap', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 200 }), (text) => {
        let reached = 0;
        for (const { from, to } of weightWords(`${text} failed`)) {
          expect(from).toBeGreaterThanOrEqual(reached);
          expect(to).toBeGreaterThan(from);
          reached = to;
        }
      }),
    );
  });
});

test('a record weighs by its level and its words; of what is detail words count little', () => {
  const cases: [number, Weight, Weight][] = [[3, 0, 0], [3, 2, 2], [0, 3, 3], [4, 0, 1], [5, 1, 2], [6, 0, 3], [2, 3, 1], [1, 1, 1]]; // prettier-ignore
  for (const [level, said, expected] of cases) expect(weightOf(level, said)).toBe(expected);
});
test('the weight stands in marks beside what they mean', () => {
  fc.assert(
    fc.property(fc.nat(2047), fc.constantFrom<Weight>(0, 1, 2, 3), fc.constantFrom<Weight>(0, 1, 2, 3), (marks, one, other) => {
      const kept = withWeight(withWeight(marks, other), one);
      expect([weightInMarks(kept), kept & 2047]).toEqual([one, marks]);
    }),
  );
});
test('a strand weighs by how it ended; what it tells weighs a step less where it ended well', () => {
  expect([weightOfStrand('done', 0), weightOfStrand('done', 2), weightOfStrand('failed', 1), weightOfStrand('failed', 3), weightOfStrand('slow', 0), weightOfStrand('running', 2)]).toEqual([0, 1, 2, 3, 1, 2]); // prettier-ignore
});
test('a shape weighs by what its strands end with too, and new trouble is graver', () => {
  expect(weightOfShape(0, { isNew: true })).toBe(0);
  expect(weightOfShape(1, { isNew: true })).toBe(2);
  expect(weightOfShape(3, { isNew: true })).toBe(3);
  expect(weightOfShape(0, { isNew: false, strands: { failed: 9, all: 10, usual: 0.05 } })).toBe(2);
  expect(weightOfShape(0, { isNew: false, strands: { failed: 9, all: 10, usual: 0.8 } })).toBe(0);
  expect(weightOfShape(0, { isNew: false, strands: { failed: 3, all: 3, usual: 0 } })).toBe(0);
});
