import Joi from 'joi';
import type { LevelName, LogRecord, Page, RecordInFull, Timeline } from '@fadenweg/api';
import { decode, isoMicros, LEVELS, type Encoding } from '@fadenweg/core';
import { byteOfId } from '../intake/batch.ts';
import { endpoint, type AnyEndpoint } from '../http/endpoint.ts';
import { after, instant, limit, microsOf } from '../http/inputs.ts';
import { notFound, Refusal } from '../http/problems.ts';
import type { RecordRepository, RecordRow } from '../repositories/records.ts';
import type { SourceRepository } from '../repositories/sources.ts';
import { parseRecordKey, recordKey, type Presenter } from '../services/present.ts';

const MOST_RAW = 2 * 1024 * 1024;
const MINUTE = 60_000_000;
const FAR = 4_102_444_800_000_000;

export function recordRoutes(records: RecordRepository, sources: SourceRepository, presenter: Presenter): AnyEndpoint[] {
  const find = async (id: string): Promise<RecordRow> => {
    const key = parseRecordKey(id);
    const row = key ? await records.byId(key.at, key.id) : undefined;
    if (!row) throw notFound('This record');
    return row;
  };
  return [
    endpoint<{ from?: string; to?: string; order: 'oldest' | 'latest'; after?: string; limit: number }>({
      method: 'get',
      path: '/records',
      summary: 'Records of a window, paged by key',
      query: Joi.object({
        from: instant,
        to: instant,
        order: Joi.string().valid('oldest', 'latest').default('latest'),
        after,
        limit: limit(1000, 200),
      }),
      async run({ query }): Promise<Page<LogRecord>> {
        const cursor = query.after ? parseRecordKey(query.after) : null;
        if (query.after && !cursor) throw new Refusal(400, 'The request is not as it should be', '“after” is no record’s id.');
        const rows = await records.list(
          query.from ? microsOf(query.from) : 0,
          query.to ? microsOf(query.to) : FAR,
          query.order === 'oldest' ? 'asc' : 'desc',
          cursor,
          query.limit + 1,
        );
        const shown = rows.slice(0, query.limit);
        return { items: await presenter.recordsOf(shown), next: rows.length > query.limit ? recordKey(shown[shown.length - 1]!) : null };
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
        const row = await find(params.id);
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
        const row = await find(params.id);
        return { items: await presenter.recordsOf(await records.around({ scope: query.scope, row }, query.before, query.after)), next: null };
      },
    }),
  ];
}
