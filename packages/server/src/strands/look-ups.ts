import type { KnownCause, StrandSummary } from '@fadenweg/api';
import type { Changes } from '../changes/changes.ts';
import type { DeclarationRepository } from '../declared/declarations.ts';
import type { EdgeRow, IdentifierRepository, Named, TieRow } from '../evidence/identifiers.ts';
import type { RecordRepository } from '../evidence/records.ts';
import type { RecordRow } from '../evidence/record-layout.ts';
import type { SourceRepository } from '../evidence/sources.ts';
import type { Reach } from '@fadenweg/core/coverage';
import type { FlowRules } from '@fadenweg/core/findings';
import { reachByFlow } from '../weaving/reach.ts';
import type { StrandRepository, StrandRow } from '../weaving/strand-rows.ts';
import type { Presenter } from './present.ts';

/** Strands with a finding like one, besides the strand itself. */
export interface Similar {
  count: number;
  since: number | null;
}
/** What is looked up to work one strand out. For one strand each is a query; for an export, many strands share one (`LookUpsTogether`). */
export interface LookUps {
  tiesOf(founder: number): Promise<TieRow[]>;
  named(keys: readonly number[]): Promise<Map<number, Named>>;
  edgesAmong(keys: readonly number[]): Promise<EdgeRow[]>;
  /** In the order in which they are stored, from the first on. */
  records(row: StrandRow, ties: readonly TieRow[], from: number, limit: number): Promise<RecordRow[]>;
  paths(ids: readonly number[]): Promise<Map<number, { path: string }>>;
  evidenceEnd(): Promise<number>;
  /** How far the evidence of components reaches, for a flow. */
  reach(flow: FlowRules): Promise<Reach>;
  related(founder: number): Promise<StrandSummary[]>;
  similar(signature: string, except: number): Promise<Similar>;
  /** The first strand of a flow with a party. */
  firstOf(flow: string, party: number): Promise<Pick<StrandRow, 'founder' | 'value'> | undefined>;
  causes(signatures: readonly string[]): Promise<Map<string, KnownCause[]>>;
}

export interface LookUpRows {
  strands: StrandRepository;
  records: RecordRepository;
  identifiers: IdentifierRepository;
  declarations: DeclarationRepository;
  sources: SourceRepository;
  presenter: Presenter;
  changes: Changes;
}

/** A query for each. */
export function lookUpsAlone({ strands, records, identifiers, declarations, sources, presenter, changes }: LookUpRows): LookUps {
  return {
    tiesOf: (founder) => identifiers.tiesOf(founder),
    named: (keys) => identifiers.named(keys),
    edgesAmong: (keys) => identifiers.edgesAmong(keys),
    records: (row, ties, from, limit) => records.ofStrand(row.founder, ties, from, row.ended_at, null, limit),
    paths: (ids) => sources.byIds(ids),
    evidenceEnd: () => sources.evidenceEnd(),
    reach: async (flow) => reachByFlow(await sources.spans())(flow),
    related: async (founder) => presenter.summaries(await strands.related(founder), await declarations.flows()),
    similar: (signature, except) => strands.similar(signature, except),
    firstOf: (flow, party) => strands.firstOf(flow, party),
    causes: (signatures) => changes.causes(signatures),
  };
}
