import { describe, expect, test } from '@jest/globals';
import { said } from '../usual/testing/legs.ts';
import { withOwnEnd } from './own-end.ts';
import type { FlowRules, Verdict } from './types.ts';
import type { Outcome } from '../path/types.ts';

const stalled = { outcome: 'stalled', legs: ['stalled'], findings: [{ kind: 'stopped-before' }, { kind: 'slowed-by' }] } as unknown as Verdict & {
  legs: Outcome[];
};
const run = (last: string, ...behind: string[]) => [said(0, 'runner', 'begins'), said(5, 'partner', '>> upload'), said(9, 'runner', last), ...behind.map((component, i) => said(10 + i, component, '<< answer'))]; // prettier-ignore
const outcome = (last: string, ...behind: string[]): string => withOwnEnd(stalled, run(last, ...behind), null).outcome;

describe('a strand of which nothing usual is known', () => {
  test.each([
    'end status=SUCCESS seconds=12.8',
    'Ended with exit code 0',
    '{"result":"ok"}',
    'Job fertig, Ergebnis: erfolgreich',
    'rc=0',
    'ended ok',
  ])('has ended well where its first speaker says so: %s', (words) => {
    expect(outcome(words)).toBe('done');
    // a late word of who was heard before is no more work
    expect(outcome(words, 'partner')).toBe('done');
    expect(withOwnEnd(stalled, run(words), null).findings.map((one) => one.kind)).toEqual(['slowed-by']);
  });
  test.each(['upload begin', 'end status=FAILED', 'exit code 01', 'rc=0.5', 'not_ok', 'status=200', 'result=okay-ish'])(
    'has not where it says anything else: %s',
    (words) => expect(outcome(words)).toBe('stalled'),
  );
  test('has not where somebody is heard behind it who was not heard before', () => {
    expect(outcome('end status=SUCCESS', 'archive')).toBe('stalled');
  });
  test('of one that only its first speaker’s first words tell of nothing is known, and what is graver stays', () => {
    expect(withOwnEnd(stalled, [said(0, 'runner', 'status=ok'), said(5, 'partner', '>> upload')], null).outcome).toBe('stalled');
    expect(withOwnEnd({ ...stalled, outcome: 'failed' }, run('status=ok'), null).outcome).toBe('failed');
  });
  test('has not where a step is declared to follow, nor with several legs; the leg is as the strand', () => {
    const flow = { must: [{ component: 'archive', words: 'stored', withinMs: null }] } as unknown as FlowRules;
    expect(withOwnEnd(stalled, run('status=ok'), flow).outcome).toBe('stalled');
    expect(withOwnEnd({ ...stalled, legs: ['done', 'stalled'] }, run('status=ok'), null).outcome).toBe('stalled');
    expect(withOwnEnd(stalled, run('status=ok'), { ...flow, must: [] }).legs).toEqual(['done']);
  });
});
