import busboy from 'busboy';
import Joi from 'joi';
import type { Request } from 'express';
import type { ImportInfo, Page } from '@fadenweg/api';
import { isZone } from '@fadenweg/core';
import { cleanPath } from '../platform/http/clean-path.ts';
import { endpoint, type AnyEndpoint } from '../platform/http/endpoint.ts';
import { notFound, Refusal } from '../platform/http/problems.ts';
import type { ImportService } from './import-service.ts';

const MOST_FILES = 20_000;
const number = Joi.object({
  id: Joi.number()
    .integer()
    .min(1)
    .max(2 ** 31 - 1)
    .required(),
});

export function importRoutes(imports: ImportService): AnyEndpoint[] {
  return [
    endpoint<{ environment: string; zone: string; demo: boolean }>({
      method: 'post',
      path: '/imports',
      summary: 'Brings files in: multipart, each file with its relative path as its name',
      status: 202,
      multipart: true,
      query: Joi.object({
        environment: Joi.string().max(60).default('production'),
        zone: Joi.string().max(60).default('UTC'),
        demo: Joi.boolean().default(false),
      }),
      async run({ query, who }, request): Promise<ImportInfo> {
        if (!isZone(query.zone))
          throw new Refusal(400, 'Unknown zone', `“${query.zone}” is no IANA time zone.`, 'Give a name like Europe/Berlin or UTC.');
        if (!/^multipart\/form-data/i.test(request.headers['content-type'] ?? ''))
          throw new Refusal(415, 'Not multipart', 'Files come as multipart/form-data.', 'Send each file as a part with its path as the file name.');
        const id = await imports.begin({ ...query, who });
        let problem: string | null = null;
        try {
          await receiveAll(request, imports, id).finally(() => imports.allNoted(id));
        } catch (error) {
          problem = `the upload broke off: ${(error as Error).message}`;
        }
        await imports.received(id, problem);
        return imports.progress.of((await imports.rows.one(id))!);
      },
    }),
    endpoint({
      method: 'get',
      path: '/imports',
      summary: 'The latest imports with their progress',
      async run(): Promise<Page<ImportInfo>> {
        return { items: await Promise.all((await imports.rows.latest()).map((row) => imports.progress.of(row))), next: null };
      },
    }),
    endpoint<unknown, { id: number }>({
      method: 'get',
      path: '/imports/{id}',
      summary: 'Progress and counts of an import',
      params: number,
      async run({ params }): Promise<ImportInfo> {
        const row = await imports.rows.one(params.id);
        if (!row) throw notFound(`Import ${params.id}`);
        return imports.progress.of(row);
      },
    }),
    endpoint<unknown, { id: number }>({
      method: 'delete',
      path: '/imports/{id}',
      summary: 'Cancels a running import, takes a finished one out; nothing of it stays',
      params: number,
      async run({ params, who }) {
        if (!(await imports.remove(params.id, who))) throw notFound(`Import ${params.id}`);
      },
    }),
  ];
}

/** Takes in one file after the other; a part is not read on before the one ahead of it is stored. */
function receiveAll(request: Request, imports: ImportService, id: number): Promise<void> {
  return new Promise((resolve, reject) => {
    const parser = busboy({ headers: request.headers, preservePath: true, limits: { files: MOST_FILES, fields: 100, fieldSize: 10_000 } });
    let receiving = Promise.resolve();
    const modified = new Map<string, Date>();
    parser.on('field', (name, value) => {
      const date = new Date(Number(value));
      if (name.startsWith('modified:') && !Number.isNaN(date.getTime())) modified.set(name.slice(9), date);
    });
    parser.on('file', (_name, stream, info) => {
      const path = cleanPath(info.filename ?? 'unnamed');
      receiving = receiving.then(() => imports.receive(id, path, stream, modified.get(info.filename ?? '') ?? new Date()));
      receiving.catch((error: Error) => {
        stream.resume();
        reject(error);
      });
    });
    parser.on('filesLimit', () => reject(new Error(`more than ${MOST_FILES} files at once`)));
    parser.on('error', (error: Error) => reject(error));
    parser.on('close', () => void receiving.then(resolve, reject));
    request.on('aborted', () => reject(new Error('the sender went away')));
    request.pipe(parser);
  });
}
