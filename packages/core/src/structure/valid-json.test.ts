import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { rootOf } from './flat.ts';
import { jsonTree } from './json.ts';
import type { TreeNode } from './types.ts';
import { validJsonTree } from './valid-json.ts';

/** What a tree stands for, read back. */
function valueOf({ kind, value, children }: TreeNode): unknown {
  switch (kind) {
    case 'object':
      return Object.fromEntries(children.map((child) => [child.name, valueOf(child)]));
    case 'list':
      return children.map(valueOf);
    case 'text':
      return value;
    default:
      return JSON.parse(value) as unknown;
  }
}
const plain = (value: unknown): unknown => JSON.parse(JSON.stringify(value));

describe('valid JSON as a tree', () => {
  test('is what it stands for, however it is laid out', () => {
    fc.assert(
      fc.property(fc.jsonValue({ maxDepth: 5 }), fc.constantFrom(undefined, 2, '\t'), (value, indent) => {
        const found = validJsonTree(JSON.stringify(value, null, indent))!;
        expect(plain(valueOf(rootOf(found.tree)))).toEqual(plain(value));
      }),
    );
  });
  test('keeps numbers as they are written, and names that occur twice', () => {
    const root = rootOf(validJsonTree('{"a": 1.50, "a": 9007199254740993, "b": -0e+7}')!.tree);
    expect(root.children.map(({ name, value }) => [name, value])).toEqual([['a', '1.50'], ['a', '9007199254740993'], ['b', '-0e+7']]); // prettier-ignore
  });
  test.each(['', '{', '[1,]', '{"a" 1}', '{a:1}', '[1 2]', '"\\x"', '"a\nb"', '01', '-', '1.', '.5', '1e', '1e+', '-.5', '1.e5', '1 2', 'nul', '[1}', '{"a":1'])('is not %j', (text) => expect(validJsonTree(text)).toBeNull()); // prettier-ignore
  test('of any text agrees with the parser that goes on behind errors', () => {
    fc.assert(
      fc.property(
        fc.oneof(
          fc.json(),
          fc.string(),
          fc.json().map((text) => text.slice(1)),
          fc.json().map((text) => `${text},`),
        ),
        (text) => {
          let valid = true;
          try {
            JSON.parse(text);
          } catch {
            valid = false;
          }
          expect(validJsonTree(text) !== null).toBe(valid);
          if (valid) expect(jsonTree(text, 0)!.broken).toBeNull();
        },
      ),
    );
  });
  test('tells where it is cut, and nests no deeper than the view', () => {
    const many = validJsonTree(`[${'1,'.repeat(250_000)}1]`)!;
    expect([many.cut, many.nodes, rootOf(many.tree).children.length]).toEqual([true, 200_000, 199_999]);
    const inside = validJsonTree(`{"a":[${'[0,1],'.repeat(99_999)}[]]}`)!;
    expect([inside.cut, rootOf(inside.tree).children[0]!.children.length]).toEqual([true, 66_666]);
    expect(inside.tree.cells).toHaveLength(200_000 * 6);
    let depth = 0;
    for (let node: TreeNode | undefined = rootOf(validJsonTree('['.repeat(400) + ']'.repeat(400))!.tree); node; node = node.children[0]) depth++;
    expect(depth).toBeLessThanOrEqual(102);
    expect(validJsonTree('['.repeat(5000) + ']'.repeat(5000))).toBeNull();
  });
});
