import { describe, expect, test } from '@jest/globals';
import type { Change, Strand, StrandLine } from '@fadenweg/api';
import { comesFrom, laneWidth, passage, points } from './geometry.ts';
import { lanesOf, peerNames, peerOf, rowsOf } from './rows.ts';

const line = (n: number, component: string, step: number, more: Partial<StrandLine> = {}): StrandLine => ({
  id: `r${n}`,
  at: `2026-11-24T09:41:58.${String(n).padStart(3, '0')}000Z`,
  originalAt: '',
  correctedByMs: 0,
  flow: null,
  outcome: null,
  source: { id: 1, path: 'a', line: n, byteFrom: 0, byteTo: 1 },
  component,
  host: '',
  environment: '',
  level: 'info',
  logger: '',
  message: `line ${n}`,
  attributes: {},
  identifiers: [],
  shape: '',
  strand: null,
  leg: 1,
  because: null,
  understood: true,
  timeFrom: 'told',
  shortened: false,
  marks: [],
  tookMs: null,
  copies: [],
  weight: 'slight',
  step,
  ...more,
});
const step = (id: number, component: string, startedAt: string) => ({
  id,
  leg: 1,
  parent: null,
  attempt: 1,
  parallel: null,
  component,
  host: '',
  startedAt,
  endedAt: startedAt,
  workMs: 0,
  waitMs: 0,
  usualMs: null,
  excessMs: null,
  outcome: 'done' as const,
  records: 1,
});
const strand = (more: Partial<Strand> = {}): Strand => ({
  id: 'order:1',
  flow: null,
  flowLabel: '',
  businessId: '1',
  name: '1',
  kind: 'order',
  outcome: 'failed',
  attributes: {},
  startedAt: '',
  endedAt: '',
  durationMs: 1,
  usualMs: null,
  identifiers: [],
  records: 3,
  legs: [],
  steps: [step(1, 'desk', '2026-11-24T09:41:58.002Z'), step(2, 'edge', '2026-11-24T09:41:58.001Z')],
  hops: [],
  time: [],
  silences: [],
  findings: [],
  call: null,
  rows: null,
  fault: null,
  related: [],
  cut: null,
  ...more,
});

describe('the rows of a strand', () => {
  const lines = [line(1, 'desk', 1), line(2, 'desk', 1), line(5, 'edge', 2, { message: 'first\nsecond\nthird' }), line(9, 'desk', 1)];

  test('lanes stand in the order in which the strand reached them', () => expect(lanesOf(strand(), lines)).toEqual(['edge', 'desk']));

  test('times are whole where the second changes, else relative to the line before', () => {
    const rows = rowsOf(strand(), lines, new Set());
    expect(rows.map((row) => (row.kind === 'line' ? row.time.slice(-6) : ''))).toEqual([
      expect.stringMatching(/58\.001/),
      '+0.001',
      '+0.003',
      '+0.004',
    ]);
    expect(rows[2]).toMatchObject({ text: 'first', more: 2 });
  });

  test('a long silence is a row of its own', () => {
    const rows = rowsOf(strand({ silences: [{ before: 'r5', ms: 8003, kind: 'lock-wait', component: 'labdb' }] }), lines, new Set());
    expect(rows[2]).toMatchObject({ kind: 'gap', text: '8.00 s waiting for a lock in labdb', lane: 'desk', lock: true });
  });

  test('a folded step shows its first line of each stretch and counts the others; a knot is never folded away', () => {
    const knot = strand({ findings: [{ rank: 1, kind: 'slowed-by', record: { id: 'r2' } }, { rank: 2, kind: 'odd-volume', record: { id: 'r2' } }] as Strand['findings'] }); // prettier-ignore
    expect(rowsOf(strand(), lines, new Set([1])).map((row) => (row.kind === 'line' ? `${row.line.id}+${row.folded}` : ''))).toEqual([
      'r1+1',
      'r5+0',
      'r9+0',
    ]);
    expect(rowsOf(knot, lines, new Set([1])).map((row) => (row.kind === 'line' ? row.line.id : ''))).toEqual(['r1', 'r2', 'r5', 'r9']);
    // as the first of its findings tells it
    expect(rowsOf(knot, lines, new Set()).flatMap((row) => (row.kind === 'line' && row.knot !== null ? [[row.line.id, row.knot]] : []))).toEqual([['r2', 'slow']]); // prettier-ignore
  });

  test('far ends of calls get lanes around their component, named by number', () => {
    const call = [
      line(1, 'switch', 1, { attributes: { direction: 'in', peer: '198.51.100.9:5060', method: 'INVITE', from: '<sip:+493023125332@x>' } }),
      line(2, 'switch', 1, { attributes: { direction: 'out', peer: '192.0.2.20:5062' } }),
    ];
    expect(lanesOf(strand({ steps: [] }), call)).toEqual(['198.51.100.9', 'switch', '192.0.2.20']);
    expect(peerOf(call[0]!)).toBe('198.51.100.9');
    expect([...peerNames(call).values()]).toEqual(['…23125332', '192.0.2.20']);
  });
});

