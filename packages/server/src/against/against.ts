import type { Against, AgainstCompared, AgainstPeer, AgainstPieceSide } from '@fadenweg/api';
import { againstAll, insteadOf, type Compared, type PieceSide } from '@fadenweg/core/against';
import { slotsOf } from '@fadenweg/core/rounds';
import { isoMicros, type Microseconds } from '@fadenweg/core/units';
import type { IdentifierRepository } from '../evidence/identifiers.ts';
import type { Names } from '../evidence/names.ts';
import type { AgainstAsked, AgainstRepository, PeerRow, Thing } from '../rollups/against-rows.ts';
import type { SumRepository } from '../rollups/sums.ts';
import type { NamedThing, Things } from './things.ts';

/** Of more strands on one side some are looked at. */
const MOST = 15_000;
const MOST_FLOWS = 40;
const SHOWN_PEERS = 20;
const MOST_VERSIONS = 8;
/** Pieces of window and time before. */
const PIECES = 48;

/** Some of the strands of some flows. */
interface Side {
  flows: readonly string[];
  /** Of so many one. */
  each: number;
}

/** One thing beside all others of the same flows, and beside itself before. */
export class AgainstService {
  constructor(
    private readonly rows: AgainstRepository,
    private readonly sums: SumRepository,
    private readonly things: Things,
    private readonly identifiers: IdentifierRepository,
    private readonly names: Names,
    private readonly labels: () => Promise<(flow: string) => string>,
  ) {}

  /** @param asked the window; as long before it is looked at too */
  async of(named: NamedThing, asked: AgainstAsked, zone: string): Promise<Against> {
    const { from, to, environment } = asked;
    const thing = await this.things.of(named, environment);
    const before = from - (to - from);
    const whole = { from: before, to, environment };
    const own = (await this.rows.flows(thing, whole)).slice(0, MOST_FLOWS);
    const flows = own.map((one) => one.flow);
    const all = await this.sums.past([{ place: 0, day: 0, from: before, to }], environment);
    const count = own.reduce((sum, one) => sum + one.strands, 0);
    const rest = all.reduce((sum, one) => sum + (flows.includes(one.flow) ? one.strands : 0), 0) - count;
    const sampled = { own: Math.max(1, Math.ceil(count / MOST)), others: Math.max(1, Math.ceil(rest / MOST)) };
    const instead = await this.instead(thing, flows, whole);
    const [mine, theirs, peers, labels] = await Promise.all([
      this.rows.facts(thing, { own: true, flows, each: sampled.own }, whole),
      this.rows.facts(thing, { own: false, flows, each: sampled.others, instead }, whole),
      this.peers(named, thing, { flows, each: sampled.others }, asked),
      this.labels(),
    ]);
    const strands = [...mine, ...theirs];
    const { length } = slotsOf(before, to, zone, PIECES);
    const { measures, course, outcomes } = againstAll(strands, from, length);
    const within = (side: readonly { at: Microseconds }[], now: boolean): number => side.reduce((sum, one) => sum + Number(one.at >= from === now), 0); // prettier-ignore
    return {
      ...named,
      from: isoMicros(from),
      to: isoMicros(to),
      before: isoMicros(before),
      instead: instead && instead.map((one) => this.names.component(one)).sort(),
      slotMs: length / 1000,
      flows: own.map(({ flow }) => ({
        flow,
        label: labels(flow),
        own: mine.filter((one) => one.flow === flow && one.at >= from).length * sampled.own,
        others: theirs.filter((one) => one.flow === flow && one.at >= from).length * sampled.others,
      })),
      strands: {
        own: within(mine, true) * sampled.own,
        others: within(theirs, true) * sampled.others,
        ownBefore: within(mine, false) * sampled.own,
        othersBefore: within(theirs, false) * sampled.others,
      },
      sampled,
      measures: measures.map(inMilliseconds),
      outcomes,
      course: course.map(({ at, own, others }) => ({ at: isoMicros(at), own: own && sideOf(own), others: others && sideOf(others) })),
      peers,
    };
  }

