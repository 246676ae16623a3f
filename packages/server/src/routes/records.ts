import Joi from 'joi';
import type { FieldValues, FoundPage, LevelName, LogRecord, Page, RecordInFull, Timeline, TimelinePart } from '@fadenweg/api';
import { decode, isoMicros, LEVELS, LONGEST_SEARCH, parseSearch, type Encoding } from '@fadenweg/core';
import { byteOfId } from '../intake/batch.ts';
import { endpoint, type AnyEndpoint } from '../http/endpoint.ts';
import { after, instant, limit, list, microsOf, splitList } from '../http/inputs.ts';
import { notFound, Refusal } from '../http/problems.ts';
import type { RecordRepository, RecordRow } from '../repositories/records.ts';
import type { SourceRepository } from '../repositories/sources.ts';
import type { Asked, FindService } from '../services/find/find-service.ts';
import { parseRecordKey, type Presenter } from '../services/present.ts';

const MOST_RAW = 2 * 1024 * 1024;
const MINUTE = 60_000_000;
const MOST_FIELDS = 20;
const FAR = 4_102_444_800_000_000;

const asking = { q: Joi.string().allow('').max(LONGEST_SEARCH).default(''), from: instant, to: instant, environment: list };
interface Asking {
  q: string;
  from?: string;
  to?: string;
  environment?: string;
  after?: string;
}

/** What a query asks for; a mistake in the search is refused with its place. */
function asked(query: Asking, order: 'oldest' | 'latest'): Asked {
  const { search, problem } = parseSearch(query.q);
  if (problem)
    throw new Refusal(
      400,
      'The search is not understood',
      `${problem.message} (character ${problem.from + 1})`,
      problem.proposal ? `Perhaps: ${problem.proposal}` : undefined,
    );
  const cursor = query.after ? parseRecordKey(query.after) : null;
  if (query.after && !cursor) throw new Refusal(400, 'The request is not as it should be', '“after” is no record’s id.');
  return {
    search,
    from: query.from ? microsOf(query.from) : 0,
    to: query.to ? microsOf(query.to) : FAR,
    environment: splitList(query.environment),
    order,
    after: cursor,
  };
}

export function recordRoutes(records: RecordRepository, sources: SourceRepository, presenter: Presenter, find: FindService): AnyEndpoint[] {
  const one = async (id: string): Promise<RecordRow> => {
    const key = parseRecordKey(id);
    const row = key ? await records.byId(key.at, key.id) : undefined;
    if (!row) throw notFound('This record');
    return row;
  };
  return [
    endpoint<Asking & { order: 'oldest' | 'latest'; after?: string; limit: number }>({
      method: 'get',
      path: '/records',
      summary: 'Records of a window that a search finds, paged by key; a page may end early, and `next` goes on',
      query: Joi.object({ ...asking, order: Joi.string().valid('oldest', 'latest').default('latest'), after, limit: limit(1000, 200) }),
      async run({ query }): Promise<FoundPage> {
        return find.page(asked(query, query.order), query.limit);
      },
    }),
    endpoint<Asking & { from: string; to: string; slotMs: number; after?: string }>({
      method: 'get',
      path: '/records/tally',
      summary: 'How many records a search finds, by time slot and level, part after part from the latest back',
      query: Joi.object({ ...asking, from: instant.required(), to: instant.required(), slotMs: Joi.number().integer().min(1).required(), after }),
      async run({ query }): Promise<TimelinePart> {
        return find.tally(asked(query, 'latest'), query.slotMs * 1000);
      },
    }),
    endpoint<Asking & { fields: string; limit: number }>({
      method: 'get',
      path: '/records/values',
      summary: 'The most frequent values of fields among the latest records that a search finds',
      query: Joi.object({ ...asking, fields: list.required(), limit: limit(200, 20) }),
      async run({ query }): Promise<Page<FieldValues>> {
        const fields = [...new Set(splitList(query.fields) ?? [])].slice(0, MOST_FIELDS);
        return { items: await find.values(asked(query, 'latest'), fields, query.limit), next: null };
      },
    }),
    endpoint<{ from: string; to: string; slots: number }>({
      method: 'get',
      path: '/records/timeline',
      summary: 'Counts of a window by time slot and level',
      query: Joi.object({ from: instant.required(), to: instant.required(), slots: Joi.number().integer().min(1).max(1000).default(120) }),
      async run({ query }): Promise<Timeline> {
        const from = Math.floor(microsOf(query.from) / MINUTE) * MINUTE;
        const to = Math.ceil(microsOf(query.to) / MINUTE) * MINUTE;
        if (to <= from) throw new Refusal(400, 'The window is empty', 'Its end is not after its begin.');
        const slot = Math.max(1, Math.ceil((to - from) / MINUTE / query.slots)) * MINUTE;
        const counts = await records.timeline(from, to, slot);
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
        const from = byteOfId(row.id);
        const source = await sources.source(row.source_id);
        const bytes = await sources.bytes(row.source_id, from, from + Math.min(row.length, MOST_RAW));
        const [record] = await presenter.recordsOf([row]);
        return { ...record!, raw: decode(bytes, (source?.encoding ?? 'utf-8') as Encoding), rawCut: row.length > MOST_RAW };
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
