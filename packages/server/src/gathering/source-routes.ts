import Joi from 'joi';
import type { KeptWhole, OriginalLines, Page, SourceInfo } from '@fadenweg/api';
import { FORMATS, isZone, type DateOrder } from '@fadenweg/core/reading';
import { isoMicros } from '@fadenweg/core/units';
import { endpoint, type AnyEndpoint } from '../platform/http/endpoint.ts';
import { Pieces } from '../platform/http/leaving.ts';
import { limit, numbered } from '../platform/http/inputs.ts';
import { notFound, Refusal } from '../platform/http/problems.ts';
import type { EvidenceRows } from '../evidence/room.ts';
import type { FamilyRow, SourceRow } from '../evidence/sources.ts';
import type { ImportService } from './import-service.ts';
import { OriginalText } from '../evidence/original.ts';
import { recordKey } from '../evidence/record-key.ts';

const lineNumber = Joi.number()
  .integer()
  .min(1)
  .max(2 ** 31 - 1);
interface Change {
  format?: string;
  dateOrder?: DateOrder;
  zone?: string;
  component?: string;
  host?: string;
  environment?: string;
}

export function sourceRoutes(
  { sources, bytes: kept, names, records }: Pick<EvidenceRows, 'sources' | 'bytes' | 'names' | 'records'>,
  imports: ImportService,
): AnyEndpoint[] {
  const info = (row: FamilyRow): SourceInfo => ({
    id: row.id,
    path: row.path,
    parts: row.parts,
    format: row.format,
    confidence: row.confidence,
    zone: row.zone,
    zoneBy: row.lacks_zone ? row.zone_by : 'stated',
    dateOrder: row.order_by === null ? null : (row.date_order as DateOrder),
    dateOrderBy: row.order_by as SourceInfo['dateOrderBy'],
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
  const original = new OriginalText(kept, names);
  const part = async (id: number): Promise<SourceRow> => {
    const row = await sources.source(id);
    if (!row) throw notFound('This source');
    return row;
  };
  const notReading = (row: FamilyRow): void => {
    if (row.state === 'waiting' || row.state === 'reading')
      throw new Refusal(409, 'Still being read', `“${row.path}” is being read at the moment.`, 'Wait until it is read, or cancel its import.');
  };
  return [
    endpoint({
      method: 'get',
      path: '/sources',
      summary: 'What is collected, and how it is read; the parts of a rotated log are one source',
      async run(): Promise<Page<SourceInfo>> {
        return { items: (await sources.families()).map(info), next: null };
      },
    }),
    endpoint<unknown, { id: number }>({
      method: 'get',
      path: '/sources/{id}',
      summary: 'One source',
      params: numbered,
      async run({ params }): Promise<SourceInfo> {
        return info(await find(params.id));
      },
    }),
    endpoint<unknown, { id: number }>({
      method: 'get',
      path: '/sources/{id}/parts',
      summary: 'The files that a source consists of, in order of time',
      params: numbered,
      async run({ params }): Promise<Page<SourceInfo>> {
        await find(params.id);
        return {
          items: (await sources.partsOf(params.id)).map((row) =>
            info({
              ...row,
              parts: 1,
              lacks_zone: row.hints.lacksZone ?? false,
              order_by: row.hints.orderBy ?? null,
              date_order: row.hints.dateOrder ?? null,
            }),
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
        return info(await find(params.id));
      },
    }),
    endpoint<unknown, { id: number }, Change>({
      method: 'put',
      path: '/sources/{id}',
      summary: 'Changes how a source is read; it is read again from its kept bytes',
      params: numbered,
      status: 202,
      body: Joi.object({
        format: Joi.string().valid(...FORMATS),
        dateOrder: Joi.string().valid('day-first', 'month-first', 'year-first'),
        zone: Joi.string().max(60),
        component: Joi.string().trim().min(1).max(60),
        host: Joi.string().trim().allow('').max(80),
        environment: Joi.string().trim().min(1).max(60),
      }).min(1),
      async run({ params, body }): Promise<SourceInfo> {
        const row = await find(params.id);
        if (body.zone !== undefined && !isZone(body.zone))
          throw new Refusal(400, 'Unknown zone', `“${body.zone}” is no IANA time zone.`, 'Give a name like Europe/Berlin or UTC.');
        notReading(row);
        const change: Partial<SourceRow> = {};
        if (body.format !== undefined) change.format = body.format;
        if (body.zone !== undefined) Object.assign(change, { zone: body.zone, zone_by: 'set' });
        if (body.environment !== undefined) change.environment = body.environment;
        if (body.component !== undefined)
          Object.assign(change, { component_id: await names.idOf('component', body.component), component_fixed: true });
        if (body.host !== undefined) Object.assign(change, { host_id: await names.idOf('host', body.host), host_fixed: body.host !== '' });
        const own = await sources.partsOf(row.id);
        const parts = own.map((part) => part.id);
        await imports.due(parts);
        if (Object.keys(change).length > 0) await sources.change(parts, change);
        const { dateOrder } = body;
        if (dateOrder !== undefined) for (const { id, hints } of own) await sources.change(id, { hints: { ...hints, dateOrder, orderBy: 'set' } });
        await imports.readAgain(parts);
        return info(await find(row.id));
      },
    }),
  ];
}
