import Joi from 'joi';
import type { Page, SourceInfo } from '@fadenweg/api';
import { FORMATS, isoMicros, isZone } from '@fadenweg/core';
import { endpoint, type AnyEndpoint } from '../http/endpoint.ts';
import { notFound, Refusal } from '../http/problems.ts';
import type { Names } from '../repositories/names.ts';
import type { SourceRepository, SourceRow } from '../repositories/sources.ts';
import type { ImportService } from '../services/import-service.ts';

const number = Joi.object({
  id: Joi.number()
    .integer()
    .min(1)
    .max(2 ** 31 - 1)
    .required(),
});
interface Change {
  format?: string;
  zone?: string;
  component?: string;
  host?: string;
  environment?: string;
}

export function sourceRoutes(sources: SourceRepository, names: Names, imports: ImportService): AnyEndpoint[] {
  const info = (row: SourceRow): SourceInfo => ({
    id: row.id,
    path: row.path,
    format: row.format,
    confidence: row.confidence,
    zone: row.zone,
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
  const find = async (id: number): Promise<SourceRow> => {
    const row = await sources.source(id);
    if (!row) throw notFound(`Source ${id}`);
    return row;
  };
  return [
    endpoint({
      method: 'get',
      path: '/sources',
      summary: 'What is collected, and how it is read',
      async run(): Promise<Page<SourceInfo>> {
        return { items: (await sources.sources()).map(info), next: null };
      },
    }),
    endpoint<unknown, { id: number }>({
      method: 'get',
      path: '/sources/{id}',
      summary: 'One source',
      params: number,
      async run({ params }): Promise<SourceInfo> {
        return info(await find(params.id));
      },
    }),
    endpoint<unknown, { id: number }, Change>({
      method: 'put',
      path: '/sources/{id}',
      summary: 'Changes how a source is read; it is read again from its kept bytes',
      params: number,
      status: 202,
      body: Joi.object({
        format: Joi.string().valid(...FORMATS),
        zone: Joi.string().max(60),
        component: Joi.string().trim().min(1).max(60),
        host: Joi.string().trim().allow('').max(80),
        environment: Joi.string().trim().min(1).max(60),
      }).min(1),
      async run({ params, body }): Promise<SourceInfo> {
        const row = await find(params.id);
        if (body.zone !== undefined && !isZone(body.zone))
          throw new Refusal(400, 'Unknown zone', `“${body.zone}” is no IANA time zone.`, 'Give a name like Europe/Berlin or UTC.');
        if (row.state === 'waiting' || row.state === 'reading')
          throw new Refusal(409, 'Still being read', `“${row.path}” is being read at the moment.`, 'Wait until it is read, or cancel its import.');
        const change: Partial<SourceRow> = {};
        if (body.format !== undefined) change.format = body.format;
        if (body.zone !== undefined) change.zone = body.zone;
        if (body.environment !== undefined) change.environment = body.environment;
        if (body.component !== undefined) change.component_id = await names.idOf('component', body.component);
        if (body.host !== undefined) change.host_id = await names.idOf('host', body.host);
        await sources.change(row.id, change);
        const reads = change.format !== undefined || change.zone !== undefined || change.component_id !== undefined || change.host_id !== undefined;
        if (reads) await imports.readAgain([row.id]);
        return info(await find(row.id));
      },
    }),
  ];
}
