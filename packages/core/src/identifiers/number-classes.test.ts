import { describe, expect, test } from '@jest/globals';
import { numberClasses } from './number-classes.ts';
import type { SuggestRecord } from './suggest.ts';

const say = (text: string, fields: SuggestRecord['fields'] = {}): SuggestRecord => ({ component: 'desk', text, fields, known: [] });

describe('what may name things', () => {
  test('numbers of one letter with four digits and with six are of two kinds, those of a counter of one', () => {
    const records = Array.from({ length: 60 }, (_, i) => say(`of C${1000 + i} as C${204_000 + i} in RUN-${i + 70}`));
    const found = numberClasses(records, 20).map(({ form, values, exact }) => [form, values.size, exact]);
    expect(found).toEqual(expect.arrayContaining([['C9', 60, true], ['C9', 60, true], ['RUN-9', 60, false]])); // prettier-ignore
    expect(found).toHaveLength(3);
  });
  test('a field that holds the same numbers in a spelling of its own is another spelling, not another class', () => {
    const records = Array.from({ length: 60 }, (_, i) => [say(`taken KB-26-${4000 + i}`), say('stored', { 'order.id': `kb/26/${4000 + i}` })]).flat();
    const found = numberClasses(records, 20);
    expect(found).toHaveLength(1);
    expect(found[0]!.spellings.map(({ texts }) => texts[0])).toEqual(['KB-26-4000', 'kb/26/4000']);
    expect(found[0]!.values.get('kb264000')).toEqual([0, 1]);
  });
  test('a field that holds numbers of several kinds is none', () => {
    const records = Array.from({ length: 60 }, (_, i) => say('x', { ref: i % 2 ? `RC-${5000 + i}` : `AC-${70_000 + i}` }));
    expect(numberClasses(records, 20).map(({ key }) => key).sort()).toEqual(['form AC-9', 'form RC-9']); // prettier-ignore
  });
});
