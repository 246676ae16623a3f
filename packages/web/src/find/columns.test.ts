import { describe, expect, test } from '@jest/globals';
import type { LogRecord } from '@fadenweg/api';
import fc from 'fast-check';
import { cellOf, columnsOf, columnsText, titlesOf, gridOf, moved, USUAL_COLUMNS } from './columns.ts';

const RECORD = {
  component: 'labdb',
  level: 'error',
  message: 'm',
  tookMs: 8007,
  copies: [],
  flow: 'lens-order',
  outcome: null,
  source: { path: 'labdb/a.csv' },
  attributes: { 'order.number': 'LX-1', rows: 0 },
  identifiers: [{ kind: 'trace', value: 'a1', role: 'link' }],
} as unknown as LogRecord;

describe('columns', () => {
  test('stand in the address and come back', () => {
    const list = fc.uniqueArray(
      fc.record({
        field: fc.string({ minLength: 1, maxLength: 20 }).filter((text) => !/[\ud800-\udfff]/.test(text)),
        width: fc.constantFrom(0, 24, 300),
      }),
      { minLength: 1, maxLength: 10, selector: (one) => one.field },
    );
    fc.assert(fc.property(list, (columns) => expect(columnsOf(columnsText(columns))).toEqual(columns)));
  });
  test('whatever stands in the address, some columns come of it', () => {
    expect(columnsOf('')).toEqual(USUAL_COLUMNS);
    expect(columnsOf('a:5,a:9,%E0%A4%A,b:-3,c:99999')).toEqual([{ field: 'a', width: 24 }, { field: 'b', width: 0 }, { field: 'c', width: 1200 }]); // prettier-ignore
  });
  test('one without a width takes the room that is left', () => {
    expect(gridOf(columnsOf('level:24,message'))).toBe('24px minmax(0, 1fr)');
    expect(gridOf(columnsOf('level:24'))).toBe('24px 1fr');
  });
  test.each([
    ['component', 'labdb'],
    ['took', '8.01 s'],
    ['number', 'LX-1'],
    ['rows', '0'],
    ['trace', 'a1'],
    ['flow', 'lens-order'],
    ['outcome', ''],
    ['source', 'labdb/a.csv'],
    ['nowhere', ''],
  ])('%s shows “%s”', (field, text) => expect(cellOf(RECORD, field)).toBe(text));
  test('are moved', () => expect([moved(['a', 'b', 'c'], 0, 2), moved(['a', 'b', 'c'], 2, 0)]).toEqual([['b', 'c', 'a'], ['c', 'a', 'b']])); // prettier-ignore
});

describe('titles of columns', () => {
  test('are the last parts of names, as many as tell them apart', () => {
    const fields = ['component', 'http.route', 'resource.service.name', 'scope.name', 'peer.service.name', 'name'];
    expect(Object.fromEntries(titlesOf(fields))).toEqual({
      component: 'component',
      'http.route': 'route',
      'resource.service.name': 'resource.service.name',
      'scope.name': 'scope.name',
      'peer.service.name': 'peer.service.name',
      name: 'name',
    });
    expect(new Set(titlesOf(fields).values()).size).toBe(fields.length);
  });
});
