import { describe, expect, test } from '@jest/globals';
import type { LogRecord } from '@fadenweg/api';
import fc from 'fast-check';
import { PageStore, type FetchedPage, type Line } from './page-store.ts';

const record = (id: number): LogRecord => ({ id: `${id}-1` }) as LogRecord;
const page = (from: number, hidden: number[], hiddenAfter = 0): FetchedPage => ({
  after: from === 0 ? null : `${from - 1}-1`,
  items: hidden.map((_, i) => record(from + i)),
  hidden,
  hiddenAfter,
});
const brief = (line: Line | undefined): string =>
  line === undefined ? '' : line.type === 'record' ? line.record.id : line.type === 'hidden' ? `${line.count} after ${line.after}` : '…';
const all = (store: PageStore): string[] => Array.from({ length: store.length }, (_, i) => brief(store.at(i)));

describe('the lines of a long list', () => {
  test('what is hidden stands at its place, also over the border of two pages and at the end', () => {
    const store = new PageStore();
    store.append(page(0, [2, 0], 3), false);
    store.append(page(2, [4], 1), true);
    expect(all(store)).toEqual(['2 after ', '0-1', '1-1', '7 after 1-1', '2-1', '1 after 2-1']);
    expect(store.indexOf('2-1')).toBe(4);
    expect(store.recordBefore(4)?.id).toBe('1-1');
    expect(store.recordBefore(1)).toBeNull();
  });
  test('a page without records hands what it hides on', () => {
    const store = new PageStore();
    store.append(page(0, [0], 1), false);
    store.append({ after: '9-9', items: [], hidden: [], hiddenAfter: 5 }, false);
    store.append(page(1, [2]), true);
    expect(all(store)).toEqual(['0-1', '8 after 0-1', '1-1']);
  });
  test('what was hidden can be put in its place', () => {
    const store = new PageStore();
    store.append(page(0, [0, 2], 0), false);
    store.append(page(2, [0]), true);
    store.replace(1, [{ type: 'record', record: record(50), quiet: true }, { type: 'record', record: record(51), quiet: true }]); // prettier-ignore
    expect(all(store)).toEqual(['0-1', '50-1', '51-1', '1-1', '2-1']);
    store.forget(4, 4, 0);
    expect(all(store)[1]).toBe('50-1');
  });
  test('pages let go of come back as they were', () => {
    fc.assert(
      fc.property(fc.array(fc.array(fc.nat(2), { maxLength: 6 }), { minLength: 1, maxLength: 12 }), fc.nat(60), fc.nat(4), (lists, place, after) => {
        const store = new PageStore();
        let from = 0;
        const pages = lists.map((hidden) => {
          const one = page(from, hidden, after);
          from += hidden.length;
          return one;
        });
        pages.forEach((one, i) => store.append(one, i === pages.length - 1));
        const before = all(store);
        store.forget(place, place + 3, 2);
        for (let gone = store.missing(0, store.length); gone; gone = store.missing(0, store.length)) store.restore(gone.page, pages[gone.page]!);
        expect(all(store)).toEqual(before);
        expect(before.filter((one) => one.endsWith('-1') && !one.includes(' '))).toHaveLength(from);
      }),
    );
  });
});
