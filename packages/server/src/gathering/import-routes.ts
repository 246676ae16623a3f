import Joi from 'joi';
import type { ImportInfo, Page } from '@fadenweg/api';
import { isZone } from '@fadenweg/core/reading';
import { cleanPath } from '../platform/http/clean-path.ts';
import { endpoint, type AnyEndpoint } from '../platform/http/endpoint.ts';
import { numbered } from '../platform/http/inputs.ts';
import { notFound, Refusal } from '../platform/http/problems.ts';
import type { ImportService } from './import-service.ts';

const MOST_FILES = 20_000;

export function importRoutes(imports: ImportService): AnyEndpoint[] {
  return [
    endpoint<{ environment: string; zone: string; stated: boolean; demo: boolean }>({
      method: 'post',
      path: '/imports',
      summary: 'Brings files in: multipart, each file with its relative path as its name',
      status: 202,
      multipart: true,
      query: Joi.object({
        environment: Joi.string().max(60).default('production'),
        zone: Joi.string().max(60).default('UTC'),
        stated: Joi.boolean().default(false).description('A person says that this is the zone: it is not guessed at'),
        demo: Joi.boolean().default(false),
      }),
      async run({ query, access, receive }): Promise<ImportInfo> {
        if (!isZone(query.zone))
          throw new Refusal(400, 'Unknown zone', `“${query.zone}” is no IANA time zone.`, 'Give a name like Europe/Berlin or UTC.');
        let begun: Promise<number> | null = null;
        const begin = (): Promise<number> => (begun ??= imports.begin({ ...query, access }));
        let problem: string | null = null;
        try {
          await receive({ files: MOST_FILES }, async ({ name, modified, content }) => {
            await imports.receive(await begin(), cleanPath(name), content, modified);
          });
        } catch (error) {
          if (error instanceof Refusal) throw error;
          problem = `the upload broke off: ${(error as Error).message}`;
        }
        const id = await begin();
        await imports.allNoted(id).catch((error: Error) => (problem ??= `the upload broke off: ${error.message}`));
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
      params: numbered,
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
      params: numbered,
      async run({ params, access }): Promise<void> {
        if (!(await imports.remove(params.id, access))) throw notFound(`Import ${params.id}`);
      },
    }),
  ];
}
