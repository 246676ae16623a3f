import { EVERYWHERE } from '../coverage/reach.ts';
import { describe, expect, test } from '@jest/globals';
import { MARK } from '../path/marks.ts';
import { pathOf } from '../path/path.ts';
import type { StrandRecord } from '../path/types.ts';
import { verdictByLeg } from './by-leg.ts';
import type { FlowRules } from './types.ts';

const flow: FlowRules = { name: 'order', label: 'order', kind: 'order', prefix: '', patienceMs: 60_000, expects: [] };
const record = (ms: number, component: string, link: number, marks = 0): StrandRecord => ({
  id: String(ms),
  at: ms * 1000,
  component,
  host: '',
  level: 3,
  marks,
  took: NaN,
  message: `${component} ${ms}`,
  shape: 0,
  traits: '',
  keys: [link],
});
const judge = (records: StrandRecord[]) =>
  verdictByLeg({ records, path: pathOf(records, () => true), flow, evidenceEnd: 1e12, usual: null, reach: EVERYWHERE });
const HOUR = 3_600_000;

describe('a strand of several legs', () => {
  test('shows the gravest of them: a query that fails hours later, by its place in the whole strand', () => {
    const found = judge([record(0, 'web', 1), record(9, 'web', 1, MARK.done), record(HOUR, 'web', 2), record(HOUR + 4, 'desk', 2, MARK.failing)]);
    expect([found.outcome, found.legs]).toEqual(['failed', ['done', 'failed']]);
    expect(found.findings).toHaveLength(1);
    expect(found.findings[0]).toMatchObject({ component: 'desk', record: 3, rank: 1 });
  });
  test('names the record that first failed by its place in the whole strand', () => {
    const found = judge([record(0, 'web', 1), record(5, 'web', 2), record(6, 'web', 2), record(8, 'desk', 1, MARK.failing)]);
    expect(found.outcome).toBe('failed');
    expect(found.findings[0]).toMatchObject({ component: 'desk', record: 3, evidence: [3] });
    expect(found.findings[0]!.sentence.find((part) => part.kind === 'quote')).toMatchObject({ record: 3, text: 'desk 8' });
  });
  test('may come to its end in a later one', () => {
    const found = judge([record(0, 'web', 1), record(HOUR, 'web', 2), record(HOUR + 4, 'web', 2, MARK.done)]);
    expect([found.outcome, found.legs]).toEqual(['done', ['stalled', 'done']]);
  });
});
