import Joi from 'joi';
import type { KeptWhole, LayoutTrialInfo, OriginalLines, Page, SourceChange, SourceInfo } from '@fadenweg/api';
import { FORMATS, type DateOrder } from '@fadenweg/core/reading';
import { isoMicros } from '@fadenweg/core/units';
import { endpoint, type AnyEndpoint } from '../platform/http/endpoint.ts';
import { Pieces } from '../platform/http/leaving.ts';
import { limit, numbered } from '../platform/http/inputs.ts';
import { notFound, Refusal } from '../platform/http/problems.ts';
import type { CopyOf } from '../evidence/copies.ts';
import type { EvidenceRows } from '../evidence/room.ts';
import type { FamilyRow, SourceRow } from '../evidence/sources.ts';
import type { ImportService } from './import-service.ts';
import { OriginalText } from '../evidence/original.ts';
import { notReading, SourceChanging } from './source-changing.ts';
import { recordKey } from '../evidence/record-key.ts';

const lineNumber = Joi.number()
  .integer()
  .min(1)
  .max(2 ** 31 - 1);
const CHANGE = {
  format: Joi.string().valid(...FORMATS),
  dateOrder: Joi.string().valid('day-first', 'month-first', 'year-first'),
  zone: Joi.string().max(60),
  timeLayout: Joi.string().trim().max(80).allow(null),
  standsAt: Joi.string().valid('begin', 'end'),
  snapshots: Joi.boolean(),
  apart: Joi.boolean(),
  component: Joi.string().trim().min(1).max(60),
  host: Joi.string().trim().allow('').max(80),
  environment: Joi.string().trim().min(1).max(60),
};
const MOST_AT_ONCE = 500;

