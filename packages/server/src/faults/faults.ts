import type { Fault, FaultDetail, Faults, FaultSaid, FaultState } from '@fadenweg/api';
import { faultTitle } from '@fadenweg/core/faults';
import { slotsOf, standingOut } from '@fadenweg/core/rounds';
import { isoMicros, type Microseconds } from '@fadenweg/core/units';
import { weightIndex, weightName, weightOfFault, type WeightName } from '@fadenweg/core/weights';
import type { Changes } from '../changes/changes.ts';
import { labelIn, type DeclarationRepository } from '../declared/declarations.ts';
import type { IdentifierRepository } from '../evidence/identifiers.ts';
import type { Names } from '../evidence/names.ts';
import { recordKey } from '../evidence/record-key.ts';
import type { RecordRepository } from '../evidence/records.ts';
import { notFound } from '../platform/http/problems.ts';
import type { Presenter } from '../strands/present.ts';
import type { StrandRepository } from '../weaving/strand-rows.ts';
import type { FaultHands, HandRow } from './fault-hands.ts';
import type { FaultAsked, FaultOfOrigin, FaultRepository, FaultRow, SaidRow } from './fault-rows.ts';
import type { FaultStanding } from './standing.ts';

/** So many are told; pieces of their courses; of what stands out, followed, and strands on a fault's page. */
const SHOWN = 200;
const PIECES = 24;
const MOST_HAVING = 60;
const MOST_TOLD = 8;
const MOST_WAYS = 200;
const DAY = 86_400_000_000;

export type FaultSort = 'strands' | 'records' | 'newest' | 'latest' | 'gravest';
export interface FaultQuery extends FaultAsked {
  zone: string;
  sort: FaultSort;
  component: string | null;
  state: FaultState | null;
  /** '' for those that nobody has in hand. */
  owner: string | null;
  /** It came up where this version of its component ran. */
  version: string | null;
  /** It weighs so much at least. */
  weight: WeightName;
  /** Also those that only followed from others, and those that are mended or tolerated. */
  all: boolean;
}

/** Errors as a short list, by where they come from. */
export class FaultService {
  constructor(
    private readonly rows: FaultRepository,
    private readonly hands: FaultHands,
    private readonly standing: FaultStanding,
    private readonly records: RecordRepository,
    private readonly identifiers: IdentifierRepository,
    private readonly strands: StrandRepository,
    private readonly presenter: Presenter,
    private readonly declarations: DeclarationRepository,
    private readonly changes: Changes,
    private readonly names: Names,
  ) {}

  async list(asked: FaultQuery): Promise<Faults> {
    const [rows, failed] = await Promise.all([this.rows.within(asked), this.rows.failed(asked)]);
    const said = await this.saidOf(rows.map((one) => one.id));
    const known = await this.inWords(rows, said, asked);
    const ofVersion = asked.version === null ? null : await this.ofVersion(asked.version, rows, asked);
    const wanted = known.filter(
      (one) =>
        (asked.component === null || one.component === asked.component) &&
        (asked.state === null || one.state === asked.state) &&
        weightIndex(one.weight) >= weightIndex(asked.weight) &&
        (asked.owner === null || one.owner === asked.owner) &&
        (ofVersion === null || ofVersion.has(one.id)),
    );
    const consequence = new Set(rows.filter(isConsequence).map((one) => one.id));
    const quiet = (state: FaultState): boolean => !asked.all && asked.state === null && (state === 'mended' || state === 'tolerated');
    const shown = wanted.filter((one) => (asked.all || !consequence.has(one.id)) && !quiet(one.state));
    const sorted = shown.sort(order(asked.sort));
    const items = sorted.slice(0, SHOWN);
    const { bounds } = slotsOf(asked.from, asked.to, asked.zone, PIECES);
    const courses = await this.rows.courses(items.map((one) => one.id), bounds, asked.environment, asked.flow); // prettier-ignore
    for (const one of items) one.course = courses.get(one.id)!;
    return {
      items,
      failed,
      consequences: asked.all ? 0 : wanted.filter((one) => consequence.has(one.id)).length,
      quiet: { mended: wanted.filter((one) => quiet(one.state) && one.state === 'mended').length, tolerated: wanted.filter((one) => quiet(one.state) && one.state === 'tolerated').length }, // prettier-ignore
      more: sorted.length - items.length,
      owners: [...new Set(known.map((one) => one.owner).filter((one) => one !== ''))].sort(),
    };
  }
  /** Those that came up in the window where a version of their component ran. */
  private async ofVersion(version: string, rows: readonly FaultRow[], { from, to, environment }: FaultAsked): Promise<Set<number>> {
    const components = [...new Set(rows.map((one) => one.component))];
    const spans = await Promise.all(
      components.map(async (component) =>
        (await this.changes.versions(component, environment))
          .filter((one) => one.version === version && one.from < to && one.to > from)
          .map((one) => ({
            component,
            host: one.host === '' ? null : (this.names.knownHost(one.host) ?? 0),
            from: Math.max(one.from, from),
            to: Math.min(one.to, to),
          })),
      ),
    );
    return this.rows.inSpans(spans.flat(), environment);
  }

