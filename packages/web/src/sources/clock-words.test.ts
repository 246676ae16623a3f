import { describe, expect, test } from '@jest/globals';
import type { HostClock } from '@fadenweg/api';
import { aheadWords, driftWords, nameOf, signed, withinWords } from './clock-words.ts';

const stretch = { from: '2026-11-24T00:00:00.000000Z', to: '2026-11-24T12:00:00.000000Z', aheadMs: 2900.5, driftMsPerHour: 0, withinMs: 3.5 };
const clock = (more: Partial<HostClock>): HostClock => ({
  id: 1,
  host: 'cell-2',
  component: '',
  state: 'corrected',
  stretches: [stretch],
  found: [stretch],
  evidence: [],
  hops: 40,
  partners: [],
  setAheadMs: null,
  changedBy: 'found',
  changedAt: '2026-11-24T12:00:00Z',
  ...more,
});

describe('a clock in words', () => {
  test('tells how far it is ahead or behind, how surely, and what it gains', () => {
    expect([aheadWords(clock({})), withinWords(clock({})), driftWords(clock({}))]).toEqual(['2.90 s', '3.5 ms', '']);
    const behind = clock({ stretches: [stretch, { ...stretch, aheadMs: -40, driftMsPerHour: -7.25 }] });
    expect([aheadWords(behind), driftWords(behind)]).toEqual(['−40 ms', '−7.3 ms an hour']);
  });
  test('says nothing where nothing is known', () => {
    const unknown = clock({ state: 'unbounded', stretches: [] });
    expect([aheadWords(unknown), withinWords(unknown), driftWords(unknown)]).toEqual(['', '', '']);
  });
  test('gives no uncertainty for what was set by hand, and 0 for one that is right', () => {
    expect(withinWords(clock({ state: 'set' }))).toBe('');
    expect(aheadWords(clock({ state: 'right', stretches: [{ ...stretch, aheadMs: 0 }] }))).toBe('0');
    expect(signed(0)).toBe('0');
  });
  test('is named by its host, else by its component', () => {
    expect([nameOf(clock({})), nameOf(clock({ host: '', component: 'pay' }))]).toEqual(['cell-2', 'pay']);
  });
});
