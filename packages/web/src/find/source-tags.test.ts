import { expect, test } from '@jest/globals';
import { sourceTags } from './source-tags.ts';

test('each source has a letter of its own, and neighbours differ in shade', () => {
  const tags = [...sourceTags(Array.from({ length: 800 }, (_, id) => ({ id, path: `p${id}` }))).values()];
  expect(tags.slice(0, 2)).toEqual([{ letter: 'A', shade: 0, path: 'p0' }, { letter: 'B', shade: 1, path: 'p1' }]); // prettier-ignore
  expect([tags[25]!.letter, tags[26]!.letter, tags[701]!.letter, tags[702]!.letter]).toEqual(['Z', 'AA', 'ZZ', 'AAA']);
  expect(new Set(tags.map((tag) => tag.letter)).size).toBe(800);
  tags.forEach((tag, i) => i > 0 && expect(tag.shade).not.toBe(tags[i - 1]!.shade));
});
