import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { versionSpans } from './version-spans.ts';

const change = (at: number, after: string, more: object = {}) => ({
  kind: 'version' as const,
  at,
  component: 'desk',
  host: 'h1',
  before: '',
  after,
  ...more,
});

test('a version is in force until the next of its host; the one before is known where the first change says it', () => {
  const changes = [
    change(5, '9', { component: 'relay' }),
    change(10, '2.1', { before: '2.0' }),
    change(20, '2.2'),
    change(30, '2.2', { kind: 'restart' }),
    change(40, '2.1', { host: 'h2' }),
    change(50, '12', { kind: 'setting' }),
  ];
  expect(versionSpans(changes, 'desk')).toEqual([
    { version: '2.0', host: 'h1', from: -Infinity, to: 10 },
    { version: '2.1', host: 'h1', from: 10, to: 20 },
    { version: '2.2', host: 'h1', from: 20, to: Infinity },
    { version: '2.1', host: 'h2', from: 40, to: Infinity },
  ]);
});

test('spans of one host follow upon each other without a gap', () => {
  const any = fc.record({ at: fc.integer({ min: 0, max: 100 }), after: fc.constantFrom('1', '2', '3', '') });
  fc.assert(
    fc.property(fc.array(any), (list) => {
      const spans = versionSpans(list.sort((a, b) => a.at - b.at).map(({ at, after }) => change(at, after)), 'desk'); // prettier-ignore
      for (const [i, one] of spans.entries()) expect(one.to).toBe(spans[i + 1]?.from ?? Infinity);
    }),
  );
});
