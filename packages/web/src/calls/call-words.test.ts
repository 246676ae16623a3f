import { expect, test } from '@jest/globals';
import type { CallSummary } from '@fadenweg/api';
import { calledWords, callText, endWords, wentWords } from './call-words.ts';

const party = (name: string, written = name) => ({ name, written, display: '', device: null });
const CALL: CallSummary = {
  strand: 'call:1',
  flow: null,
  outcome: 'done',
  headline: '',
  startedAt: '2026-11-24T08:00:00.000000Z',
  state: 'ended',
  caller: { ...party('+493023125200'), display: 'Shop' },
  called: party('+493023125100', '030 231-25 100'),
  final: '+493023125140',
  status: 200,
  phrase: 'OK',
  postDialMs: 30,
  ringingMs: 1400,
  setUpMs: 1430,
  talkingMs: 17_000,
  endedBy: 'caller',
  repeated: 0,
  transfers: 0,
};

test('as dialled, where it reads otherwise, and who was reached', () => {
  expect(calledWords(CALL)).toBe('+493023125100 (dialled 030 231-25 100) → +493023125140');
  expect(calledWords({ called: party('140'), final: '140' })).toBe('140');
  expect(calledWords({ called: party('', ''), final: '' })).toBe('unknown');
});
test('how it went', () => {
  expect(wentWords(CALL)).toBe('put through');
  expect(wentWords({ state: 'refused', status: 486, phrase: 'Busy Here' })).toBe('turned away, 486 Busy Here');
  expect(wentWords({ state: 'given-up', status: null, phrase: '' })).toBe('given up');
});
test('who ended it and why', () => {
  expect(endWords({ endedBy: null, state: 'talking', reason: null })).toBe('');
  expect(endWords({ endedBy: 'caller', state: 'given-up', reason: null })).toBe('the caller gave up');
  expect(endWords({ endedBy: 'called', state: 'ended', reason: { protocol: 'Q.850', code: 41, text: '', meaning: 'a fault that passes' } })).toBe('the called side hung up: Q.850 41, a fault that passes'); // prettier-ignore
});
test('a call for a ticket: caller, called, status, times', () => {
  expect(callText({ ...CALL, repeated: 2 })).toBe(
    'Call: from +493023125200 (Shop) to +493023125100 (dialled 030 231-25 100) → +493023125140, put through; first heard after 30 ms, rang for 1.40 s, talked for 17.0 s; 2 messages were sent again',
  );
});
