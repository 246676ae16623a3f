import Joi from 'joi';
import type {
  Contrasted,
  FieldValues,
  FoundPage,
  GroupsPart,
  LevelName,
  LogRecord,
  Page,
  RankedPart,
  RecordInFull,
  Timeline,
  TimelinePart,
  ToldIn,
} from '@fadenweg/api';
import { codesIn } from '@fadenweg/core/explain';
import { decode, type Encoding } from '@fadenweg/core/reading';
import { LONGEST_SEARCH, rankOfText } from '@fadenweg/core/search';
import { isoMicros, LEVELS } from '@fadenweg/core/units';
import { byteOfId } from '../evidence/record-id.ts';
import { endpoint, type AnyEndpoint } from '../platform/http/endpoint.ts';
import { Pieces } from '../platform/http/leaving.ts';
import { after, instant, limit, list, microsOf, searchOf, splitList } from '../platform/http/inputs.ts';
import { notFound, Refusal } from '../platform/http/problems.ts';
import type { OwnCodes } from '../explaining/own-codes.ts';
import type { Cursor } from '../evidence/records.ts';
import type { RecordRow } from '../evidence/record-layout.ts';
import type { EvidenceRows } from '../evidence/room.ts';
import type { Effort, FindService } from './find-service.ts';
import type { Asked } from './scan.ts';
import { RECORD_FORMATS, type RecordExport, type RecordFormat } from './taken-along/record-export.ts';
import { parseRecordKey, recordKey } from '../evidence/record-key.ts';
import type { Presenter } from '../strands/present.ts';

const MOST_RAW = 2 * 1024 * 1024;
const MINUTE = 60_000_000;
const MOST_FIELDS = 20;
const FAR = 4_102_444_800_000_000;

const numbers = Joi.string()
  .pattern(/^\d{1,9}(?:,\d{1,9}){0,499}$/, 'numbers of sources with commas between them')
  .max(5000);
const inputsAmong = { environment: list, sources: numbers, withoutSources: numbers };
const asking = {
  q: Joi.string().allow('').max(LONGEST_SEARCH).default(''),
  from: instant,
  to: instant,
  ...inputsAmong,
  quiet: Joi.string().valid('hide', 'show').default('show'),
};
interface Among {
  environment?: string;
  sources?: string;
  withoutSources?: string;
}
interface Asking extends Among {
  q: string;
  from?: string;
  to?: string;
  quiet: 'hide' | 'show';
  after?: string;
}

/** What a query asks for; a mistake in the search is refused with its place. */
function asked(query: Asking, order: 'oldest' | 'latest'): Omit<Asked, 'sources'> {
  const cursor = query.after ? parseRecordKey(query.after) : null;
  if (query.after && !cursor) throw new Refusal(400, 'The request is not as it should be', '“after” is no record’s id.');
  return {
    search: searchOf(query.q),
    from: query.from ? microsOf(query.from) : 0,
    to: query.to ? microsOf(query.to) : FAR,
    environment: splitList(query.environment),
    quiet: query.quiet === 'hide',
    order,
    after: cursor,
  };
}

