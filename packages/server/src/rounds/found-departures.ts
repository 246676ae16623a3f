import type { Departure, DepartureKind } from '@fadenweg/api';
import { BY_CLOCK, departing, standingOut, stretchOf, type Alike, type Cloth, type Counted, type Departing } from '@fadenweg/core/rounds';
import { isoMicros, type Microseconds } from '@fadenweg/core/units';
import type { Changes } from '../changes/changes.ts';
import type { IdentifierRepository } from '../evidence/identifiers.ts';
import type { Names } from '../evidence/names.ts';
import type { AlikeRepository, AlikeRow, HavingCount } from '../rollups/alike.ts';
import { KeptAWhile } from '../platform/kept-a-while.ts';
import type { PastRow, SumRepository } from '../rollups/sums.ts';
import type { Asked, Window } from './window.ts';

const MINUTE = 60_000_000;
const HOUR = 60 * MINUTE;
const DAY = 24 * HOUR;
/** So many windows stay at hand for so long (milliseconds). */
const WINDOWS = 20;
const FOR = 60_000;
/** So long before a window what was so before is looked for. */
const BEFORE = 28 * DAY;
/** Of so many, the gravest, it is found out when they began and whom they concern. */
const MOST = 40;
/** The window in so many pieces, of a minute at least, is looked through for when something began; fewer than so many begin nowhere. */
const PIECES = 1500;
const FEWEST = 3;

type Row = Alike & { row: AlikeRow };
export interface FoundIn {
  window: Window;
  cloth: Cloth;
  labels(flow: string): string;
}

/** First findings that are more frequent in a window than they were before it. */
export class FoundDepartures {
  private readonly kept = new KeptAWhile<PastRow[]>(WINDOWS, FOR, () => true);

  constructor(
    private readonly sums: SumRepository,
    private readonly alike: AlikeRepository,
    private readonly identifiers: IdentifierRepository,
    private readonly changes: Changes,
    private readonly names: Names,
    /** Changes whenever something was judged anew. */
    private readonly state: () => number,
  ) {}

  /** @returns those that are told, the gravest first, and how many more there are */
  async of({ environment }: Asked, { window, cloth, labels }: FoundIn): Promise<{ items: Departure[]; more: number; nothingBefore: boolean }> {
    const [from, to] = [window.bounds[0]!, window.bounds.at(-1)!];
    const rows = await this.alike.within(from, to, environment);
    const [earlier, past] = await Promise.all([
      this.alike.before(rows.map((one) => one.signature), from - BEFORE, from, environment), // prettier-ignore
      this.past(from, environment),
    ]);
    const whole = (flows: readonly string[], of: (flow: string) => number): number => flows.reduce((sum, flow) => sum + of(flow), 0);
    const now = new Map(cloth.flows.map(({ flow, cells, spread }) => [flow, { all: cells.reduce((sum, one) => sum + one.all, 0), spread }]));
    const knowsBefore = past.length > 0;
    const course = courses(this.sums, environment, from, to);
    const list = await Promise.all(
      rows.map(async (row): Promise<Row> => {
        const before = {
          count: earlier.get(row.signature) ?? 0,
          of: whole(row.flows, (flow) => past.find((one) => one.flow === flow)?.strands ?? 0),
        };
        return {
          row,
          outcome: row.outcome,
          count: row.count,
          of: whole(row.flows, (flow) => now.get(flow)?.all ?? 0),
          before,
          stretch:
            row.count < FEWEST ? null : stretchOf(counted(row, await course.of(row.flows), course.length), before.count / Math.max(1, before.of)),
          byClock: row.flows.every((flow) => (now.get(flow)?.spread ?? 1) < BY_CLOCK),
        };
      }),
    );
    const told = departing(list, knowsBefore);
    const shown = told.slice(0, MOST);
    const stretches = shown.map(({ one }) => fromTo(one, course.length));
    const whom = await this.whom(shown, stretches, environment);
    const items = await Promise.all(
      shown.map(async ({ one, expected, weight }, i): Promise<Departure> => {
        const { row, count, of, before } = one;
        const stretch = stretches[i]!;
        // where the cause shows, the third part of a finding's signature
        const component = row.signature.split('|')[2] ?? row.failedIn ?? '';
        const named = this.names.components().filter((name) => name.length > 2 && row.headline.toLowerCase().includes(name.toLowerCase()));
        return {
          key: `finding ${row.signature}`,
          what: kindOf(one, knowsBefore),
          outcome: row.outcome,
          title: row.headline,
          flows: row.flows.map((flow) => ({ flow, label: labels(flow) })),
          component,
          host: '',
          from: isoMicros(stretch.from),
          to: isoMicros(stretch.to),
          ongoing: stretch.to >= to - Math.min(window.length, (to - from) / 4),
          count,
          of,
          expected: before.of === 0 ? null : expected,
          weight,
          ...whom.get(row.signature)!,
          change: await this.changes.latestBefore(stretch.from, [component, row.failedIn ?? '', ...named], row.environment),
          finding: row.signature,
          noted: null,
        };
      }),
    );
    return { items, more: told.length - shown.length, nothingBefore: !knowsBefore };
  }

