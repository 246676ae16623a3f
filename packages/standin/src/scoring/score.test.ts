import { expect, test } from '@jest/globals';
import type { Truth } from '../writing/sink.ts';
import { f1, Scoring, type Told } from './score.ts';

const truth = (businessId: string, more: Partial<Truth> = {}): Truth => ({
  flow: 'lens-order',
  businessId,
  identifiers: [{ kind: 'order', value: businessId }, { kind: 'trace', value: `t-${businessId}` }], // prettier-ignore
  startedAt: 0,
  outcome: 'done',
  story: null,
  cause: null,
  attributes: {},
  records: [{ source: 'a.log', line: 1 }, { source: 'a.log', line: 4 }], // prettier-ignore
  spans: { edge: { from: 0, to: 500_000 }, relay: { from: 100_000, to: 200_000 } },
  ...more,
});
const told = (businessId: string, more: Partial<Told> = {}): Told => ({
  businessId,
  kind: 'order',
  outcome: 'done',
  identifiers: [{ kind: 'order', value: businessId, role: 'business' }, { kind: 'trace', value: `t-${businessId}`, role: 'link' }, { kind: 'shop', value: '7', role: 'shared' }], // prettier-ignore
  findings: [],
  recordsAt: [{ source: 'logs/a.log', line: 1 }, { source: 'logs/a.log', line: 4 }], // prettier-ignore
  ...more,
});

test('what is right is right', () => {
  const scoring = new Scoring([truth('LX-1')]);
  scoring.add(told('LX-1'));
  scoring.end();
  const score = scoring.byFlow.get('lens-order')!;
  expect(score).toMatchObject({
    strands: 1,
    found: 1,
    outcomes: 1,
    records: { right: 2, wrong: 0, missing: 0 },
    identifiers: { right: 2, wrong: 0, missing: 0 },
  });
  expect([f1(score.records), scoring.worst(5), scoring.invented]).toEqual([1, [], []]);
});
test('what is wrong, missing, not found or never was is told', () => {
  const cause = { failedIn: 'blank-store', component: 'labdb', record: { source: 'a.log', line: 4 }, accepted: ['relay'] };
  const scoring = new Scoring([
    truth('LX-1', { story: 1, outcome: 'failed', cause }),
    truth('LX-2', { story: 1, outcome: 'failed', cause }),
    truth('LX-3'),
  ]);
  const finding = { failedIn: 'blank-store', component: 'relay', record: { source: 'logs/a.log', line: 4 }, confidence: 0.93 };
  scoring.add(told('LX-1', { outcome: 'failed', findings: [finding], recordsAt: [{ source: 'a.log', line: 1 }, { source: 'a.log', line: 9 }] })); // prettier-ignore
  scoring.add(told('LX-2', { findings: [{ ...finding, component: 'edge', record: { source: 'a.log', line: 1 } }] }));
  scoring.add(told('LX-9'));
  scoring.add(told('SS-1', { kind: 'run' }));
  scoring.end();
  expect(scoring.byKind.get('story 1')).toMatchObject({
    strands: 2,
    outcomes: 1,
    causes: { all: 2, failedIn: 2, component: 1, record: 1, amongThree: 1 },
    sure: new Map([[9, { findings: 2, said: 1.86, right: 1 }]]),
    records: { right: 3, wrong: 1, missing: 1 },
  });
  expect(scoring.byFlow.get('lens-order')).toMatchObject({ strands: 3, found: 2, records: { right: 3, wrong: 1, missing: 3 } });
  expect(scoring.byFlow.get('lens-order')!.good).toEqual({ all: 0, blamed: 0 });
  expect(scoring.invented).toEqual(['LX-9']);
  expect(scoring.worst(9).map((one) => [one.businessId, one.why])).toEqual([
    ['LX-3', 'not found; records 0 right, 0 wrong, 2 missing; nothing instead of done'],
    ['LX-1', 'records 1 right, 1 wrong, 1 missing'],
    ['LX-2', 'done instead of failed; cause in edge instead of labdb'],
  ]);
});
test('good strands that are told to be faulty are counted', () => {
  const scoring = new Scoring([truth('LX-1'), truth('LX-2'), truth('LX-3', { outcome: 'failed' })]);
  for (const [id, outcome] of [['LX-1', 'done'], ['LX-2', 'slow'], ['LX-3', 'slow']]) scoring.add(told(id!, { outcome: outcome! })); // prettier-ignore
  expect(scoring.byFlow.get('lens-order')!.good).toEqual({ all: 2, blamed: 1 });
});
test('nothing to find and nothing found is whole', () => expect(f1({ right: 0, wrong: 0, missing: 0 })).toBe(1));

test('order and times of what components did are compared', () => {
  const at = (ms: number): string => `1970-01-01T00:00:00.${String(ms).padStart(3, '0')}000Z`;
  const step = (component: string, from: number, to: number) => ({ component, startedAt: at(from), endedAt: at(to), attempt: 1, parallel: null });
  const scoring = new Scoring([truth('LX-1'), truth('LX-2')]);
  scoring.add(told('LX-1', { steps: [step('edge', 10, 300), step('edge', 300, 490), step('relay', 90, 210), step('unheard-of', 0, 1)] }));
  scoring.add(told('LX-2', { steps: [step('edge', 130, 500), step('relay', 100, 230)] }));
  scoring.end();
  const { order, times } = scoring.byFlow.get('lens-order')!;
  expect([order, times]).toEqual([{ right: 1, wrong: 1, missing: 0 }, { right: 6, wrong: 2, missing: 0 }]); // prettier-ignore
  expect(scoring.worst(5).map((one) => one.why)).toEqual(['1 pairs of components in the wrong order; 2 begins or ends at the wrong time']);
});

test('legs, attempts and branches are compared where the truth tells of them', () => {
  const course = { legs: 2, attempts: { pay: 2 }, parallel: ['locks', 'notifier'] };
  const at = { startedAt: '2026-11-24T00:00:00Z', endedAt: '2026-11-24T00:00:01Z' };
  const steps = (attempts: number[], groups: (number | null)[]) => [
    ...attempts.map((attempt) => ({ component: 'pay', ...at, attempt, parallel: null })),
    { component: 'locks', ...at, attempt: 1, parallel: groups[0]! },
    { component: 'notifier', ...at, attempt: 1, parallel: groups[1]! },
  ];
  const scoring = new Scoring(['LX-1', 'LX-2', 'LX-3'].map((id) => truth(id, { course })));
  scoring.add(told('LX-1', { legs: [1, 2], steps: steps([1, 2], [1, 1]) }));
  scoring.add(told('LX-2', { legs: [1], steps: steps([1], [1, 2]) }));
  scoring.add(told('LX-3', { legs: [1, 2], steps: steps([1, 2, 3], [null, null]) }));
  scoring.end();
  expect(scoring.byFlow.get('lens-order')!.course).toEqual({ right: 4, wrong: 5, missing: 0 });
  expect(scoring.worst(5).map((one) => one.businessId)).toEqual(expect.arrayContaining(['LX-2', 'LX-3']));
});