  /** @param any it, or one that counts as it */
  async one(any: number, asked: FaultAsked, zone: string): Promise<FaultDetail> {
    const id = await this.rows.headOf(any);
    if (id === null) throw notFound(`The fault ${any}`);
    const together = await this.rows.members(id);
    const members = together.map((one) => one.id);
    const [row] = await this.rows.within(asked, members);
    if (!row) throw notFound(`The fault ${any}`);
    const said = await this.rows.said([id]);
    const [fault] = await this.inWords([row], new Map(said[0] ? [[id, said[0]]] : []), asked);
    const { bounds, length } = slotsOf(asked.from, asked.to, zone, PIECES);
    const flows = await this.rows.flows(members, asked);
    const names = flows.map((one) => one.flow);
    const [courses, parties, hosts, followed, latest, spans, declared, own] = await Promise.all([
      this.rows.courses([id], bounds, asked.environment),
      this.rows.having('parties', members, names, asked, MOST_HAVING),
      this.rows.having('hosts', members, names, asked, MOST_HAVING),
      this.rows.followed(members, asked, MOST_TOLD),
      this.rows.latest(members, asked),
      this.changes.versions(row.component, asked.environment),
      this.declarations.flows(),
      this.strands.list(
        { faults: members, from: asked.from, to: asked.to, began: true, environment: asked.environment },
        '-started',
        null,
        MOST_TOLD,
      ),
    ]);
    const [ways, usual] = await Promise.all([
      this.rows.ways({ members }, asked, MOST_WAYS),
      names[0] === undefined ? [] : this.rows.ways({ flow: names[0] }, asked, 1),
    ]);
    const causes = await this.changes.causes(await this.rows.signatures(members, MOST_TOLD));
    const inside = flows.reduce((sum, one) => sum + one.strands, 0);
    const others = flows.reduce((sum, one) => sum + one.of, 0) - inside;
    const named = await this.identifiers.named(parties.map((one) => one.id));
    const outside = new Map([...parties, ...hosts].map((one) => [one.id, one.outside]));
    const hands = await this.hands.of(members);
    const title = await this.titles([...followed, ...together]);
    const occurrences = await this.rows.occurrences(members, asked.from, asked.environment);
    const within = occurrences.filter((one) => one.at < asked.to);
    return {
      ...fault!,
      course: courses.get(id)!,
      slotMs: length / 1000,
      bounds: bounds.map(isoMicros),
      history: said.map(saidInWords),
      causes: [...causes.values()].flat(),
      flows: flows.map((one) => ({
        ...one,
        label: labelIn(declared)(one.flow),
      })),
      hosts: hosts.map((one) => ({ name: this.names.host(one.id), strands: one.inside })).filter((one) => one.name !== ''),
      standOut: [
        ...standingOut(parties, inside, others).flatMap((one) => {
          const name = named.get(one.id);
          return name
            ? [{ what: 'party' as const, kind: name.kind, value: name.value, inside: one.inside, outside: outside.get(one.id)!, odds: one.odds }]
            : [];
        }),
        ...standingOut(hosts, inside, others).map((one) => ({ what: 'host' as const, kind: 'host', value: this.names.host(one.id), inside: one.inside, outside: outside.get(one.id)!, odds: one.odds })), // prettier-ignore
      ].slice(0, MOST_TOLD),
      versions: spans
        .map(({ version, host, from, to }) => ({
          version,
          host,
          from: Number.isFinite(from) ? isoMicros(from) : null,
          to: Number.isFinite(to) ? isoMicros(to) : null,
          strands: within.filter((one) => one.at >= from && one.at < to && (host === '' || one.host === null || this.names.host(one.host) === host))
            .length,
        }))
        .filter((one) => one.strands > 0),
      ways: ways.map(({ components, strands }) => ({ components: components.map(this.names.component), strands })),
      usualWay: (usual[0]?.components ?? []).map(this.names.component),
      followed: followed.map((one) => ({ id: one.id, component: one.component, strands: one.strands, title: title(one) })), // prettier-ignore
      together: together.filter((one) => one.id !== id).map((one) => ({ id: one.id, component: one.component, title: title(one) })),
      parts: hands.filter((one) => one.kind === 'parted' && members.includes(one.fault)).map((one) => ({ id: one.other, words: one.words })),
      byHand: hands.map((one) => handInWords(one, members)),
      example: latest && (await this.example(latest)),
      strandsOf: (await this.presenter.summaries(own, declared)).map(({ id: strand, name, flowLabel, startedAt, headline }) => ({ id: strand, name, flowLabel, startedAt, headline })), // prettier-ignore
    };
  }

