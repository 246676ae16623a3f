import { KeptAWhile } from '../platform/kept-a-while.ts';
import type {
  ExportedStrand,
  Finding,
  Outcome,
  Page,
  RecordPlace,
  StoryChapter,
  Strand,
  StrandGroup,
  StrandGrouping,
  StrandLine,
  StrandSummary,
} from '@fadenweg/api';
import { EVERYWHERE } from '@fadenweg/core/coverage';
import { firstLine, judgeStrand, type FlowRules, type Twin } from '@fadenweg/core/findings';
import { arranged, excerptOf, pathOf, type Path, type StrandRecord } from '@fadenweg/core/path';
import { tellingParts } from '@fadenweg/core/shapes';
import { rowsOf } from '@fadenweg/core/jobs';
import { storyOf } from '@fadenweg/core/story';
import { isoMicros, type Level } from '@fadenweg/core/units';
import { usualOfSteps } from '@fadenweg/core/usual';
import type { FlowWithUsual } from '../declared/declarations.ts';
import { ALWAYS, founderOfId, strandId, type EdgeRow, type Named, type TieRow } from '../evidence/identifiers.ts';
import type { KnownFaults } from '../evidence/known-faults.ts';
import type { Names } from '../evidence/names.ts';
import type { Cursor } from '../evidence/records.ts';
import type { RecordRow } from '../evidence/record-layout.ts';
import type { StrandCursor, StrandFilter, StrandRow, StrandSort } from '../weaving/strand-rows.ts';
import { MOST_RECORDS } from '../weaving/gather.ts';
import { summaryOf } from './call-summary.ts';
import { withHolder, type LockHolders } from './lock-holders.ts';
import { namedBy } from './present.ts';
import { recordKey } from '../evidence/record-key.ts';
import { lookUpsTogether } from './look-ups-together.ts';
import { lookUpsAlone, type LookUpRows, type LookUps } from './look-ups.ts';
import { findingInWords, identifiersOf, partsInWords, pathInWords } from './strand-in-words.ts';

/** Most records that one strand's page follows at once. */
const FOLLOWED = Math.min(5000, MOST_RECORDS);
/** Strands among which to choose, the latest first. */
const MOST_CHOICES = 100;
/** A record may be placed so much later than it is stored, in microseconds. */
const COARSE = 1_000_000;
type Flow = FlowRules & Pick<FlowWithUsual, 'usualUs' | 'usual'>;

export interface Followed {
  ties: TieRow[];
  /** In the order in which they most likely happened. */
  rows: RecordRow[];
  records: StrandRecord[];
  /** The last one as stored. */
  last: RecordRow | null;
  /** Its own identifiers and its parties. */
  named: Map<number, Named>;
  /** What its records name beside them. */
  quoted: Map<number, Named>;
  edges: EdgeRow[];
  path: Path;
}

/** Strands with so many records are not worked out anew for each page of them. */
const LONG = 1000;

/** One strand as a whole, worked out from its records by the same computation that judged it. */
export class StrandService {
  private readonly alone: LookUps;
  private readonly reading = new KeptAWhile<Followed>(4, 10_000, ({ rows }) => rows.length >= LONG);

  constructor(
    private readonly rowsOf: LookUpRows & { holders: LockHolders; faults: KnownFaults },
    private readonly names: Names,
  ) {
    this.alone = lookUpsAlone(rowsOf);
  }

  async list(filter: StrandFilter, sort: StrandSort, after: StrandCursor | null, limit: number): Promise<Page<StrandSummary>> {
    const rows = await this.rowsOf.strands.list(filter, sort, after, limit + 1);
    const shown = rows.slice(0, limit);
    const last = shown[shown.length - 1];
    return {
      items: await this.rowsOf.presenter.summaries(shown, await this.rowsOf.declarations.flows()),
      next: rows.length > limit && last ? `${sort.endsWith('duration') ? last.duration : last.started_at}~${last.founder}` : null,
    };
  }
  /** Strands of the list as they stand in the database, page by page. */
  rows(filter: StrandFilter, after: StrandCursor | null, limit: number): Promise<StrandRow[]> {
    return this.rowsOf.strands.list(filter, 'started', after, limit);
  }
  async summaries(rows: readonly StrandRow[]): Promise<StrandSummary[]> {
    return this.rowsOf.presenter.summaries(rows, await this.rowsOf.declarations.flows());
  }
  /** Strands grouped by what they have in common, the largest group first. */
  async groups(by: StrandGrouping, filter: StrandFilter, limit: number): Promise<StrandGroup[]> {
    const [rows, flows] = await Promise.all([this.rowsOf.strands.groups(by, filter, limit), this.rowsOf.declarations.flows()]);
    const named = await this.rowsOf.identifiers.named(by === 'party' ? rows.map((row) => Number(row.name)) : []);
    return rows.flatMap((row) => {
      const party = by === 'party' ? named.get(Number(row.name)) : null;
      if (party === undefined) return []; // taken out meanwhile
      const key = party?.value ?? String(row.name ?? 'none');
      const label =
        by === 'flow'
          ? (flows.find((flow) => flow.name === row.name)?.label ?? (row.name === null ? 'other strands' : key))
          : by === 'finding'
            ? firstSentence(row.headline)
            : key;
      return {
        key,
        label,
        kind: party?.label ?? '',
        strands: row.strands,
        outcomes: row.outcomes,
        p50Ms: row.p50 / 1000,
        p95Ms: row.p95 / 1000,
        lastStartedAt: isoMicros(row.last),
      };
    });
  }
  counts(filter: StrandFilter) {
    return this.rowsOf.strands.counts(filter);
  }

