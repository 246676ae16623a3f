import { expect, test } from '@jest/globals';
import { jsonOf } from './json-of.ts';

const file = (text: string): File => ({ name: 'codes.json', text: async () => text }) as unknown as File;

test('a file of JSON is what it holds; what is none is told with its name, and that nothing was changed', async () => {
  expect(await jsonOf(file('[{"code":"A"}]'))).toEqual([{ code: 'A' }]);
  await expect(jsonOf(file('code;title\n'))).rejects.toThrow(/^codes\.json is no JSON: .* Nothing was changed\.$/s);
});
