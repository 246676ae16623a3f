import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { parameterKind, parameterReader, proposedNames } from './parameters.ts';
import { shapeText } from './shape.ts';
import { withoutFields } from './without-fields.ts';

const read = (text: string, message: string): string[] | null => parameterReader(text)(message);

describe('parameters of a shape', () => {
  test.each([
    ['order ‹› placed in ‹›', 'order LX-1 placed in 34ms', ['LX-1', '34']],
    ['said ‹› to ‹›', 'said "no, thanks" to 10.0.0.7:80', ['no, thanks', '10.0.0.7:80']],
    ['user ‹› logged in', 'user anna logged in', ['anna']],
    ['took ‹›%', 'took 7%', ['7']],
    ['done. ‹›', 'done. 12.', ['12']],
    ['order ‹› placed', 'order LX-1 refused', null],
    ['order ‹› placed', 'order LX-1 placed\nmore', ['LX-1']],
    ['order ‹› placed by hand', 'order LX-1 placed by hand shop=0416 rows=7', ['LX-1']],
  ])('“%s” in “%s”', (text, message, values) => expect(read(text, message)).toEqual(values));

  test('every message fits its own shape, and has a value for each part that varies', () => {
    const part = fc.constantFrom(
      'order',
      'took',
      '34ms',
      'LX-20',
      '"a b"',
      '“x”',
      '10.0.0.7',
      '=',
      ' ',
      ' ',
      ', ',
      '(',
      ')',
      'µs',
      '5',
      '%',
      '.*',
      '\\',
      '[',
    );
    fc.assert(
      fc.property(fc.array(part, { maxLength: 16 }), (parts) => {
        const line = withoutFields(parts.join(''));
        const text = shapeText(line);
        const pattern = parameterReader(text);
        fc.pre(withoutFields(line) === line);
        expect(pattern(line)).toHaveLength(text.split('‹›').length - 1);
      }),
      { numRuns: 2000 },
    );
  });
  test.each([
    [['1', '2.5', '-3'], 'number'],
    [['34ms', '1.2s'], 'with unit'],
    [['2026-11-24', '2026-11-25T10:00:00Z'], 'time'],
    [['10.0.0.7', '10.0.0.8:80'], 'address'],
    [['LX-1', 'LX-2'], 'identifier'],
    [['"a"', '"b c"'], 'quoted'],
    [['anna', 'ben'], 'word'],
  ])('%j are of the kind “%s”', (parts, kind) => expect(parameterKind(parts)).toBe(kind));
  test('names are proposed by the word before', () => {
    expect(proposedNames('order ‹› took ‹› ms, order ‹› (‹›)')).toEqual(['order', 'took', 'order-3', 'value-4']);
    expect(proposedNames('surface of ‹› failed after ‹› ms')).toEqual(['surface', 'failed']);
  });
});