  /** Where an id leads: the strand's founder, the id of the strand that its identifier belongs to now, several of them where it was used again, or nothing. */
  async resolve(id: string): Promise<{ row: StrandRow } | { moved: string } | { choices: StrandSummary[] } | null> {
    const key = founderOfId(id);
    if (key === null) return null;
    const row = await this.rowsOf.strands.byFounder(key);
    if (row) return { row };
    const ties = await this.rowsOf.identifiers.ties(key);
    const founders = [
      ...new Set((ties.some((tie) => tie.valid_to === ALWAYS) ? ties.filter((tie) => tie.valid_to === ALWAYS) : ties).map((tie) => tie.founder)),
    ];
    if (founders.length > 1) {
      const rows = (await this.rowsOf.strands.byFounders(founders)).sort((a, b) => b.started_at - a.started_at).slice(0, MOST_CHOICES);
      return { choices: await this.rowsOf.presenter.summaries(rows, await this.rowsOf.declarations.flows()) };
    }
    const owner = founders.length === 1 ? (await this.rowsOf.identifiers.named(founders)).get(founders[0]!) : undefined;
    return owner ? { moved: strandId(owner.kind, owner.scope, owner.value) } : null;
  }

  async strand(row: StrandRow): Promise<Strand> {
    return (await this.worked(row)).strand;
  }

  /** For many strands, one after the other or side by side: each with, if wanted, where its records stand (the path of the source below what was brought in, the line from 1). */
  exporting(withRecords: boolean): (row: StrandRow) => Promise<ExportedStrand> {
    const look = lookUpsTogether(this.rowsOf);
    return async (row) => {
      const { strand, places } = await this.worked(row, look);
      return withRecords ? { ...strand, recordsAt: places } : strand;
    };
  }

  /** What a strand is, told for somebody who does not read logs. */
  async story(row: StrandRow): Promise<StoryChapter[]> {
    const [{ rows, records, named, path }, flows] = await Promise.all([this.followed(row), this.rowsOf.declarations.flows()]);
    const flow = flows.find((one) => one.name === row.flow) ?? null;
    const { findings } = await this.judged(records, path, flow, await this.twin(row, named, this.alone), this.alone);
    return storyOf(records, path, findings).map(({ step, leg, record, sentence, knot }) => ({
      step,
      leg,
      knot,
      record: recordKey(rows[record]!),
      parts: partsInWords(sentence, rows),
    }));
  }