export function sourceRoutes(
  { sources, bytes: kept, names, records, copies }: Pick<EvidenceRows, 'sources' | 'bytes' | 'names' | 'records' | 'copies'>,
  imports: ImportService,
): AnyEndpoint[] {
  const info = (row: FamilyRow, copyOf: CopyOf | null): SourceInfo => ({
    id: row.id,
    path: row.path,
    parts: row.parts,
    format: row.format,
    confidence: row.confidence,
    zone: row.zone,
    zoneBy: row.lacks_zone ? row.zone_by : 'stated',
    dateOrder: row.order_by === null ? null : (row.date_order as DateOrder),
    dateOrderBy: row.order_by as SourceInfo['dateOrderBy'],
    timeLayout: row.time_layout,
    standsAt: row.stands_at as SourceInfo['standsAt'],
    snapshots: row.snapshots,
    encoding: row.encoding,
    component: names.component(row.component_id),
    host: names.host(row.host_id),
    environment: row.environment,
    demo: row.demo,
    size: row.size,
    readBytes: row.done_bytes,
    state: row.state,
    error: row.error,
    records: row.records,
    copies: row.copies,
    copyOf,
    apart: row.apart,
    understood: row.understood,
    from: row.first_at === null ? null : isoMicros(row.first_at),
    to: row.last_at === null ? null : isoMicros(row.last_at),
    importId: row.import_id,
  });
  const find = async (id: number): Promise<FamilyRow> => {
    const [row] = await sources.families({ id });
    if (!row) throw notFound(`Source ${id}`);
    return row;
  };
  const several = async (ids: readonly number[]): Promise<SourceInfo[]> => {
    const copyOf = await copies.sources();
    return (await Promise.all(ids.map(find))).map((row) => info(row, copyOf.get(row.id) ?? null));
  };
  const one = async (id: number): Promise<SourceInfo> => (await several([id]))[0]!;
  const original = new OriginalText(kept, names);
  const part = async (id: number): Promise<SourceRow> => {
    const row = await sources.source(id);
    if (!row) throw notFound('This source');
    return row;
  };
  const changing = new SourceChanging({ sources, names }, original, imports);
  return [
    endpoint({
      method: 'get',
      path: '/sources',
      summary: 'What is collected, and how it is read; the parts of a rotated log are one source',
      async run(): Promise<Page<SourceInfo>> {
        const copyOf = await copies.sources();
        return { items: (await sources.families()).map((row) => info(row, copyOf.get(row.id) ?? null)), next: null };
      },
    }),
    endpoint<unknown, { id: number }>({
      method: 'get',
      path: '/sources/{id}',
      summary: 'One source',
      params: numbered,
      async run({ params }): Promise<SourceInfo> {
        return one(params.id);
      },
    }),
    endpoint<unknown, { id: number }>({
      method: 'get',
      path: '/sources/{id}/parts',
      summary: 'The files that a source consists of, in order of time',
      params: numbered,
      async run({ params }): Promise<Page<SourceInfo>> {
        const { copyOf } = await one(params.id);
        return {
          items: (await sources.partsOf(params.id)).map((row) =>
            info(
              {
                ...row,
                parts: 1,
                lacks_zone: row.hints.lacksZone ?? false,
                order_by: row.hints.orderBy ?? null,
                date_order: row.hints.dateOrder ?? null,
                time_layout: row.hints.timePattern ?? null,
                stands_at: row.hints.standsAt ?? null,
                snapshots: row.hints.snapshots ?? null,
              },
              copyOf,
            ),
          ),
          next: null,
        };
      },
    }),
    endpoint<{ limit: number }, { id: number }>({
      method: 'get',
      path: '/sources/{id}/kept-whole',
      summary: 'What of a source was not understood and is kept whole, grouped by look',
      params: numbered,
      query: Joi.object({ limit: limit(200, 50) }),
      async run({ params, query }): Promise<KeptWhole> {
        const row = await find(params.id);
        const ids = (await sources.partsOf(params.id)).map((part) => part.id);
        const groups = await records.keptWhole(ids, query.limit);
        return {
          records: row.records - row.understood,
          groups: groups.map(({ shape, count, message, line, at, id }) => ({
            shape: shape ?? '',
            count,
            example: message,
            line,
            recordId: recordKey({ at, id }),
          })),
        };
      },
    }),
    endpoint<{ from: number; count: number }, { id: number }>({
      method: 'get',
      path: '/sources/{id}/original',
      summary: 'Lines of one file as they were written',
      params: numbered,
      query: Joi.object({ from: lineNumber.default(1), count: limit(1000, 200) }),
      async run({ params, query }): Promise<OriginalLines> {
        return original.lines(await part(params.id), query.from, query.count);
      },
    }),
    endpoint<{ from: number; to: number }, { id: number }>({
      method: 'get',
      path: '/sources/{id}/slice',
      summary: 'The bytes of some lines of one file, to be kept',
      params: numbered,
      query: Joi.object({ from: lineNumber.required(), to: lineNumber.min(Joi.ref('from')).required() }),
      async run({ params, query }): Promise<Pieces> {
        const row = await part(params.id);
        const name = row.path
          .split('/')
          .at(-1)!
          .replace(/[^\w.-]+/g, '_');
        return new Pieces(original.slice(row, query.from, query.to), 'application/octet-stream', {
          'content-disposition': `attachment; filename="${query.from}-${query.to}-${name}"`,
        });
      },
    }),
    endpoint<unknown, { id: number }>({
      method: 'post',
      path: '/sources/{id}/again',
      summary: 'Reads what failed or was not read to its end again',
      params: numbered,
      status: 202,
      async run({ params }): Promise<SourceInfo> {
        notReading(await find(params.id));
        const failed = (await sources.partsOf(params.id)).filter((part) => part.state === 'failed').map((part) => part.id);
        if (failed.length === 0)
          throw new Refusal(409, 'Nothing to read again', 'This source was read to its end.', 'Change how it is read instead.');
        await imports.readAgain(failed);
        return one(params.id);
      },
    }),
    endpoint<unknown, { id: number }, SourceChange>({
      method: 'put',
      path: '/sources/{id}',
      summary: 'Changes how a source is read; it is read again from its kept bytes',
      params: numbered,
      status: 202,
      body: Joi.object(CHANGE).min(1),
      async run({ params, body }): Promise<SourceInfo> {
        await changing.apply([await find(params.id)], body);
        return one(params.id);
      },
    }),
    endpoint<unknown, unknown, SourceChange & { ids: number[] }>({
      method: 'put',
      path: '/sources',
      summary: 'Changes how several sources are read, all of them or none; they are read again from their kept bytes',
      status: 202,
      body: Joi.object({ ids: Joi.array().items(Joi.number().integer().min(1)).min(1).max(MOST_AT_ONCE).unique().required(), ...CHANGE }).min(2),
      async run({ body: { ids, ...change } }): Promise<Page<SourceInfo>> {
        await changing.apply(await Promise.all(ids.map(find)), change);
        return { items: await several(ids), next: null };
      },
    }),
    endpoint<unknown, { id: number }, { timeLayout: string; zone?: string }>({
      method: 'post',
      path: '/sources/{id}/time-layout',
      summary: 'What would come of a layout of times; nothing is changed',
      params: numbered,
      body: Joi.object({ timeLayout: CHANGE.timeLayout.required(), zone: CHANGE.zone }),
      async run({ params, body }): Promise<LayoutTrialInfo> {
        return changing.tryLayout(await sources.partsOf((await find(params.id)).id), body.timeLayout, body.zone);
      },
    }),
  ];
}