  /** Strands of each flow before a window; found out once for all that ask, until something is judged anew. */
  private past(begin: Microseconds, environment: string[]): Promise<PastRow[]> {
    // to the full hour: then it is of whole hours, and the same for many windows
    const from = Math.floor(begin / HOUR) * HOUR;
    return this.kept.get(`${this.state()} ${from} ${JSON.stringify(environment)}`, () =>
      this.sums.past([{ place: 0, day: 0, from: from - BEFORE, to: from }], environment),
    );
  }

  /** By signature, parties and hosts that have more of it than others of those flows at that time. */
  private async whom(
    shown: readonly Departing<Row>[],
    stretches: readonly { from: number; to: number }[],
    environment: string[],
  ): Promise<Map<string, Whom>> {
    const asked = shown.map(({ one: { row } }, i) => ({ signature: row.signature, flows: row.flows, ...stretches[i]! }));
    const [parties, hosts] = await Promise.all([this.alike.having('parties', asked, environment), this.alike.having('hosts', asked, environment)]);
    const named = await this.identifiers.named([...new Set(parties.map((one) => one.id))]);
    return new Map(
      shown.map(({ one }): [string, Whom] => [
        one.row.signature,
        {
          parties: standing(one, parties).flatMap(({ id, ...rest }) => {
            const name = named.get(id);
            return name ? [{ kind: name.kind, value: name.value, ...rest }] : [];
          }),
          hosts: standing(one, hosts).map(({ id, ...rest }) => ({ value: this.names.host(id), ...rest })),
        },
      ]),
    );
  }
}

type Whom = Pick<Departure, 'parties' | 'hosts'>;
/** Those that stand out, with how many have it. */
function standing({ row }: Row, counts: readonly HavingCount[]): { id: number; inside: number; odds: number }[] {
  const own = counts.filter((one) => one.signature === row.signature);
  return own.length === 0 ? [] : standingOut(own, own[0]!.departing, own[0]!.others);
}

function kindOf({ outcome, before }: Row, knowsBefore: boolean): DepartureKind {
  if (outcome === 'slow') return 'slow';
  return knowsBefore && before.count === 0 ? 'new' : 'failing';
}

/** How many strands of flows came by and by, asked once for each. */
function courses(sums: SumRepository, environment: string[], from: Microseconds, to: Microseconds) {
  const minutes = Math.max(1, Math.ceil((to - from) / MINUTE / PIECES));
  const known = new Map<string, Promise<{ at: Microseconds; all: number }[]>>();
  return {
    length: minutes * MINUTE,
    async of(flows: readonly string[]): Promise<{ at: Microseconds; all: number }[]> {
      for (const flow of flows) if (!known.has(flow)) known.set(flow, sums.course(flow, environment, { from, to, minutes }));
      return (await Promise.all(flows.map((flow) => known.get(flow)!))).flat();
    },
  };
}

/** All strands of its flows and those of the finding, by and by. */
function counted({ times }: AlikeRow, course: readonly { at: Microseconds; all: number }[], length: number): Counted[] {
  const pieces = new Map<number, Counted>();
  const at = (time: Microseconds): Counted => {
    const piece = Math.floor(time / length) * length;
    const known = pieces.get(piece) ?? { at: piece, all: 0, some: 0 };
    pieces.set(piece, known);
    return known;
  };
  for (const { at: time, all } of course) at(time).all += all;
  for (const time of times) at(time).some++;
  return [...pieces.values()].sort((a, b) => a.at - b.at);
}

/** From when to when it was more frequent than usual: to the strand, not to the piece of time. */
function fromTo({ row: { times }, stretch }: Row, length: number): { from: Microseconds; to: Microseconds } {
  const own = stretch ? times.filter((time) => time >= stretch.from && time < stretch.to + length) : times;
  return { from: own[0] ?? times[0]!, to: own.at(-1) ?? times.at(-1)! };
}
