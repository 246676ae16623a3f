import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { completed, completionAt, OPERATORS } from './complete.ts';
import { parseSearch } from './parse.ts';

/** The caret stands at the bar. */
const at = (text: string) => completionAt(text.replace('|', ''), text.indexOf('|'));

describe('completion', () => {
  test.each([
    ['|', undefined],
    ['lock|', undefined],
    ['lock |', 'joint'],
    ['lock wh|', 'joint'],
    ['where |', 'field'],
    ['lock where comp|', 'field'],
    ['where (|', 'field'],
    ['where not |', 'field'],
    ['where component |', 'operator'],
    ['where component =|', 'value'],
    ['where component = bl|', 'value'],
    ["where component = 'blank st|", 'value'],
    ["where component = 'blank store'|", 'joint'],
    ["where component = 'blank store' |", 'joint'],
    ['where level in |', 'joint'],
    ['where level in (|', 'value'],
    ['where level in (debug, tr|', 'value'],
    ['where level in (debug) |', 'joint'],
    ['where level not in (debug, |', 'value'],
    ['where took between |', 'value'],
    ['where took between 1s |', 'joint'],
    ['where took between 1s and |', 'value'],
    ['where shop is |', 'joint'],
    ['where shop is not null |', 'joint'],
    ['where shop is null and |', 'field'],
    ['where a = 1 or lev| and b = 2', 'field'],
    ['where a ? |', undefined],
  ])('“%s” expects %s', (text, what) => expect(at(text)?.expected.what).toBe(what));

  test('tells the field, what is typed and its place', () => {
    expect(at("where level = error and component = 'bla|")).toEqual({
      from: 36,
      to: 40,
      typed: 'bla',
      expected: { what: 'value', field: 'component' },
    });
    expect(at('where (a = 1 |')!.expected).toEqual({ what: 'joint', words: ['and', 'or', ')'] });
    expect(at('where "order.number" |')!.expected).toEqual({ what: 'operator', field: 'order.number' });
  });
  test('puts the choice in and goes on behind it', () => {
    const place = at('where comp| = a')!;
    expect(completed('where comp = a', place, 'component')).toEqual({ text: 'where component = a', caret: 16 });
  });
  test('taking what is offered, step after step, always gives a search', () => {
    const choose = fc.infiniteStream(fc.nat(100));
    fc.assert(
      fc.property(choose, fc.integer({ min: 3, max: 24 }), (numbers, steps) => {
        let text = 'lock ';
        for (let i = 0; i < steps + 40; i++) {
          const place = completionAt(text, text.length)!;
          expect([text, place]).not.toContain(null);
          const { expected } = place;
          if (i >= steps && expected.what === 'joint' && expected.words[0] === 'and' && expected.words.length > 1) break;
          const closing = i >= steps && expected.what === 'joint' && expected.words.includes(')');
          const offered = { joint: [] as string[], field: ['component', 'took'], operator: [...OPERATORS], value: ['10', "'a b'"] };
          const choices = closing ? [')'] : expected.what === 'joint' ? expected.words : offered[expected.what];
          text = completed(text, place, choices[numbers.next().value % choices.length]!).text;
        }
        expect([text, parseSearch(text).problem]).toEqual([text, null]);
      }),
      { numRuns: 400 },
    );
  });
});