  /** What never came so far as to pass it says nothing about it: the others are those that pass something in its place. */
  private async instead(thing: Thing, flows: readonly string[], asked: AgainstAsked): Promise<number[] | null> {
    if (thing.what === 'host') return this.rows.speakingAt(thing.id);
    if (thing.what === 'version') return [thing.id];
    if (thing.what === 'party') return null;
    const own = await this.rows.flows(thing, asked);
    return insteadOf(own.reduce((sum, one) => sum + one.strands, 0), await this.rows.together(thing.id, flows, asked)); // prettier-ignore
  }

  private async peers(named: NamedThing, thing: Thing, side: Side, asked: AgainstAsked): Promise<AgainstPeer[]> {
    const { flows } = side;
    if (flows.length === 0) return [];
    if (thing.what === 'version') return this.versions(named, thing, side, asked);
    const rows = await this.rows.peers(thing.what, flows, asked);
    const parties = thing.what === 'party' ? await this.identifiers.named(rows.map((one) => one.id)) : null;
    const kind = parties?.get(thing.id)?.kind;
    const nameOf = (id: number): string | null => {
      if (thing.what === 'host') return this.names.host(id);
      if (thing.what === 'component') return this.names.component(id);
      const party = parties?.get(id);
      return party?.kind === kind ? (party?.value ?? null) : null;
    };
    const told = rows.flatMap((row): AgainstPeer[] => {
      const name = nameOf(row.id);
      return name === null || name === '' ? [] : [{ name, own: row.id === thing.id, ...factsOf(row) }];
    });
    const shown = told.slice(0, SHOWN_PEERS);
    const self = told.find((one) => one.own);
    return !self || shown.includes(self) ? shown : [...shown.slice(0, -1), self];
  }

  private async versions(named: NamedThing, thing: Thing, { flows, each }: Side, asked: AgainstAsked): Promise<AgainstPeer[]> {
    const spans = await this.things.versions(named.of, asked.environment);
    const versions = [...new Set(spans.map((one) => one.version))].slice(-MOST_VERSIONS);
    const told = await Promise.all(
      versions.map(async (version): Promise<AgainstPeer> => {
        const other: Thing = { what: 'version', id: thing.id, spans: this.things.byHost(spans.filter((one) => one.version === version)) };
        const strands = await this.rows.facts(other, { own: true, flows, each }, asked);
        const { measures, outcomes } = againstAll(strands, asked.from, asked.to - asked.from);
        const all = outcomes.reduce((sum, one) => sum + one.own, 0) * each;
        const share = measures.find((one) => one.measure === 'amiss')!.own ?? 0;
        const median = measures.find((one) => one.measure === 'whole')!.own;
        return { name: version, own: version === named.name, strands: all, amiss: Math.round(share * all), expected: 0, medianMs: median === null ? null : median / 1000 }; // prettier-ignore
      }),
    );
    const share = told.reduce((sum, one) => sum + one.amiss, 0) / Math.max(1, told.reduce((sum, one) => sum + one.strands, 0)); // prettier-ignore
    return told.map((one) => ({ ...one, expected: share * one.strands }));
  }
}

const factsOf = ({ strands, amiss, expected, median }: PeerRow) => ({ strands, amiss, expected, medianMs: median === null ? null : median / 1000 });
const scaled = (value: number | null): number | null => (value === null ? null : value / 1000);

function inMilliseconds({ measure, own, others, ownBefore, othersBefore, beside, since }: Compared): AgainstCompared {
  const of = measure === 'amiss' ? (value: number | null) => value : scaled;
  return { measure, own: of(own), others: of(others), ownBefore: of(ownBefore), othersBefore: of(othersBefore), beside, since };
}
const sideOf = ({ strands, amiss, whole, database, transit, rest, here }: PieceSide): AgainstPieceSide => ({
  strands,
  amiss,
  whole: scaled(whole),
  database: scaled(database),
  transit: scaled(transit),
  rest: scaled(rest),
  here: scaled(here),
});
