import type { Rounds, RoundsCell } from '@fadenweg/api';
import { clothOf, type Cloth, type FlowCloth, type FlowSums, type Sample, type Sum } from '@fadenweg/core/rounds';
import { isoMicros } from '@fadenweg/core/units';
import { labelIn, type DeclarationRepository } from '../declared/declarations.ts';
import type { PastRow, SumRepository } from '../rollups/sums.ts';
import type { FlowGroups } from './flow-groups.ts';
import { KeptAWhile } from '../platform/kept-a-while.ts';
import { rangesOf, windowOf, type Asked, type Window } from './window.ts';

/** Of the cells of a column, what makes it graver than another. */
const GRAVITY = { 'not-done': 5, none: 4, late: 3, fewer: 2, more: 1 } as const;

/** So many windows stay at hand for so long (milliseconds), until something is judged anew. */
const WINDOWS = 20;
const FOR = 60_000;
export interface JudgedWindow {
  window: Window;
  cloth: Cloth;
}

/** The window as a cloth, beside what is usual then. */
export class RoundsService {
  private readonly kept = new KeptAWhile<JudgedWindow>(WINDOWS, FOR, () => true);

  /** @param state changes whenever something was judged anew */
  constructor(
    private readonly sums: SumRepository,
    private readonly declarations: DeclarationRepository,
    private readonly groups: FlowGroups,
    private readonly state: () => number,
  ) {}

  async of(asked: Asked): Promise<Rounds> {
    const { window, cloth } = await this.cloth(asked);
    const [labels, groups] = await Promise.all([this.labels(), this.groups.all()]);
    const flows = cloth.flows.map((flow) => ({ flow, weight: gravity(flow) })).sort((a, b) => b.weight - a.weight || total(b.flow) - total(a.flow) || (a.flow.flow < b.flow.flow ? -1 : 1)); // prettier-ignore
    return {
      slotMs: window.length / 1000,
      bounds: window.bounds.map(isoMicros),
      seen: window.slots.map((one) => one.seen),
      flows: flows.map(({ flow: { flow, cells, shift, known, usual, usualAmiss, fence } }) => ({
        flow,
        label: labels(flow),
        group: groups.get(flow) ?? '',
        cells: cells as RoundsCell[],
        shift,
        known,
        usual,
        usualAmiss,
        fenceMs: fence === null ? null : fence / 1000,
      })),
      shift: cloth.shift,
      usualBy: window.usualBy,
      days: window.days,
    };
  }

  /** The window and its cells, as they are judged; the list and the cloth of a page are of one. */
  cloth(asked: Asked): Promise<JudgedWindow> {
    return this.kept.get(`${this.state()} ${JSON.stringify(asked)}`, () => this.judge(asked));
  }
  private async judge(asked: Asked): Promise<JudgedWindow> {
    const { sums } = this;
    const { environment } = asked;
    const window = await windowOf(sums, asked);
    const own = rangesOf(window.bounds, 0);
    const [now, past, lasted] = await Promise.all([
      sums.within(own, environment),
      sums.past(window.past, environment),
      sums.lasted(window.usualBy === 'window' ? own : window.past, environment),
    ]);
    const flows = new Map<string, { now: Sum[][]; before: Sample[]; lasted: { bucket: number; count: number }[]; past: Map<number, PastRow>; first: number }>(); // prettier-ignore
    const of = (flow: string) => {
      const known = flows.get(flow) ?? { now: own.map(() => []), before: [], lasted: [], past: new Map<number, PastRow>(), first: 0 };
      flows.set(flow, known);
      return known;
    };
    for (const { place, flow, outcome, lasted, strands } of now) of(flow).now[place]!.push({ outcome, bucket: lasted, count: strands });
    for (const row of past) {
      const flow = of(row.flow);
      flow.past.set(row.day * own.length + row.place, row);
      flow.first = Math.max(flow.first, row.day);
    }
    for (const { flow, bucket, count } of lasted) of(flow).lasted.push({ bucket, count });
    for (const { past, before, first } of flows.values()) {
      for (const { place, day, from, to } of window.past) {
        // before its first strand a flow was not there
        if (day > first) continue;
        const one = past.get(day * own.length + place);
        before.push({ slot: place, exposure: (to - from) / window.length, count: one?.strands ?? 0, amiss: one?.amiss ?? 0 });
      }
    }
    const given: FlowSums[] = [...flows].map(([flow, { now, before, lasted }]) => ({ flow, now, before, lasted }));
    return { window, cloth: clothOf(given, window.slots, window.usualBy === 'window') };
  }

  /** What people call a flow. */
  async labels(): Promise<(flow: string) => string> {
    return labelIn(await this.declarations.flows());
  }
}

const total = ({ cells }: FlowCloth): number => cells.reduce((sum, one) => sum + one.all, 0);
const gravity = ({ cells }: FlowCloth): number =>
  cells.reduce((sum, { departs }) => (departs ? Math.max(sum, GRAVITY[departs.kind]) + 0.01 : sum), 0);
