import { expect, test } from '@jest/globals';
import { readFile } from 'node:fs/promises';
// @ts-expect-error a plain script without types
import { parserFile, parserSource } from '../../../tools/grammar.mjs';

test('the parser of the search language is the one that its grammar makes: else run `npm run grammar`', async () => {
  const made = await (parserSource as () => Promise<string>)();
  expect((await readFile(parserFile as URL, 'utf8')) === made).toBe(true);
});
