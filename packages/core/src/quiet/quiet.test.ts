import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { compileSearch, type Searchable } from '../search/language/evaluate.ts';
import { LONGEST_SEARCH, parseSearch } from '../search/language/parse.ts';
import { searchable } from '../search/language/testing/searchable.ts';
import { recurring, searchOfRecurring, type Recurring } from './recurrence.ts';
import { compileRules, SUPPLIED_RULES } from './rules.ts';

const RECORD = searchable({ level: 3, component: 'edge' });
const hides = compileRules(SUPPLIED_RULES);
const hiddenBy = (more: Partial<Searchable>): string | undefined => SUPPLIED_RULES[hides({ ...RECORD, ...more })]?.name;
const S = 1_000_000;

describe('supplied quiet rules', () => {
  test.each([
    [{ fields: { path: '/health' } }, 'health-checks'],
    [{ fields: { path: '/api/readyz?full=1' } }, 'health-checks'],
    [{ fields: { 'http.target': '/livez' } }, 'health-checks'],
    [{ fields: { url: 'https://shop.example/ping' } }, 'health-checks'],
    [{ fields: { path: '/health' }, level: 5 as const }, undefined],
    [{ fields: { path: '/healthy-food' } }, undefined],
    [{ fields: { path: '/orders/ping-1' } }, undefined],
    [{ fields: { cseq: '18 REGISTER' } }, 'registrations'],
    [{ fields: { cseq: '1 MESSAGE', dialog: '9@b.example' } }, 'texts'],
    [{ fields: { cseq: '7 OPTIONS', dialog: '9@b.example' } }, 'keep-alive'],
    [{ fields: { cseq: '2 NOTIFY', dialog: '9@b.example' } }, 'presence'],
    [{ fields: { cseq: '18 REGISTER' }, level: 4 as const }, undefined],
    [{ fields: { cseq: '2 NOTIFY', 'call-id': '9@b.example' } }, undefined],
    [{ fields: { cseq: '1 INVITE' } }, undefined],
    [{ level: 2 as const }, 'debug'],
  ])('%j is hidden by %s', (more, name) => expect(hiddenBy(more)).toBe(name));
});

describe('what recurs', () => {
  const every = (period: number, count: number, jitter: (i: number) => number = () => 0): number[] =>
    Array.from({ length: count }, (_, i) => i * period + jitter(i));
  const period = (times: number[]): number | undefined => recurring([{ component: 'a', shape: 's', times }])[0]?.period;

  test('is found with some jitter, with a pause, and with several lines to a beat', () => {
    expect(period(every(30 * S, 40, (i) => (i % 5) * 0.3 * S))).toBeGreaterThan(29 * S);
    expect(period([...every(30 * S, 20), ...every(30 * S, 20).map((time) => time + 3000 * S)])).toBe(30 * S);
    expect(period(every(60 * S, 20).flatMap((time) => [time, time + 0.2 * S, time + 1.5 * S]))).toBeCloseTo(60 * S, -6);
  });
  test('is not what is rare, as fast as work, or as work falls', () => {
    expect(period(every(30 * S, 11))).toBeUndefined();
    expect(period(every(S / 2, 100))).toBeUndefined();
    let seed = 7;
    const chance = (): number => (seed = (seed * 16807) % 2147483647) / 2147483647;
    let at = 0;
    expect(period(Array.from({ length: 200 }, () => (at += -Math.log(chance()) * 30 * S)))).toBeUndefined();
  });
  test('as a search finds just these', () => {
    const found: Recurring[] = [{ component: 'relay', shape: "it's alive ‹›", period: 1, count: 3 }, { component: 'edge', shape: 'beat', period: 1, count: 9 }]; // prettier-ignore
    const test = compileSearch(parseSearch(searchOfRecurring(found, LONGEST_SEARCH)).search!);
    expect(test({ ...RECORD, component: 'relay', shape: "it's alive ‹›" })).toBe(true);
    expect(test({ ...RECORD, component: 'edge', shape: 'beat' })).toBe(true);
    expect(test({ ...RECORD, component: 'relay', shape: 'beat' })).toBe(false);
    expect(test({ ...RECORD, component: 'edge', shape: 'beat', level: 5 })).toBe(false);
    expect(searchOfRecurring([], LONGEST_SEARCH)).toBe('');
  });
  test('is a search that can be read, whatever the shapes are', () => {
    const one = fc.record({ component: fc.string({ minLength: 1 }), shape: fc.string(), period: fc.constant(1), count: fc.nat() });
    fc.assert(
      fc.property(fc.array(one, { maxLength: 60 }), (found) => {
        const q = searchOfRecurring(found, 600);
        expect(q.length).toBeLessThanOrEqual(600);
        if (q !== '') expect(parseSearch(q).problem).toBeNull();
      }),
    );
  });
});
