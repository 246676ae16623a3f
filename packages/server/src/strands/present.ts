import type { LevelName, LogRecord, Outcome, StrandSummary } from '@fadenweg/api';
import type { FlowRules } from '@fadenweg/core/findings';
import { MARK } from '@fadenweg/core/path';
import type { Searchable, WeightRules } from '@fadenweg/core/search';
import { isoMicros, LEVELS, type Level } from '@fadenweg/core/units';
import { weightInMarks, weightName } from '@fadenweg/core/weights';
import { FLAG, byteOfId, timeFrom } from '../evidence/record-id.ts';
import type { ParameterFields } from '../kept/parameters.ts';
import { strandId, type Named } from '../evidence/identifiers.ts';
import { recordKey } from '../evidence/record-key.ts';
import type { RecordRow } from '../evidence/record-layout.ts';
import type { EvidenceRows } from '../evidence/room.ts';
import type { StrandRepository, StrandRow } from '../weaving/strand-rows.ts';

const MARK_NAMES = Object.entries(MARK) as [string, number][];
/** What a strand is called: by a number that people ask by, else by the link that founds it. */
export const namedBy = (founder: Pick<Named, 'role'> | undefined, value: string): Pick<StrandSummary, 'businessId' | 'name'> => ({
  businessId: founder?.role === 'business' ? value : null,
  name: value,
});
/** Rows of the database in the words of the API: names for numbers, identifiers for keys. */
export class Presenter {
  constructor(
    private readonly evidence: Pick<EvidenceRows, 'identifiers' | 'records' | 'sources' | 'names' | 'copies'>,
    private readonly strands: StrandRepository,
    private readonly weights: { on(): Promise<WeightRules> },
    private readonly parameters: { on(): Promise<ParameterFields> },
  ) {}

  /** Records of any strands, each with the one that it belongs to. */
  async recordsOf(rows: readonly RecordRow[]): Promise<LogRecord[]> {
    const carried = await this.evidence.records.carriedHomes(rows);
    const homeOf = (row: RecordRow): number | null => row.home ?? carried.get(row.id) ?? null;
    const tying = rows.filter((row) => homeOf(row) !== null);
    const [named, owners] = await Promise.all([
      this.evidence.identifiers.named(rows.flatMap((row) => row.keys ?? [])),
      this.evidence.identifiers.foundersAt(tying.map((row) => ({ key: homeOf(row)!, at: row.at }))),
    ]);
    const founderOf = new Map(tying.map((row, index) => [row, owners[index] ?? null]));
    const owning = [...new Set(owners.filter((owner) => owner !== null))];
    const [founders, strands] = await Promise.all([this.evidence.identifiers.named(owning), this.strands.byFounders(owning)]);
    const strandOf = new Map(strands.map((strand) => [strand.founder, strand]));
    return this.told(rows, named, (row) => {
      const key = founderOf.get(row) ?? NaN;
      const founder = founders.get(key);
      return founder && { founder, strand: strandOf.get(key) };
    });
  }

  /** Records that are known to be of one strand. @param named what they name, and the strand's founder */
  recordsOfOne(strand: StrandRow, rows: readonly RecordRow[], named: ReadonlyMap<number, Named>): Promise<LogRecord[]> {
    const founder = named.get(strand.founder);
    const owner = founder && { founder, strand };
    return this.told(rows, named, () => owner);
  }