describe('legs', () => {
  const leg = (id: number, startedAt: string, endedAt: string, entry: string) => ({ id, flow: null, entry, startedAt, endedAt, outcome: 'done' as const, records: 2 }); // prettier-ignore
  const legs = [
    leg(1, '2026-11-24T09:41:58.001000Z', '2026-11-24T09:41:58.020000Z', 'line 1'),
    leg(2, '2026-11-24T10:53:58.020000Z', '2026-11-24T10:53:58.032000Z', 'line 3'),
  ];
  test('are sections with a head that tells when and how long', () => {
    const lines = [line(1, 'web', 1), line(3, 'web', 2, { leg: 2 }), line(2, 'desk', 1)];
    expect(rowsOf(strand({ legs }), lines, new Set()).map((row) => (row.kind === 'leg' ? [row.leg, row.text, row.when] : row.kind === 'line' ? row.line.id : ''))).toEqual([
      [1, 'line 1', '19 ms'],
      'r1',
      'r2',
      [2, 'line 3', '1 h 12 min later, 12 ms'],
      'r3',
    ]); // prettier-ignore
  });
  test('have no heads where there is but one', () => {
    expect(rowsOf(strand({ legs: legs.slice(0, 1) }), [line(1, 'web', 1)], new Set()).map((row) => row.kind)).toEqual(['line']);
  });
});
test('a time in whole seconds is told as such, and nothing is told from it', () => {
  const coarse = line(1, 'mail', 2, { at: '2026-11-24T09:41:58.000000Z', marks: ['coarse'] });
  const times = rowsOf(strand(), [line(300, 'web', 1), coarse, line(310, 'web', 1)], new Set()).map((row) => row.kind === 'line' && row.time);
  expect(times).toEqual([expect.stringMatching(/:58\.300$/), expect.stringMatching(/:58$/), '+0.010']);
});

describe('the geometry of the weave', () => {
  test('the strand keeps its lane over a gap and passes in an S from lane to lane', () => {
    const rows = rowsOf(
      strand({ silences: [{ before: 'r5', ms: 900, kind: 'gap', component: null }] }),
      [line(1, 'desk', 1), line(5, 'edge', 2)],
      new Set(),
    );
    const [first, gap, second] = points(rows, ['edge', 'desk']);
    expect(gap!.x).toBe(first!.x);
    expect(passage(first!, gap!)).toMatch(/^M\d+ [\d.]+ V/);
    expect(passage(gap!, second!)).toMatch(/^M\d+ [\d.]+ C/);
  });
  test('lanes stand closer together the more there are', () => expect([4, 12, 30].map(laneWidth)).toEqual([30, 22, 18]));
});

test('a change stands before the first record behind it, and the strand keeps its lane', () => {
  const strand = { legs: [{ id: 1 }], findings: [], silences: [], steps: [] } as unknown as Strand;
  const change = { id: 'c', at: '2026-11-24T09:41:58.002500Z', component: 'store', words: 'store restarted' } as Change;
  const rows = rowsOf(strand, [line(1, 'desk', 1), line(2, 'desk', 1), line(3, 'desk', 1)], new Set([1]), [change]);
  expect(rows.map((row) => (row.kind === 'line' ? row.line.id : row.kind))).toEqual(['r1', 'change', 'r3']);
  const at = points(rows, ['desk', 'store']);
  expect(new Set(at.map((point) => point.x)).size).toBe(1);
});

describe('branches side by side', () => {
  const at = (id: number, parent: number | null, parallel: number | null) => ({ id, parent, parallel });
  const rowsFor = (steps: number[]) => {
    const strand = { legs: [{ id: 1 }], findings: [], silences: [], steps: [] } as unknown as Strand;
    return rowsOf(strand, steps.map((id, i) => line(i, `c${id}`, id)), new Set()); // prettier-ignore
  };

  test('one after the other, each row comes from the one before', () =>
    expect(comesFrom(rowsFor([1, 2, 2, 1]), [at(1, null, null), at(2, 1, null)])).toEqual([[], [0], [1], [2]]));

  test('each branch goes on from its own last row, and comes back behind its end', () =>
    expect(comesFrom(rowsFor([1, 2, 3, 2, 3, 1]), [at(1, null, null), at(2, 1, 1), at(3, 1, 1)])).toEqual([[], [0], [0], [1], [2], [0, 3, 4]]));

  test('what a branch calls belongs to it', () =>
    expect(comesFrom(rowsFor([1, 2, 3, 4, 3, 1]), [at(1, null, null), at(2, 1, 1), at(3, 1, 1), at(4, 2, null)])).toEqual([
      [],
      [0],
      [0],
      [1],
      [2],
      [0, 3, 4],
    ]));

  test('a passage over several rows stays in its lane until the last, or leaves at once', () => {
    expect(passage({ x: 0, y: 10 }, { x: 30, y: 94 })).toBe('M0 10 V73 C0 83.5 30 83.5 30 94');
    expect(passage({ x: 0, y: 10 }, { x: 30, y: 94 }, true)).toBe('M0 10 C0 20.5 30 20.5 30 31 V94');
  });
});
