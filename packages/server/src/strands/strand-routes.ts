import Joi from 'joi';
import type {
  AgainstStrand,
  AgainstUsual,
  InCommon,
  Page,
  StoryChapter,
  Strand,
  StrandGroup,
  StrandGrouping,
  StrandLine,
  StrandSeries,
  StrandSummary,
  StrandCounts,
} from '@fadenweg/api';
import { LONGEST_SEARCH, type Search } from '@fadenweg/core/search';
import { weightIndex, WEIGHTS, type WeightName } from '@fadenweg/core/weights';
import { endpoint, type AnyEndpoint } from '../platform/http/endpoint.ts';
import { Pieces } from '../platform/http/leaving.ts';
import { after, instant, limit, list, microsOf, searchOf, splitList } from '../platform/http/inputs.ts';
import { Refusal } from '../platform/http/problems.ts';
import type { KnownFaults } from '../evidence/known-faults.ts';
import type { Names } from '../evidence/names.ts';
import type { StrandCursor, StrandFilter, StrandSort } from '../weaving/strand-rows.ts';
import { parseRecordKey } from '../evidence/record-key.ts';
import type { InCommonService } from './in-common.ts';
import { leads } from './leads.ts';
import type { SearchService } from './search-service.ts';
import type { StrandSeriesService } from './series.ts';
import { exportedStrands, STRAND_FORMATS, type StrandFormat } from './strand-export.ts';
import type { StrandBeside } from './strand-beside.ts';
import type { StrandService } from './strand-service.ts';

/** Strands that a search may narrow a list to. */
const MOST_HOLDING = 5000;
const OUTCOMES = ['failed', 'stalled', 'odd', 'doubled', 'slow', 'refused', 'running', 'done', 'out-of-sight'];
const id = Joi.object({ id: Joi.string().max(300).required() });
const duration = Joi.number().min(0).max(31_536_000_000);
const faultId = Joi.number().integer().min(0).max(Number.MAX_SAFE_INTEGER);
const filters = {
  identifier: Joi.string().max(200),
  q: Joi.string().trim().max(LONGEST_SEARCH),
  flow: list,
  outcome: list,
  component: list,
  host: list,
  failedIn: list,
  finding: Joi.string().max(400),
  fault: faultId,
  mentions: faultId,
  /** It weighs so much at least. */
  weight: Joi.string().valid(...WEIGHTS),
  /** Strands of faults that are mended or tolerated stand out of sight. */
  quiet: Joi.boolean().default(false),
  environment: list,
  from: instant,
  to: instant,
  began: Joi.boolean(),
  minMs: duration,
  maxMs: duration,
};
interface Filters {
  identifier?: string;
  q?: string;
  flow?: string;
  outcome?: string;
  component?: string;
  host?: string;
  failedIn?: string;
  finding?: string;
  fault?: number;
  mentions?: number;
  weight?: WeightName;
  quiet?: boolean;
  environment?: string;
  minMs?: number;
  maxMs?: number;
  from?: string;
  to?: string;
  began?: boolean;
}

/** Finds strands by what their records say. */
export interface HoldingStrands {
  foundersWith(asked: HoldingAsked, most: number): Promise<{ founders: number[]; cut: boolean }>;
}
export interface HoldingAsked {
  search: Search;
  from: number;
  to: number;
  environment?: string[];
  quiet: boolean;
  order: 'latest';
  after: null;
}

