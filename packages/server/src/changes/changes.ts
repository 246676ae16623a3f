import type { Access } from '../platform/access.ts';
import type { Change, ChangeBody, Finding, KnownCause, KnownState, NearestChange } from '@fadenweg/api';
import {
  changesBefore,
  changesOf,
  changeWords,
  likelierSince,
  statesAt,
  versionSpans,
  type BeforeAndSince,
  type Change as CoreChange,
  type VersionSpan,
} from '@fadenweg/core/changes';
import { isoMicros } from '@fadenweg/core/units';
import { microsOf } from '../platform/http/inputs.ts';
import type { ChangeRepository, KnownCauseRow, RegisteredRow } from './change-rows.ts';
import type { Names } from '../evidence/names.ts';
import type { SourceRepository } from '../evidence/sources.ts';
import type { StrandRepository, StrandRow } from '../weaving/strand-rows.ts';

const HOUR = 3_600_000_000;
/** Changes that are weighed for one finding. */
const MOST_WEIGHED = 4;
/** So long before and since a change strands are counted; where they are fewer than that on one side, longer. */
const COUNTED = 6 * HOUR;
const LONGER = 8 * 24 * HOUR;
const FEW = 40;

/** What was registered without an environment concerns each of them. */
const isIn = ({ environment }: { environment: string }, asked: readonly string[]): boolean => environment === '' || asked.includes(environment);

/** A change as something else names it. */
export type ChangeAt = Pick<NearestChange, 'id' | 'kind' | 'at' | 'component' | 'host' | 'words' | 'record'>;
type Known = CoreChange & { environment: string; by: string | null; id: string };

/** What changed, when, and whether a finding began with it. */
export class Changes {
  /** Kept until something is imported, taken out or registered. */
  private known: Promise<Known[]> | null = null;

  constructor(
    private readonly rows: ChangeRepository,
    private readonly names: Names,
    private readonly sources: SourceRepository,
    private readonly strands: StrandRepository,
  ) {}

  forget(): void {
    this.known = null;
  }

  /** Changes of a window in order of time, at most `limit`, behind `after`. */
  async list(
    filter: { from: number; to: number; components: string[] | undefined; environment: string[] | undefined },
    after: { at: number; id: string } | null,
    limit: number,
  ): Promise<{ items: Change[]; next: string | null }> {
    const { from, to, components, environment } = filter;
    const fitting = (await this.all()).filter(
      (one) =>
        one.at >= from &&
        one.at < to &&
        (!environment || isIn(one, environment)) &&
        (!components || components.some((name) => name === one.component || one.names.includes(name.toLowerCase()))) &&
        (after === null || one.at > after.at || (one.at === after.at && one.id > after.id)),
    );
    const shown = fitting.slice(0, limit);
    const last = shown.at(-1);
    return { items: shown.map(inWords), next: fitting.length > limit && last ? `${last.at}~${last.id}` : null };
  }

  /** When which version of a component was in force, host by host. @param environment null for all */
  async versions(component: string, environment: readonly string[] | null): Promise<VersionSpan[]> {
    const known = await this.all();
    return versionSpans(environment === null ? known : known.filter((one) => isIn(one, environment)), component);
  }

  /** What was last known at an instant. */
  async states(at: number, environment: string[] | undefined): Promise<KnownState[]> {
    const all = await this.all();
    const places = [...new Set(all.map((one) => one.environment))].filter((one) => !environment || environment.includes(one));
    return places.flatMap((place) =>
      statesAt(
        all.filter((one) => one.environment === place),
        at,
      ).map((state) => ({ ...state, since: isoMicros(state.since), environment: place })),
    );
  }

  async register({ what, component = '', host = '', environment = '', at }: ChangeBody, access: Access): Promise<Change> {
    const row = await this.rows.register({
      what,
      component,
      host,
      environment,
      at: at === undefined ? Date.now() * 1000 : microsOf(at),
      who: access.who,
    });
    this.forget();
    return inWords(registered(row));
  }
  async remove(id: number): Promise<boolean> {
    const gone = await this.rows.forget(id);
    this.forget();
    return gone;
  }