  private async told(
    rows: readonly RecordRow[],
    named: ReadonlyMap<number, Named>,
    ownerOf: (row: RecordRow) => { founder: Named; strand: StrandRow | undefined } | undefined,
  ): Promise<LogRecord[]> {
    const [weights, parameters, shapes, sources, copies] = await Promise.all([
      this.weights.on(),
      this.parameters.on(),
      this.evidence.records.shapes(rows.map((row) => row.shape)),
      this.evidence.sources.byIds(rows.map((row) => row.source_id)),
      this.evidence.copies.of(rows),
    ]);
    return rows.map((row): LogRecord => {
      const { founder, strand } = ownerOf(row) ?? {};
      const source = sources.get(row.source_id);
      const component = this.evidence.names.component(row.component_id);
      const shape = shapes.get(row.shape) ?? '';
      const record: LogRecord = {
        id: recordKey(row),
        at: isoMicros(row.at),
        originalAt: row.time_text,
        correctedByMs: (row.shifted ?? 0) / 1000,
        source: { id: row.source_id, path: source?.path ?? '', line: row.line, byteFrom: byteOfId(row.id), byteTo: byteOfId(row.id) + row.length },
        component,
        host: this.evidence.names.host(row.host_id),
        environment: source?.environment ?? '',
        level: LEVELS[row.level] as LevelName,
        logger: row.logger,
        message: row.message,
        attributes: { ...parameters.of(component, shape, row.message), ...row.attributes },
        identifiers: (row.keys ?? []).flatMap((key) => {
          const one = named.get(key);
          return one ? [{ kind: one.kind, value: one.value, role: one.role }] : [];
        }),
        shape,
        strand: founder && (strand ?? founder.role === 'business') ? strandId(founder.kind, founder.scope, founder.value) : null,
        flow: strand?.flow ?? null,
        outcome: (strand?.outcome as Outcome | undefined) ?? null,
        // told by the strand's own page, which works out its legs
        leg: null,
        because: founder ? (row.home === null ? 'carried-over' : 'declared') : null,
        understood: (row.flags & FLAG.understood) !== 0,
        timeFrom: timeFrom(row.flags, source),
        shortened: (row.flags & FLAG.shortened) !== 0,
        marks: MARK_NAMES.filter(([, bit]) => row.marks & bit).map(([name]) => name),
        tookMs: row.took === null ? null : row.took / 1000,
        copies: (copies.get(row.id) ?? []).map(recordKey),
        weight: weightName(weightInMarks(row.marks)),
      };
      if (weights.searches.length === 0) return record;
      const said = weights.weigh(asSearched(record, row));
      return said === null ? record : { ...record, weight: weightName(said) };
    });
  }

  async summaries(rows: readonly StrandRow[], flows: readonly (FlowRules & { usualUs: number | null })[]): Promise<StrandSummary[]> {
    return this.summariesBy(rows, flows, await this.evidence.identifiers.named(rows.flatMap((row) => [row.founder, ...row.parties])));
  }
  /** @param named their founders and parties */
  summariesBy(
    rows: readonly StrandRow[],
    flows: readonly (FlowRules & { usualUs: number | null })[],
    named: ReadonlyMap<number, Named>,
  ): StrandSummary[] {
    return rows.map((row) => {
      const founder = named.get(row.founder);
      const flow = flows.find((one) => one.name === row.flow);
      return {
        id: strandId(founder?.kind ?? '', founder?.scope ?? '', row.value),
        flow: row.flow,
        flowLabel: flow?.label ?? founder?.label ?? '',
        ...namedBy(founder, row.value),
        kind: founder?.kind ?? '',
        outcome: row.outcome as Outcome,
        environment: row.environment,
        startedAt: isoMicros(row.started_at),
        endedAt: isoMicros(row.ended_at),
        durationMs: row.duration / 1000,
        usualMs: flow === undefined || flow.usualUs === null ? null : flow.usualUs / 1000,
        records: row.records,
        failedIn: row.failed_in,
        headline: row.headline,
        parties: row.parties.flatMap((key) => {
          const party = named.get(key);
          return party ? [{ kind: party.kind, value: party.value }] : [];
        }),
        weight: weightName(row.weight),
      };
    });
  }
}

/** As rules see it: of a fault nothing is known here. */
const asSearched = (record: LogRecord, row: RecordRow): Searchable => ({
  ...record,
  at: row.at,
  level: row.level as Level,
  source: record.source.path,
  took: row.took ?? NaN,
  fields: record.attributes,
  flow: record.flow ?? '',
  outcome: record.outcome ?? '',
  fault: '',
  weight: weightInMarks(row.marks),
});
