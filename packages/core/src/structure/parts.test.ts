import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { rootOf } from './flat.ts';
import { partsOfMessage } from './parts.ts';
import { DEEPEST, type TreeNode, type TreePart } from './types.ts';

/** A tree in one line: `name=value(children)`. */
const told = ({ name, value, children }: TreeNode): string =>
  `${name}${value === '' ? '' : `=${value}`}${children.length === 0 ? '' : `(${children.map(told).join(' ')})`}`;
const parts = (message: string): string[] =>
  partsOfMessage(message).map((part) =>
    part.kind === 'json' || part.kind === 'xml'
      ? `${part.kind}: ${told(rootOf(part.tree))}${part.broken ? ` ! ${part.broken.why} at ${part.broken.at}` : ''}`
      : message.slice(part.from, part.to),
  );

describe('what a message is made of', () => {
  test('text alone is text', () => expect(parts('order LX-1 taken, 3 < 4 and [2 of 5]')).toEqual(['order LX-1 taken, 3 < 4 and [2 of 5]']));
  test('JSON behind words', () =>
    expect(parts('got {"order":"LX-1","lenses":[{"sph":-1.5},{"sph":2}],"rush":true,"note":null} from shop')).toEqual([
      'got ',
      'json: (order=LX-1 lenses(0(sph=-1.5) 1(sph=2)) rush=true note=null)',
      ' from shop',
    ]));
  test('XML behind headers, with attributes and CDATA', () =>
    expect(
      parts(
        'HTTP/1.1 200 OK\nContent-Type: text/xml\n\n<?xml version="1.0"?><a:answer xmlns:a="x"><code kind="f">F-204</code><t><![CDATA[a<b]]></t></a:answer>',
      ),
    ).toEqual(['HTTP/1.1 200 OK\nContent-Type: text/xml', '\n\n', 'xml: a:answer(@xmlns:a=x code=F-204(@kind=f) t=a<b)']));
  test('several, each by itself', () => expect(parts('{"a":1,"b":2} then <x><y>1</y></x>')).toEqual(['json: (a=1 b=2)', ' then ', 'xml: x(y=1)']));

  test('broken ones are shown as far as they are understood, with the place', () => {
    const [json] = partsOfMessage('{"a":1,"b":[2,3') as [TreePart];
    expect([told(rootOf(json.tree)), json.broken]).toEqual(['(a=1 b(0=2 1=3))', { at: 15, why: 'close bracket expected' }]);
    const [xml] = partsOfMessage('<a><b>1</b><c>2</a>') as [TreePart];
    expect(told(rootOf(xml.tree))).toMatch(/^a\(b=1 c=2/);
    expect(xml.broken!.why).toMatch(/close tag|unexpected/i);
  });

  test('entities that grow stay what they are, and nothing is nested without end', () => {
    const bomb = '<!DOCTYPE l [<!ENTITY a "ha"><!ENTITY b "&a;&a;&a;&a;">]><l><m>&b;</m></l>';
    const [, xml] = partsOfMessage(bomb).length === 1 ? [null, partsOfMessage(bomb)[0]!] : partsOfMessage(bomb);
    expect(JSON.stringify(xml).length).toBeLessThan(1000);
    const deep = '['.repeat(5000) + '1' + ']'.repeat(5000);
    const [list] = partsOfMessage(deep) as [TreePart];
    let depth = 0;
    for (let node: TreeNode | undefined = rootOf(list.tree); node; node = node.children[0]) depth++;
    expect(depth).toBeLessThanOrEqual(DEEPEST + 1);
  });

  test('all of any message is covered, in order', () =>
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string({ maxLength: 200 }),
          fc.json(),
          fc.tuple(fc.string(), fc.json(), fc.string()).map((all) => all.join(' ')),
        ),
        (message) => {
          let at = 0;
          for (const { from, to } of partsOfMessage(message)) {
            expect(from).toBe(at);
            at = to;
          }
          expect(at).toBe(message.length);
        },
      ),
    ));
});