  /**
   * The change before a strand's finding that explains it best: of the latest ones that touch its components or their hosts, the one since which the same
   * finding is most surely more likely; else the latest, with what is known of it.
   */
  async before(strand: StrandRow, finding: Finding, at: number, hosts: readonly string[]): Promise<NearestChange | null> {
    const known = (await this.all()).filter((one) => isIn(one, [strand.environment]));
    // a failing record names what did not answer
    const text = finding.record.text.toLowerCase();
    const named = this.names.components().filter((name) => name.length > 2 && text.includes(name.toLowerCase()));
    const candidates = changesBefore(known, at, [finding.component, finding.failedIn, ...named], hosts, MOST_WEIGHED) as Known[];
    if (candidates.length === 0) return null;
    const weighed = await Promise.all(
      candidates.map(async (change) => {
        const counts = await this.counts(strand, finding.signature, change.at);
        return { change, counts, since: likelierSince(counts) };
      }),
    );
    const sure = weighed.filter((one) => one.since?.sure).sort((a, b) => b.since!.factor - a.since!.factor)[0];
    // what chance may explain is told only if it is close, and nothing was alike before: else any restart of last week would stand there
    const best = sure ?? weighed.find((one) => one.change.at > at - HOUR && one.counts.before.faulty === 0) ?? null;
    if (!best) return null;
    const { id, kind, component, host, record } = best.change;
    return {
      id,
      kind,
      at: isoMicros(best.change.at),
      component,
      host,
      words: changeWords(best.change),
      record,
      likelier: best.since?.factor ?? null,
      sure: best.since?.sure ?? false,
      before: { alike: best.counts.before.faulty, all: best.counts.before.all },
      since: { alike: best.counts.since.faulty, all: best.counts.since.all },
    };
  }

  /** The latest change, within some hours before an instant, of what has to do with these components. */
  async latestBefore(at: number, components: readonly string[], environment: string): Promise<ChangeAt | null> {
    const known = (await this.all()).filter((one) => isIn(one, [environment]));
    const [latest] = changesBefore(known, at, components, [], 1) as Known[];
    if (!latest || latest.at < at - COUNTED) return null;
    const { id, kind, component, host, record } = latest;
    return { id, kind, at: isoMicros(latest.at), component, host, words: changeWords(latest), record };
  }

  /** What was found out about findings that are alike, by signature, the latest first. */
  async causes(signatures: readonly string[]): Promise<Map<string, KnownCause[]>> {
    const found = new Map<string, KnownCause[]>();
    if (signatures.length === 0) return found;
    for (const row of await this.rows.knownCauses(signatures)) found.set(row.signature, [...(found.get(row.signature) ?? []), causeOf(row)]);
    return found;
  }

  private async counts({ flow, environment }: StrandRow, signature: string, at: number): Promise<BeforeAndSince> {
    if (flow === null) return { before: { faulty: 0, all: 0 }, since: { faulty: 0, all: 0 } };
    const close = await this.strands.beforeAndSince({ flow, environment }, signature, at, COUNTED);
    if (Math.min(close.before.all, close.since.all) >= FEW) return close;
    return this.strands.beforeAndSince({ flow, environment }, signature, at, LONGER);
  }

  private all(): Promise<Known[]> {
    this.known ??= this.work().catch((error: unknown) => {
      this.known = null;
      throw error;
    });
    return this.known;
  }
  private async work(): Promise<Known[]> {
    const [signs, own, evidence] = await Promise.all([this.rows.signs(), this.rows.registered(), this.sources.evidence()]);
    const hours = Math.max(1, (evidence.last - evidence.first) / HOUR);
    const names = { components: this.names.components(), hosts: this.names.hosts() };
    const told = [...signs].flatMap(([environment, spans]) =>
      changesOf(spans, names, hours).map((one): Known => ({ ...one, environment, by: null, id: one.record! })),
    );
    return [...told, ...own.map(registered)].sort((a, b) => a.at - b.at || (a.id < b.id ? -1 : 1));
  }
}

export const causeOf = ({ id, was, remedy, owner, strand, who, noted_at }: KnownCauseRow): KnownCause => ({ id, was, remedy, owner, strand, by: who, at: noted_at.toISOString() }); // prettier-ignore

const registered = ({ id, at, component, host, environment, what, who }: RegisteredRow): Known => ({
  id: `registered-${id}`,
  kind: 'registered',
  at,
  component,
  host,
  environment,
  subject: '',
  before: '',
  after: '',
  away: null,
  text: what,
  record: null,
  names: [],
  by: who,
});

function inWords({ id, kind, at, component, host, environment, subject, before, after, text, record, by, ...rest }: Known): Change {
  const words = changeWords({ id, kind, at, component, host, subject, before, after, text, record, ...rest } as CoreChange);
  return { id, kind, at: isoMicros(at), component, host, environment, subject, before, after, words, text, record, by };
}
