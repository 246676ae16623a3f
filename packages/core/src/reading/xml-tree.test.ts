import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { fieldsOf } from './formats/xml-events.ts';
import { xmlTree, xmlTreeOfAny } from './xml-tree.ts';

const name = fc.constantFrom('event', 'log4x:data', 'Level', 'Data', 'b-1');
const words = fc
  .array(fc.constantFrom('order LX-1', ' ', '\n', '&amp;', '&lt;', '&#10;', 'é', ']', '>'), { maxLength: 4 })
  .map((parts) => parts.join(''));
const { element } = fc.letrec<{ element: string }>((tie) => ({
  element: fc
    .tuple(
      name,
      fc.uniqueArray(fc.constantFrom('name', 'x:key', 'value'), { maxLength: 2 }),
      words,
      fc.array(fc.tuple(words, fc.oneof({ maxDepth: 4 }, fc.constant('<![CDATA[a & b]]>'), tie('element')), fc.constantFrom('', '\n  ', ' and ')), {
        maxLength: 3,
      }),
    ) // prettier-ignore
    .map(([own, attributes, value, inner]) => {
      const head = `<${own}${attributes.map((key) => ` ${key}="${value.replace(/\n/g, '')}"`).join('')}`;
      return inner.length === 0 ? `${head}/>` : `${head}>${inner.map((one) => one.join('')).join('')}</${own}>`;
    }),
}));

describe('the tree of an event', () => {
  test('says the same as by a parser that knows all of XML', () => {
    fc.assert(
      fc.property(element, fc.constantFrom('', '\n', '<!-- end -->', ' x', '<a/>'), (text, behind) => {
        const [found, any] = [xmlTree(text + behind), xmlTreeOfAny(text + behind)];
        expect(found && fieldsOf(found)).toEqual(any && fieldsOf(any));
      }),
      { numRuns: 500 },
    );
  });
  test.each([
    ['blanks between elements among text', '<a>one<b/> <c/>two</a>', 'one two'],
    ['carriage returns', '<a>one\r\ntwo</a>', 'one\ntwo'],
    ['names that are not ASCII', '<größe>5</größe>', '5'],
  ])('keeps %s', (_, text, wanted) => expect(xmlTree(text)!.text).toBe(wanted));
  test.each(['<a>', '<a></b>', '<a>&b;</a>', 'text', '<a/><b/>'])('is none of %s', (text) => expect(xmlTree(text)).toBeNull());
});
