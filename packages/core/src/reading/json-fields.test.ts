import { describe, expect, it } from '@jest/globals';
import { flatten, parseObject } from './json-fields.ts';
import type { Fields } from './types.ts';

const fieldsOf = (text: string): Fields => {
  const fields: Fields = {};
  flatten(parseObject(text)!, '', fields);
  return fields;
};

describe('fields of JSON', () => {
  it('keep each digit of numbers that are longer than numbers hold', () => {
    expect(fieldsOf('{"query": 3694949039461716331, "a":[-9223372036854775808], "at":1795564391879123, "n":12.5}')).toEqual({
      query: '3694949039461716331',
      a: '["-9223372036854775808"]',
      at: 1_795_564_391_879_123,
      n: 12.5,
    });
  });
  it('leave what stands in texts as it is', () => {
    const said = 'two: 3694949039461716331, [3694949039461716332] \\" 3694949039461716333';
    expect(fieldsOf(`{"id":3694949039461716330,"said":"${said}","big":1e300}`)).toEqual({
      id: '3694949039461716330',
      said: said.replace('\\"', '"'),
      big: 1e300,
    });
  });
  it('are none of what is no object', () => {
    expect(parseObject('[1]')).toBe(null);
    expect(parseObject('{"a":3694949039461716331')).toBe(null);
  });
});