  private async worked(row: StrandRow, look: LookUps = this.alone): Promise<{ strand: Strand; places: RecordPlace[] }> {
    const { founder } = row;
    const [{ ties, rows, records, named, edges, path }, flows, relatedSummaries] = await Promise.all([
      this.followed(row, look),
      this.rowsOf.declarations.flows(),
      look.related(founder),
    ]);
    const own = named.get(founder)!;
    const flow = flows.find((one) => one.name === row.flow) ?? null;
    const [twin, paths] = await Promise.all([this.twin(row, named, look), look.paths(rows.map((one) => one.source_id))]);
    const { outcome, findings, legs, call } = await this.judged(records, path, flow, twin, look);
    const attributes: Record<string, string> = {};
    for (const key of row.parties) {
      const party = named.get(key);
      if (party) attributes[party.kind] ??= party.value;
    }
    const legAt = legsByRecord(path);
    const places = rows.map((one, i) => ({
      source: paths.get(one.source_id)?.path ?? '',
      line: one.line,
      carried: one.home === null,
      leg: legAt[i]!,
    }));
    const strand: Strand = {
      id: strandId(own.kind, own.scope, row.value),
      flow: row.flow,
      flowLabel: flow?.label ?? own.label,
      ...namedBy(own, row.value),
      kind: own.kind,
      // of a very long one as much as is followed here tells less than all that was judged
      outcome: rows.length < row.records ? (row.outcome as Outcome) : outcome,
      attributes,
      startedAt: isoMicros(path.startedAt),
      endedAt: isoMicros(path.endedAt),
      durationMs: path.duration / 1000,
      usualMs: flow === null || flow.usualUs === null ? null : flow.usualUs / 1000,
      records: row.records,
      identifiers: identifiersOf(founder, ties, edges, named, row.parties),
      legs: path.legs.map((leg, i) => ({
        id: leg.id,
        flow: i === 0 ? row.flow : null,
        entry: firstLine(rows[leg.records[0]!]!.message),
        startedAt: isoMicros(leg.startedAt),
        endedAt: isoMicros(leg.endedAt),
        outcome: legs[i]!,
        records: leg.records.length,
      })),
      ...pathInWords(path, rows, named, flow?.usual ? usualOfSteps(records, path, flow.usual.holding(records[0]!.at)) : new Map()),
      findings: await this.withOthers(row, findings.map((finding) => findingInWords(finding, rows, paths, legAt)), rows, twin, look), // prettier-ignore
      call: call && summaryOf(call, { strand: strandId(own.kind, own.scope, row.value), flow: row.flow, outcome, headline: row.headline }),
      rows: row.told_rows.length > 0 ? rowsOf(row.told_rows) : null,
      fault: row.fault === null ? null : await this.rowsOf.faults.told(row.fault),
      related: relatedSummaries.map((one) => ({
        strand: one.id,
        businessId: one.businessId,
        name: one.name,
        flowLabel: one.flowLabel,
        why: one.startedAt < isoMicros(path.startedAt) ? 'named here' : 'names this one',
      })),
      cut: rows.length < row.records ? { followed: rows.length, of: row.records } : null,
    };
    return { strand, places };
  }

  /** Findings with what takes others to know: how many strands are alike, which one held what was waited for, what changed before, what is known of the like. */
  private async withOthers(
    row: StrandRow,
    findings: Finding[],
    rows: readonly RecordRow[],
    twin: { strand: string } | null,
    look: LookUps,
  ): Promise<Finding[]> {
    const { holders, changes } = this.rowsOf;
    const [holder, causes] = await Promise.all([holders.of(row.founder, rows), look.causes(findings.map((one) => one.signature))]);
    return Promise.all(
      findings.map(async (finding) => {
        const { count, since } = await look.similar(finding.signature, row.founder);
        const waited = holder && this.names.component(holder.component) === finding.component;
        const other = waited ? holder.strand : finding.kind === 'doubled' ? twin?.strand : undefined;
        // the change that brings the first of them about lies before it
        const began = rows.find((one) => recordKey(one) === finding.record.id)?.at ?? row.started_at;
        return {
          ...finding,
          // of all of them, this one among them
          similar: since === null ? null : { count, since: isoMicros(Math.min(since, row.started_at)) },
          causedBy: other === undefined ? null : { strand: other, component: finding.component },
          // only the first is asked about: the others follow from it
          nearestChange: finding.rank === 1 ? await changes.before(row, finding, began, this.hostsOf(finding, rows)) : null,
          known: causes.get(finding.signature) ?? [],
          ...(waited ? withHolder(finding, holder) : {}),
        };
      }),
    );
  }
  /** Hosts on which the components of a finding speak in this strand. */
  private hostsOf({ component, failedIn }: Finding, rows: readonly RecordRow[]): string[] {
    const own = rows.filter((one) => [component, failedIn].includes(this.names.component(one.component_id)));
    return [...new Set(own.map((one) => this.names.host(one.host_id)))];
  }

