import { describe, expect, test } from '@jest/globals';
import type { Step, Strand, StrandLine } from '@fadenweg/api';
import { lanesBy } from './lanes-by.ts';
import { fittingScale, HEAD, MOST_HEIGHT, timeLayout, partOf } from './time-layout.ts';

const iso = (ms: number): string => `2026-11-24T${new Date(ms).toISOString().slice(11, 23)}000Z`;
const step = (id: number, parent: number | null, component: string, from: number, to: number, more: Partial<Step> = {}): Step =>
  ({ id, leg: 1, parent, attempt: 1, parallel: null, component, host: '', startedAt: iso(from), endedAt: iso(to), outcome: 'done', ...more }) as Step;
const line = (id: string, of: number, component: string, at: number, host = ''): StrandLine => ({ id, step: of, component, host, at: iso(at), message: `said ${id}`, attributes: {}, marks: [] }) as unknown as StrandLine; // prettier-ignore
const STEPS = [step(1, null, 'edge', 0, 10_000), step(2, 1, 'desk', 1000, 9000), step(3, 2, 'store', 2000, 8000)];
const strand = (more: Partial<Strand> = {}): Strand =>
  ({ startedAt: iso(0), endedAt: iso(10_000), steps: STEPS, hops: [], findings: [], legs: [{ id: 1, startedAt: iso(0), endedAt: iso(10_000) }], silences: [{ before: 'c', ms: 5000, kind: 'lock-wait', component: 'store' }], ...more }) as unknown as Strand; // prettier-ignore
const LINES = [line('a', 1, 'edge', 0), line('b', 2, 'desk', 1000), line('c', 3, 'store', 8000)];

describe('the weave in proportion to time', () => {
  const layout = timeLayout(strand(), LINES, 0.1, 900);
  test('gives each step its length, each record its moment', () => {
    expect(layout.lanes.map((lane) => lane.name)).toEqual(['edge', 'desk', 'store']);
    expect(layout.bars.map(({ y, height }) => [y - HEAD, height])).toEqual([[0, 1000], [100, 800], [200, 600]]); // prettier-ignore
    expect(layout.dots.map(({ y }) => y - HEAD)).toEqual([0, 100, 800]);
    expect(layout.waits).toMatchObject([{ y: HEAD + 300, height: 500, kind: 'lock-wait', text: '5.00 s' }]);
  });
  test('draws who called whom, there and back, labelled by the first words', () => {
    expect(layout.arrows.map(({ key, label, back }) => [key, label, back])).toEqual([
      ['to2', 'said b', false],
      ['to3', 'said c', false],
      ['back3', null, true],
      ['back2', null, true],
    ]);
  });
  test('leaves out labels that would stand on one another', () => {
    const close = timeLayout(
      strand({ steps: [STEPS[0]!, STEPS[1]!, step(4, 1, 'desk', 1010, 1500)] }),
      [...LINES, line('d', 4, 'desk', 1010)],
      0.1,
      900,
    );
    expect(close.arrows.filter((arrow) => !arrow.back).map((arrow) => arrow.label)).toEqual(['said b', null]);
  });
  test('shows what was handed on where it left and where it came', () => {
    const hop = timeLayout(strand({ hops: [{ from: 1, to: 3, by: 'm', delayMs: 1500 }] }), LINES, 0.1, 900).arrows.find((arrow) => arrow.key === 'to3')!; // prettier-ignore
    expect([hop.from.y - HEAD, hop.to.y - HEAD]).toEqual([50, 200]);
  });
  test('takes an answer for none: what came first counts, and only from who had begun before', () => {
    const hops = [{ from: 1, to: 2, by: 'm', delayMs: 10 }, { from: 2, to: 3, by: 'm', delayMs: 10 }, { from: 3, to: 2, by: '', delayMs: 5 }, { from: 2, to: 1, by: '', delayMs: 5 }]; // prettier-ignore
    const lanes = new Map(layout.lanes.map((lane) => [lane.x, lane.name]));
    const there = timeLayout(strand({ hops }), LINES, 0.1, 900).arrows.filter((arrow) => !arrow.back);
    expect(there.map((arrow) => [lanes.get(arrow.from.x), lanes.get(arrow.to.x)])).toEqual([['edge', 'desk'], ['desk', 'store']]); // prettier-ignore
  });
  test('puts legs that lie apart behind each other, with what passes between told', () => {
    const legs = [{ id: 1, startedAt: iso(0), endedAt: iso(10_000) }, { id: 2, startedAt: iso(7_210_000), endedAt: iso(7_211_000) }]; // prettier-ignore
    const two = timeLayout(strand({ legs } as unknown as Partial<Strand>), [...LINES, line('z', 1, 'edge', 7_211_000)], 0.1, 900);
    expect(two.breaks.map((one) => one.text)).toEqual(['2 h later']);
    expect(two.height).toBeLessThan(1300);
    expect(two.dots.at(-1)!.y).toBe(HEAD + 1000 + 44 + 100);
  });
  test('is told in bands: each shows all that reaches into it, and nothing is left out', () => {
    const tall = timeLayout(strand(), LINES, 2, 900);
    const bands = Array.from({ length: Math.ceil(tall.height / 240) }, (_, i) => partOf(tall, i * 240, Math.min(tall.height, (i + 1) * 240)));
    for (const kind of ['ticks', 'bars', 'arrows'] as const) expect(new Set<unknown>(bands.flatMap((one) => one[kind] as unknown[]))).toEqual(new Set<unknown>(tall[kind])); // prettier-ignore
    bands.forEach((band, i) => {
      const reaching = tall.bars.filter((bar) => bar.y < (i + 1) * 240 && bar.y + bar.height > i * 240);
      expect(band.bars).toEqual(expect.arrayContaining(reaching));
      for (const tick of band.ticks) expect(Math.abs(tick.y - (i + 0.5) * 240)).toBeLessThan(120 + 30);
    });
  });
  test('is never taller than a browser draws, and fits where it is shown whole', () => {
    expect(timeLayout(strand(), LINES, 1e6, 900).height).toBeLessThanOrEqual(MOST_HEIGHT + 100);
    expect(timeLayout(strand(), LINES, fittingScale(strand(), 600), 900).height).toBeLessThanOrEqual(600);
  });
});

describe('lanes put together', () => {
  const lines = [line('a', 1, 'stock-sync', 0, 'h1'), line('b', 2, 'stock-list', 1000, 'h1'), line('c', 3, 'edge', 8000)];
  const of = strand({ steps: [step(1, null, 'stock-sync', 0, 1, { host: 'h1' }), step(2, 1, 'stock-list', 0, 1, { host: 'h1' }), step(3, 1, 'edge', 0, 1)], findings: [{ component: 'stock-list' }] as never }); // prettier-ignore
  test.each([
    ['component', ['stock-sync', 'stock-list', 'edge'], 'stock-list'],
    ['host', ['h1', 'h1', 'edge'], 'h1'],
    ['system', ['stock', 'stock', 'edge'], 'stock'],
  ] as const)('by %s', (by, wanted, found) => {
    const put = lanesBy(of, lines, by);
    expect(put.lines.map((one) => one.component)).toEqual(wanted);
    expect(put.strand.steps.map((one) => one.component)).toEqual(wanted);
    expect(put.strand.findings[0]!.component).toBe(found);
  });
});
