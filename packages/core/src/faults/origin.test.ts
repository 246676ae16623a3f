import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { shapeHash } from '../shapes/index.ts';
import { faultOrigin } from './origin.ts';

const record = (message: string, component = 'lens-calc', traits = '') => ({ message, component, shape: shapeHash(message), traits });
const trace = (order: string, line: number, more = ''): string =>
  [
    `surface of ${order} failed`,
    'java.lang.IllegalStateException: cannot place',
    `\tat works.lens.Surface.place(Surface.java:${line + 40})`,
    `\tat works.lens.Job$$Lambda$${line}/0x00007f${line}ab.run(Unknown Source)`,
    '\tat java.base/java.lang.Thread.run(Thread.java:840)',
    `Caused by: works.lens.PrismOffGridException: prism ${line}.00 leaves the grid`,
    `\tat works.lens.Rings.shift(Rings.java:${line})`,
    `\tat works.lens.Rings.turn(Rings.java:${line + 3})`,
    `\tat works.lens.Surface.place(Surface.java:${line + 38})`,
    '\t... 2 more',
    more,
  ].join('\n');

test('line numbers, values, generated names and what is left out make no other origin', () => {
  const one = faultOrigin(record(trace('LX-100', 37)));
  expect(one).toMatchObject({
    types: ['IllegalStateException', 'PrismOffGridException'],
    calls: ['Rings.shift', 'Rings.turn'],
    shape: 0,
  });
  expect(faultOrigin(record(trace('LX-2048', 41))).key).toBe(one.key);
});

test('another cause, another call, another component is another origin', () => {
  const keys = [
    trace('LX-1', 37),
    trace('LX-1', 37).replace('PrismOffGrid', 'PrismMissing'),
    trace('LX-1', 37).replace('Rings.shift', 'Rings.widen'),
  ].map((text) => faultOrigin(record(text)).key);
  expect(new Set([...keys, faultOrigin(record(trace('LX-1', 37), 'order-desk')).key]).size).toBe(4);
});

test('without a trace it is what is said, by whom, with the values that tell results apart', () => {
  const said = faultOrigin(record('no blank for LX-100 in rack 7'));
  expect(said).toMatchObject({ types: [], calls: [], shape: shapeHash('no blank for LX-100 in rack 7') });
  expect(faultOrigin(record('no blank for LX-2048 in rack 12')).key).toBe(said.key);
  expect(faultOrigin(record('no blank for LX-100 in rack 7', 'relay')).key).not.toBe(said.key);
  expect(faultOrigin(record('no blank for LX-100 in rack 7', 'lens-calc', 'status=503')).key).not.toBe(said.key);
});

test('one that calls itself thousands of times ends, and tells one call', () => {
  const deep = `walk of LX-1 broke off\njava.lang.StackOverflowError\n${'\tat works.lens.Tree.walk(Tree.java:12)\n'.repeat(2000)}`;
  expect(faultOrigin(record(deep))).toMatchObject({ types: ['StackOverflowError'], calls: ['Tree.walk'] });
});

test('any text has an origin, always the same', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'binary', maxLength: 300 }), (message) => {
      const one = faultOrigin(record(message));
      expect(Number.isSafeInteger(one.key)).toBe(true);
      expect(faultOrigin(record(message))).toEqual(one);
    }),
  );
});
