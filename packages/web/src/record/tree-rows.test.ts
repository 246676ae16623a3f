import { expect, test } from '@jest/globals';
import { partsOfMessage, rootOf, type TreeNode } from '@fadenweg/core/structure';
import { foldedAtFirst, treeRows } from './tree-rows.ts';

const treeOf = (text: string): TreeNode => {
  const [part] = partsOfMessage(text);
  if (part?.kind !== 'json' && part?.kind !== 'xml') throw new Error('no tree');
  return rootOf(part.tree);
};
const paths = (text: string, folded: string[] = [], wanted = ''): string[] => treeRows(treeOf(text), new Set(folded), wanted).map((row) => row.path);
const JSON_TEXT = '{"order":"LX-1","lenses":[{"sph":-1.5},{"sph":2}],"odd key":1}';
const XML_TEXT = '<answer kind="x"><code>F-1</code><code>F-2</code></answer>';

test('each node has its path, as JSONPath and XPath write it', () => {
  expect(paths(JSON_TEXT)).toEqual(['$', '$.order', '$.lenses', '$.lenses[0]', '$.lenses[0].sph', '$.lenses[1]', '$.lenses[1].sph', '$["odd key"]']);
  expect(paths(XML_TEXT)).toEqual(['/answer', '/answer/@kind', '/answer/code[1]', '/answer/code[2]']);
});
test('what is folded does not show, what is looked for does with what it stands in', () => {
  expect(paths(JSON_TEXT, ['$.lenses'])).toEqual(['$', '$.order', '$.lenses', '$["odd key"]']);
  expect(paths(JSON_TEXT, ['$.lenses'], 'SPH')).toEqual(['$', '$.lenses', '$.lenses[0]', '$.lenses[0].sph', '$.lenses[1]', '$.lenses[1].sph']);
  expect(paths(XML_TEXT, [], 'f-2')).toEqual(['/answer', '/answer/code[2]']);
  expect(paths(XML_TEXT, [], 'nowhere')).toEqual([]);
});
test('a large tree begins folded', () => {
  const large = treeOf(JSON.stringify({ list: Array.from({ length: 500 }, (_, i) => ({ i })) }));
  expect([...foldedAtFirst(large)]).toEqual(['$.list']);
  expect([...foldedAtFirst(treeOf(JSON_TEXT))]).toEqual([]);
});