  private async example(at: { at: Microseconds; id: number }): Promise<FaultDetail['example']> {
    const row = await this.records.byId(at.at, at.id);
    if (!row) return null;
    const [told] = await this.presenter.recordsOf([row]);
    return { record: recordKey(row), at: isoMicros(row.at), message: row.message, strand: told?.strand ?? null };
  }

  private async inWords(rows: readonly FaultRow[], said: ReadonlyMap<number, SaidRow>, { environment }: FaultAsked): Promise<Fault[]> {
    const shapes = await this.records.shapes(rows.flatMap((one) => (one.shape === 0 ? [] : one.shape)));
    return Promise.all(
      rows.map(async (row): Promise<Fault> => {
        const last = said.get(row.id) ?? null;
        return {
          id: row.id,
          component: row.component,
          types: row.types,
          calls: row.calls,
          said: row.shape === 0 ? '' : (shapes.get(row.shape) ?? ''),
          traits: row.traits,
          words: row.words,
          members: row.members.length,
          state: await this.standing.stateOf(row, last, environment),
          owner: last?.owner ?? '',
          weight: weightName(weightOfFault({ ...row, gravest: row.weight })),
          strands: row.strands,
          before: row.before,
          follows: row.follows,
          unharmed: row.unharmed,
          records: row.records,
          firstAt: row.first === null ? null : isoMicros(row.first),
          lastAt: row.last === null ? null : isoMicros(row.last),
          course: [],
        };
      }),
    );
  }

  private async titles(faults: readonly FaultOfOrigin[]): Promise<(one: FaultOfOrigin) => string> {
    const shapes = await this.records.shapes(faults.flatMap((one) => (one.shape === 0 ? [] : one.shape)));
    return (one) => faultTitle({ ...one, said: shapes.get(one.shape) ?? '' });
  }

  private async saidOf(ids: readonly number[]): Promise<Map<number, SaidRow>> {
    const last = new Map<number, SaidRow>();
    for (const one of await this.rows.said(ids)) if (!last.has(one.fault)) last.set(one.fault, one);
    return last;
  }
}

/** In the window it came up only in strands that failed by another fault. */
const isConsequence = ({ strands, follows, unharmed, apart }: FaultRow): boolean => strands === 0 && follows > 0 && unharmed === 0 && apart === 0;

const handInWords = ({ kind, fault, words, who, said_at }: HandRow, members: readonly number[]): FaultDetail['byHand'][number] => ({
  kind: kind === 'together' ? kind : members.includes(fault) ? kind : 'part',
  words,
  who,
  at: said_at.toISOString(),
});
const saidInWords = ({ state, owner, note, ticket, version, since_at, until_at, who, said_at }: SaidRow): FaultSaid => ({
  state,
  owner,
  note,
  ticket,
  version,
  since: since_at === null ? null : isoMicros(since_at),
  until: until_at === null ? null : isoMicros(until_at),
  who,
  at: said_at.toISOString(),
});

function order(sort: FaultSort): (a: Fault, b: Fault) => number {
  if (sort === 'newest') return (a, b) => ((b.firstAt ?? '') < (a.firstAt ?? '') ? -1 : 1);
  if (sort === 'latest') return (a, b) => ((b.lastAt ?? '') < (a.lastAt ?? '') ? -1 : 1);
  if (sort === 'records') return (a, b) => b.records - a.records || b.strands - a.strands;
  if (sort === 'gravest') return (a, b) => weightIndex(b.weight) - weightIndex(a.weight) || b.strands - a.strands || b.records - a.records;
  // what came back first: somebody believes that it is gone
  return (a, b) =>
    Number(b.state === 'returned') - Number(a.state === 'returned') || b.strands - a.strands || b.unharmed - a.unharmed || b.records - a.records;
}
export const LONGEST = 400 * DAY;