  /** A page of the strand's records with the step that each belongs to. */
  async lines(row: StrandRow, after: Cursor | null, limit: number): Promise<Page<StrandLine>> {
    const { ties, rows, last, named, quoted, path } = await this.followed(row);
    const { steps, stepOf } = path;
    const stepIn = new Map(rows.map((one, index) => [recordKey(one), steps[stepOf[index]!]]));
    const place = after ? rows.findIndex((one) => one.id === after.id) : -1;
    // behind what is followed they come as they are stored
    const behind = after !== null && (place < 0 || place === rows.length - 1);
    const from = place < 0 ? after! : last!;
    const page = behind ? await this.recordRows(row, ties, from, limit + 1) : rows.slice(place + 1, place + 2 + limit);
    const more = page.length > limit || (!behind && place + 1 + limit >= rows.length && rows.length < row.records);
    const shown = page.slice(0, limit);
    const known = behind
      ? await this.rowsOf.presenter.recordsOf(shown)
      : await this.rowsOf.presenter.recordsOfOne(row, shown, new Map([...named, ...quoted]));
    const items = known.map((record) => {
      const step = stepIn.get(record.id);
      return { ...record, step: step?.id ?? 0, leg: step?.leg ?? null };
    });
    return { items, next: more && shown.length > 0 ? recordKey(shown[shown.length - 1]!) : null };
  }

  /** What a strand consists of, with its path. The strand and its lines are asked for side by side, and long ones page by page. */
  followed(row: StrandRow, look: LookUps = this.alone): Promise<Followed> {
    return this.reading.get(`${row.founder} ${row.records} ${row.ended_at}`, () => this.follow(row, look));
  }
  private async follow(row: StrandRow, look: LookUps): Promise<Followed> {
    const ties = await look.tiesOf(row.founder);
    const keys = [...new Set(ties.map((tie) => tie.key))];
    const [rows, named, edges] = await Promise.all([
      look.records(row, ties, row.started_at - COARSE, FOLLOWED),
      look.named([row.founder, ...keys, ...row.parties]),
      look.edgesAmong(keys),
    ]);
    const quoted = await look.named(rows.flatMap((one) => one.keys ?? []).filter((key) => !named.has(key)));
    const { records, places } = arranged(rows.map((one) => this.coreRecord(one)));
    const isLink = (key: number): boolean => (named.get(key) ?? quoted.get(key))?.role === 'link';
    return {
      ties,
      rows: places.map((place) => rows[place]!),
      records,
      last: rows.at(-1) ?? null,
      named,
      quoted,
      edges,
      path: pathOf(records, isLink),
    };
  }
  /** The earlier strand of its flow with which it shares an identifier that belongs to one only. */
  private async twin(
    { founder, flow, parties }: StrandRow,
    named: Map<number, Named>,
    look: LookUps = this.alone,
  ): Promise<(Twin & { strand: string }) | null> {
    if (flow === null) return null;
    const once = new Map(
      (await this.rowsOf.declarations.kinds()).flatMap((kind) => (kind.role === 'shared' && kind.once ? [[kind.name, kind.label]] : [])),
    );
    for (const key of parties) {
      const name = named.get(key);
      const label = name && once.get(name.kind);
      const first = label === undefined ? undefined : await look.firstOf(flow, key);
      if (name && label !== undefined && first && first.founder !== founder) {
        const other = (await look.named([first.founder])).get(first.founder);
        return { key, label, value: name.value, of: first.value, strand: other ? strandId(other.kind, other.scope, other.value) : '' };
      }
    }
    return null;
  }
  private recordRows(row: StrandRow, ties: readonly TieRow[], after: Cursor, limit: number): Promise<RecordRow[]> {
    // what is told in whole seconds may be placed later than it is stored
    return this.rowsOf.records.ofStrand(row.founder, ties, row.started_at - COARSE, row.ended_at, after, limit);
  }
  private async judged(records: StrandRecord[], path: Path, flow: Flow | null, twin: Twin | null, look: LookUps) {
    const [evidenceEnd, reach] = await Promise.all([look.evidenceEnd(), flow ? look.reach(flow) : EVERYWHERE]);
    return judgeStrand({ records, path, flow, evidenceEnd, usual: flow?.usual ?? null, reach, twin });
  }
  private coreRecord(row: RecordRow): StrandRecord {
    return {
      id: recordKey(row),
      at: row.at,
      component: this.names.component(row.component_id),
      host: this.names.host(row.host_id),
      level: row.level as Level,
      marks: row.marks,
      took: row.took ?? NaN,
      message: excerptOf(row.message),
      shape: row.shape,
      ...tellingParts(row.traits ?? ''),
      keys: row.keys ?? [],
    };
  }
}

/** The leg of each record, from 1. */
function legsByRecord({ legs, stepOf }: Path): number[] {
  const found = Array.from(stepOf, () => 1);
  for (const leg of legs) for (const index of leg.records) found[index] = leg.id;
  return found;
}
/** Up to the first full stop behind which a new sentence begins. */
const firstSentence = (text: string): string => /^.*?\.(?= [A-Z])/.exec(text)?.[0] ?? text;