export function strandRoutes(
  strands: StrandService,
  beside: StrandBeside,
  series: StrandSeriesService,
  inCommon: InCommonService,
  search: SearchService,
  finder: () => HoldingStrands,
  faults: KnownFaults,
  names: Names,
): AnyEndpoint[] {
  const filterOf = async (query: Filters): Promise<StrandFilter> => {
    const outcome = splitList(query.outcome);
    const unknown = outcome?.find((one) => !OUTCOMES.includes(one));
    if (unknown) throw new Refusal(400, 'Unknown outcome', `There is no outcome “${unknown}”.`, `Outcomes are ${OUTCOMES.join(', ')}.`);
    const filter: StrandFilter = {
      flow: splitList(query.flow),
      outcome,
      environment: splitList(query.environment),
      // a name that no component has leaves nothing
      components: splitList(query.component)?.map((name) => names.knownComponent(name) ?? 0),
      hosts: splitList(query.host)?.map((name) => names.knownHost(name) ?? 0),
      failedIn: splitList(query.failedIn),
      finding: query.finding,
      faults: query.fault === undefined ? undefined : await faults.sameAs(query.fault),
      faultsOut: query.quiet && query.fault === undefined ? await faults.quiet() : undefined,
      mentions: query.mentions === undefined ? undefined : await faults.sameAs(query.mentions),
      weighs: query.weight === undefined ? undefined : weightIndex(query.weight),
      shortest: query.minMs === undefined ? undefined : query.minMs * 1000,
      longest: query.maxMs === undefined ? undefined : query.maxMs * 1000,
      from: query.from ? microsOf(query.from) : undefined,
      to: query.to ? microsOf(query.to) : undefined,
      began: query.began,
    };
    const named = query.identifier === undefined ? filter : { ...filter, ...(await search.narrow(query.identifier)) };
    return query.q === undefined || query.q === '' ? named : { ...named, founders: await holding(query, named) };
  };
  /** Of a filter's strands those that hold a record which a search finds. */
  async function holding({ q = '', from, to, environment }: Filters, { founders }: StrandFilter): Promise<number[]> {
    const found = await finder().foundersWith(
      {
        search: searchOf(q),
        from: from ? microsOf(from) : 0,
        to: to ? microsOf(to) : Number.MAX_SAFE_INTEGER,
        environment: splitList(environment),
        quiet: false,
        order: 'latest',
        after: null,
      },
      MOST_HOLDING,
    );
    if (found.cut)
      throw new Refusal(
        400,
        'Too many to be listed',
        `More than ${found.founders.length.toLocaleString('en')} strands hold what is searched for, or they could not all be looked for in time.`,
        'Narrow the window or the search; Find shows the records themselves, and groups them by strand.',
      );
    return founders ? found.founders.filter((one) => founders.includes(one)) : found.founders;
  }
  /** How many strands of a filter stand out of sight. */
  const outOfSight = async ({ faultsOut, ...filter }: StrandFilter): Promise<number> =>
    !faultsOut?.length ? 0 : (await strands.counts({ ...filter, faults: faultsOut })).reduce((sum, one) => sum + Number(one.count), 0);
  return [
    endpoint<Filters & { sort: StrandSort; after?: string; limit: number }>({
      method: 'get',
      path: '/strands',
      summary: 'Strands that overlap the window, paged by key',
      query: Joi.object({
        ...filters,
        sort: Joi.string().valid('started', '-started', 'duration', '-duration').default('-started'),
        after,
        limit: limit(500, 100),
      }),
      async run({ query }): Promise<Page<StrandSummary>> {
        return strands.list(await filterOf(query), query.sort, cursorOf(query.after), query.limit);
      },
    }),
    endpoint<Filters>({
      method: 'get',
      path: '/strands/counts',
      summary: 'How many strands of each flow ended how',
      query: Joi.object(filters),
      async run({ query }): Promise<StrandCounts> {
        const filter = await filterOf(query);
        const [items, quiet] = await Promise.all([strands.counts(filter), outOfSight(filter)]);
        return { items: items.map((one) => ({ ...one, count: Number(one.count) })), quiet };
      },
    }),
    endpoint<Filters & { by: StrandGrouping; limit: number }>({
      method: 'get',
      path: '/strands/groups',
      summary: 'Strands grouped by flow, by party, by the component that gave up or by the first finding: how many ended how, and how long they took',
      query: Joi.object({ ...filters, by: Joi.string().valid('flow', 'party', 'failed-in', 'finding').required(), limit: limit(500, 200) }),
      async run({ query }): Promise<Page<StrandGroup>> {
        return { items: await strands.groups(query.by, await filterOf(query), query.limit), next: null };
      },
    }),
    endpoint<Filters>({
      method: 'get',
      path: '/strands/in-common',
      summary: 'What strands of a selection have in common that others of their flow and time hardly have, the clearest first',
      query: Joi.object(filters),
      async run({ query }): Promise<InCommon> {
        return inCommon.of(await filterOf(query));
      },
    }),
    endpoint<Filters & { records: boolean; format: StrandFormat }>({
      method: 'get',
      path: '/strands/export',
      summary:
        'Strands as JSON lines, CSV, traces of OTLP (JSON lines) or XES, streaming; JSON lines with `records` each with the places of its records',
      query: Joi.object({
        ...filters,
        records: Joi.boolean().default(false),
        format: Joi.string()
          .valid(...Object.keys(STRAND_FORMATS))
          .default('jsonl'),
      }),
      async run({ query }): Promise<Pieces> {
        const filter = await filterOf(query);
        // who takes them along can tell when some are missing
        const count = (await strands.counts(filter)).reduce((sum, one) => sum + Number(one.count), 0);
        return new Pieces(exportedStrands(strands, filter, query.format, query.records), STRAND_FORMATS[query.format], {
          'X-Strands': String(count),
        });
      },
    }),
    endpoint<unknown, { id: string }>({
      method: 'get',
      path: '/strands/{id}',
      summary: 'One strand as a whole; a merged one answers 308 with its successor, an identifier of several 300 with the choices',
      params: id,
      async run({ params }): Promise<Strand> {
        const row = await leads(strands, params.id);
        return strands.strand(row);
      },
    }),
    endpoint<unknown, { id: string }>({
      method: 'get',
      path: '/strands/{id}/series',
      summary: 'The strand’s times beside those of its party and of everybody in its flow; 204 where it has no flow',
      params: id,
      async run({ params }): Promise<StrandSeries | undefined> {
        const row = await leads(strands, params.id);
        return (await series.of(row)) ?? undefined;
      },
    }),
    endpoint<unknown, { id: string }>({
      method: 'get',
      path: '/strands/{id}/against-usual',
      summary: 'The strand line by line beside what is usual for its flow; 204 where that is not known',
      params: id,
      async run({ params }): Promise<AgainstUsual | undefined> {
        const row = await leads(strands, params.id);
        return (await beside.againstUsual(row)) ?? undefined;
      },
    }),
    endpoint<{ other?: string }, { id: string }>({
      method: 'get',
      path: '/strands/{id}/against',
      summary: 'The strand line by line beside another one, or beside the nearest that went well; 204 where there is none',
      params: id,
      query: Joi.object({ other: Joi.string().max(300) }),
      async run({ params, query }): Promise<AgainstStrand | undefined> {
        const row = await leads(strands, params.id);
        const other = query.other === undefined ? await beside.nearestGood(row) : await leads(strands, query.other);
        if (other?.founder === row.founder) throw new Refusal(400, 'The same strand', 'It would be laid beside itself.', 'Name another one.');
        return other ? beside.against(row, other) : undefined;
      },
    }),
    endpoint<unknown, { id: string }>({
      method: 'get',
      path: '/strands/{id}/story',
      summary: 'The strand as a told story: a sentence a step',
      params: id,
      async run({ params }): Promise<Page<StoryChapter>> {
        const row = await leads(strands, params.id);
        return { items: await strands.story(row), next: null };
      },
    }),
    endpoint<{ after?: string; limit: number }, { id: string }>({
      method: 'get',
      path: '/strands/{id}/records',
      summary: 'The strand’s records in order of time, with their steps',
      params: id,
      query: Joi.object({ after, limit: limit(1000, 500) }),
      async run({ params, query }): Promise<Page<StrandLine>> {
        const row = await leads(strands, params.id);
        return strands.lines(row, query.after ? parseRecordKey(query.after) : null, query.limit);
      },
    }),
  ];
}

function cursorOf(text: string | undefined): StrandCursor | null {
  if (text === undefined) return null;
  const hit = /^(-?\d{1,17})~(\d{1,17})$/.exec(text);
  if (!hit) throw new Refusal(400, 'The request is not as it should be', '“after” is no place in a list of strands.');
  return { value: Number(hit[1]), founder: Number(hit[2]) };
}
