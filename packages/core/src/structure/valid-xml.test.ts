import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { rootOf, type FlatTree } from './flat.ts';
import type { TreeNode } from './types.ts';
import { validXml } from './valid-xml.ts';
import { partsOfAny } from './xml.ts';

const name = fc.constantFrom('order', 'a', 'x:y', '_b-1', 'Lens.Left');
const words = fc.array(fc.constantFrom('text', ' ', '\n', '&amp;', '&lt;', '&#65;', '&#x1F441;', '𝄞', 'é', '"', "'", '>', ']', '\t'), { maxLength: 6 }).map((parts) => parts.join('')); // prettier-ignore
const attributes = fc.uniqueArray(fc.tuple(name, words.map((text) => text.replace(/["\n\t]/g, ''))), { selector: ([own]) => own, maxLength: 3 }); // prettier-ignore
const aside = fc.constantFrom('', '', '<!-- a < b & c -->', '<?keep it?>', '<![CDATA[ 1 < 2 && ]]>', '<![CDATA[]]>');
const { element } = fc.letrec<{ element: string }>((tie) => ({
  element: fc
    .tuple(name, attributes, fc.array(fc.tuple(words, aside, fc.oneof({ maxDepth: 4 }, fc.constant(''), tie('element'))), { maxLength: 4 }))
    .map(([own, pairs, inner]) => {
      const head = `<${own}${pairs.map(([key, value]) => ` ${key}="${value}"`).join('')}`;
      return inner.length === 0 ? `${head}/>` : `${head}>${inner.map((one) => one.join('')).join('')}</${own}>`;
    }),
}));
const whole = fc.tuple(fc.constantFrom('', '<?xml version="1.0"?>\n', '<!-- first -->'), element, fc.constantFrom('', ' and more <', '</b>')).map((parts) => parts.join('')); // prettier-ignore

const plain = ({ name, kind, value, children }: TreeNode): unknown => ({ name, kind, value, children: children.map(plain) });
/** What was found, with its tree as plain objects. */
const told = (found: { tree: FlatTree; nodes: number; end: number } | null): unknown =>
  found && { nodes: found.nodes, end: found.end, tree: plain(rootOf(found.tree)) };

describe('plain well-formed XML', () => {
  test('is read as the parser reads it that goes on behind errors', () => {
    fc.assert(
      fc.property(whole, (text) => {
        const found = validXml(text);
        const any = partsOfAny(text, 0);
        expect(told(found)).toEqual(any!.broken ? null : told(any));
      }),
      { numRuns: 300 },
    );
  });
  test('is not made of what is broken: where something is left out, added or changed, both agree or it is left to the other one', () => {
    fc.assert(
      fc.property(whole, fc.nat(), fc.constantFrom('', '<', '>', '&', '"', '/', ']]>', '--', 'x', '\0', '=', ' '), (text, at, put) => {
        const i = at % text.length;
        const broken = text.slice(0, i) + put + text.slice(i + (put === 'x' ? 0 : 1));
        const found = validXml(broken);
        const any = partsOfAny(broken, 0);
        if (found) expect([told(found), any!.broken]).toEqual([told(any), null]);
      }),
      { numRuns: 500 },
    );
  });
  test.each([
    ['a DTD', '<!DOCTYPE a [<!ENTITY b "c">]><a>&b;</a>'],
    ['an unknown entity', '<a>&nbsp;</a>'],
    ['a name twice', '<a b="1" b="2"/>'],
    ['carriage returns', '<a>1\r\n2</a>'],
    ['a tag that is not closed', '<a><b></a>'],
    ['an end alone', '</a>'],
    ['what is nested too deep', `${'<a>'.repeat(150)}${'</a>'.repeat(150)}`],
    ['nothing', ''],
  ])('is not %s', (_, text) => expect(validXml(text)).toBeNull());
});
