import { describe, expect, it } from '@jest/globals';
import type { LogRecord } from '@fadenweg/api';
import { LiveStore } from './live-store.ts';

const record = (number: number): LogRecord => ({ id: `${number}-1`, at: `2026-04-01T00:00:00.${String(number).padStart(6, '0')}Z` }) as LogRecord;
const many = (from: number, count: number): LogRecord[] => Array.from({ length: count }, (_, i) => record(from + i));

describe('the lines of a live list', () => {
  it('stand in the order in which they came, each once', () => {
    const store = new LiveStore();
    store.add([record(2), record(1)], false);
    store.add([record(1), record(3)], false);
    expect(Array.from({ length: store.length }, (_, i) => store.recordBefore(i + 1)?.id)).toEqual(['2-1', '1-1', '3-1']);
    expect([store.indexOf('3-1'), store.indexOf('9-1')]).toEqual([2, -1]);
    expect(store.last?.id).toBe('3-1');
  });
  it('keep the latest, and all while one reads further up', () => {
    const store = new LiveStore();
    store.add(many(0, 6000), true);
    expect(store.length).toBe(6000);
    store.add(many(6000, 1), false);
    expect([store.length, store.gone, store.indexOf('0-1'), store.indexOf('6000-1')]).toEqual([5000, 1001, -1, 4999]);
    store.add([record(0)], false);
    expect(store.last?.id).toBe('0-1');
  });
  it('have notes between them', () => {
    const store = new LiveStore();
    store.add([record(1)], false);
    store.note('marked', '2026-04-01T00:00:01Z');
    expect(store.at(1)).toEqual({ type: 'note', text: 'marked', at: '2026-04-01T00:00:01Z' });
    expect(store.recordBefore(2)?.id).toBe('1-1');
  });
});