export function recordRoutes(
  { records, sources, bytes: kept, copies, names }: Pick<EvidenceRows, 'records' | 'sources' | 'bytes' | 'copies' | 'names'>,
  presenter: Presenter,
  find: FindService,
  own: OwnCodes,
  taken: RecordExport,
): AnyEndpoint[] {
  /** The record that is shown for one that tells the same. */
  const shownFor = async (copy: Cursor): Promise<RecordRow | undefined> => {
    const shown = await copies.shownFor(copy);
    return shown && records.byId(shown.at, shown.id);
  };
  const originalOf = async ({ id, source_id, length }: RecordRow): Promise<{ path: string; raw: string; rawCut: boolean }> => {
    const source = await sources.source(source_id);
    const bytes = await kept.stretch(source_id, byteOfId(id), byteOfId(id) + Math.min(length, MOST_RAW));
    return { path: source?.path ?? '', raw: decode(bytes, (source?.encoding ?? 'utf-8') as Encoding), rawCut: length > MOST_RAW };
  };
  const toldIn = async (row: RecordRow): Promise<ToldIn> => {
    const { path, ...original } = await originalOf(row);
    const from = byteOfId(row.id);
    return {
      id: recordKey(row),
      source: { id: row.source_id, path, line: row.line, byteFrom: from, byteTo: from + row.length },
      component: names.component(row.component_id),
      originalAt: row.time_text,
      ...original,
    };
  };
  const one = async (id: string): Promise<RecordRow> => {
    const key = parseRecordKey(id);
    const row = key && ((await records.byId(key.at, key.id)) ?? (await shownFor(key)));
    if (!row) throw notFound('This record');
    return row;
  };
  /** Sources that a query names, with all parts of theirs. */
  const among = async ({ sources: only, withoutSources }: Among): Promise<Asked['sources']> => {
    if (only !== undefined && withoutSources !== undefined)
      throw new Refusal(400, 'The request is not as it should be', 'Either “sources” or “withoutSources”, not both.');
    const names = only ?? withoutSources;
    return names === undefined ? undefined : { ids: await sources.withParts(names.split(',').map(Number)), out: only === undefined };
  };
  const question = async (query: Asking, signal: AbortSignal, order: 'oldest' | 'latest' = 'latest'): Promise<Asked> => ({
    ...asked(query, order),
    sources: await among(query),
    signal,
  });
  return [
    endpoint<Asking & { order: 'oldest' | 'latest'; after?: string; limit: number }>({
      method: 'get',
      path: '/records',
      summary: 'Records of a window that a search finds, paged by key; a page may end early, and `next` goes on',
      query: Joi.object({ ...asking, order: Joi.string().valid('oldest', 'latest').default('latest'), after, limit: limit(1000, 200) }),
      async run({ query, signal }): Promise<FoundPage> {
        return find.page(await question(query, signal, query.order), query.limit);
      },
    }),
    endpoint<Asking & { order: 'oldest' | 'latest'; format: RecordFormat }>({
      method: 'get',
      path: '/records/export',
      summary: 'All records of a window that a search finds, as JSON lines, CSV or OTLP logs, streaming',
      query: Joi.object({
        ...asking,
        after: Joi.forbidden(),
        order: Joi.string().valid('oldest', 'latest').default('oldest'),
        format: Joi.string()
          .valid(...Object.keys(RECORD_FORMATS))
          .default('jsonl'),
      }),
      async run({ query, signal }): Promise<Pieces> {
        const { format, ...rest } = query;
        const wanted = await question(rest, signal, query.order);
        return new Pieces(taken.pieces(wanted, format), RECORD_FORMATS[format]);
      },
    }),
    endpoint<Asking & { from: string; to: string; slotMs: number; after?: string }>({
      method: 'get',
      path: '/records/tally',
      summary: 'How many records a search finds, by time slot and level, part after part from the latest back',
      query: Joi.object({ ...asking, from: instant.required(), to: instant.required(), slotMs: Joi.number().integer().min(1).required(), after }),
      async run({ query, signal }): Promise<TimelinePart> {
        return find.tally(await question(query, signal), query.slotMs * 1000);
      },
    }),
    endpoint<Asking & { fields: string; limit: number; effort: Effort }>({
      method: 'get',
      path: '/records/values',
      summary: 'The most frequent values of fields among the latest records that a search finds',
      query: Joi.object({
        ...asking,
        fields: list.required(),
        limit: limit(200, 20),
        effort: Joi.string().valid('quick', 'thorough').default('thorough'),
      }),
      async run({ query, signal }): Promise<Page<FieldValues>> {
        const fields = [...new Set(splitList(query.fields) ?? [])].slice(0, MOST_FIELDS);
        return { items: await find.values(await question(query, signal), fields, query.limit, query.effort), next: null };
      },
    }),
    endpoint<Asking>({
      method: 'get',
      path: '/records/fields',
      summary: 'Names of fields that records have, for a search to ask for',
      query: Joi.object(asking),
      async run({ query, signal }): Promise<Page<string>> {
        return { items: await find.fields(await question(query, signal)), next: null };
      },
    }),
    endpoint<Asking & { by: string; after?: string }>({
      method: 'get',
      path: '/records/groups',
      summary: 'What a search finds, grouped by the values of a field or by strand, part after part from the latest back',
      query: Joi.object({ ...asking, by: Joi.string().max(100).required(), after }),
      async run({ query, signal }): Promise<GroupsPart> {
        return find.groups(await question(query, signal), query.by);
      },
    }),
    endpoint<Asking & { by: string; direction: 'up' | 'down'; beyond?: string; limit: number; after?: string }>({
      method: 'get',
      path: '/records/ranked',
      summary:
        'The foremost records by a field among what a search finds, part after part from the latest back; `beyond` leaves out what is no better',
      query: Joi.object({
        ...asking,
        by: Joi.string().max(100).required(),
        direction: Joi.string().valid('up', 'down').default('down'),
        beyond: Joi.string().max(400),
        limit: limit(500, 200),
        after,
      }),
      async run({ query, signal }): Promise<RankedPart> {
        const beyond = query.beyond === undefined ? null : rankOfText(query.beyond);
        return find.ranked(await question(query, signal), { field: query.by, down: query.direction === 'down', beyond }, query.limit);
      },
    }),
    endpoint<Asking & { field: string; value: string }>({
      method: 'get',
      path: '/records/against',
      summary: 'What tells the records with a value of a field from all others among the latest that a search finds',
      query: Joi.object({ ...asking, field: Joi.string().max(100).required(), value: Joi.string().max(300).required() }),
      async run({ query, signal }): Promise<Contrasted> {
        return find.against(await question(query, signal), query.field, query.value);
      },
    }),
    endpoint<Among & { from: string; to: string; slots: number }>({
      method: 'get',
      path: '/records/timeline',
      summary: 'Counts of a window by time slot and level',
      query: Joi.object({
        from: instant.required(),
        to: instant.required(),
        ...inputsAmong,
        slots: Joi.number().integer().min(1).max(1000).default(120),
      }),
      async run({ query }): Promise<Timeline> {
        const from = Math.floor(microsOf(query.from) / MINUTE) * MINUTE;
        const to = Math.ceil(microsOf(query.to) / MINUTE) * MINUTE;
        if (to <= from) throw new Refusal(400, 'The window is empty', 'Its end is not after its begin.');
        const slot = Math.max(1, Math.ceil((to - from) / MINUTE / query.slots)) * MINUTE;
        const counts = await records.timeline({ from, to, slot }, { environment: splitList(query.environment), sources: await among(query) });
        const slots: Timeline['slots'] = Array.from({ length: Math.ceil((to - from) / slot) }, (_, i) => ({
          from: isoMicros(from + i * slot),
          counts: {},
        }));
        for (const one of counts) slots[one.slot]!.counts[LEVELS[one.level] as LevelName] = one.count;
        return { from: isoMicros(from), to: isoMicros(to), slotMs: slot / 1000, slots };
      },
    }),
    endpoint<unknown, { id: string }>({
      method: 'get',
      path: '/records/{id}',
      summary: 'One record in full, with its original text',
      params: Joi.object({ id: Joi.string().max(40).required() }),
      async run({ params }): Promise<RecordInFull> {
        const row = await one(params.id);
        const { raw, rawCut } = await originalOf(row);
        const [record] = await presenter.recordsOf([row]);
        const codes = codesIn({ message: row.message, fields: row.attributes ?? {}, component: record!.component }, await own.all());
        return { ...record!, codes, raw, rawCut, toldIn: await Promise.all((await copies.allOf(row.id)).map(toldIn)) };
      },
    }),
    endpoint<{ scope: 'source' | 'component' | 'host' | 'all'; before: number; after: number }, { id: string }>({
      method: 'get',
      path: '/records/{id}/around',
      summary: 'What stood around a record',
      params: Joi.object({ id: Joi.string().max(40).required() }),
      query: Joi.object({
        scope: Joi.string().valid('source', 'component', 'host', 'all').default('source'),
        before: Joi.number().integer().min(0).max(500).default(10),
        after: Joi.number().integer().min(0).max(500).default(10),
      }),
      async run({ params, query }): Promise<Page<LogRecord>> {
        const row = await one(params.id);
        return { items: await presenter.recordsOf(await records.around({ scope: query.scope, row }, query.before, query.after)), next: null };
      },
    }),
  ];
}
