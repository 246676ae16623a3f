import Joi from 'joi';
import type { FollowBody, FollowInfo, Page } from '@fadenweg/api';
import { isZone } from '@fadenweg/core/reading';
import type { Following } from './following.ts';
import { endpoint, type AnyEndpoint } from '../../platform/http/endpoint.ts';
import { numbered } from '../../platform/http/inputs.ts';
import { notFound, Refusal } from '../../platform/http/problems.ts';

type Row = Awaited<ReturnType<Following['add']>>;
const infoOf = ({ id, path, environment, zone, who, since, import_id, files, grewAt, problem }: Row): FollowInfo => ({
  id,
  path,
  environment,
  zone,
  who,
  since: since.toISOString(),
  importId: import_id,
  files,
  grewAt: grewAt === null ? null : new Date(grewAt).toISOString(),
  problem,
});

/** Files of the server's machine that are read as they grow. */
export function followRoutes(following: Following): AnyEndpoint[] {
  return [
    endpoint({
      method: 'get',
      path: '/follows',
      summary: 'Files and folders that are followed as they grow',
      async run(): Promise<Page<FollowInfo>> {
        return { items: (await following.all()).map(infoOf), next: null };
      },
    }),
    endpoint<unknown, unknown, FollowBody & { demo: boolean; stated: boolean }>({
      method: 'post',
      path: '/follows',
      summary: 'Follows a file or a folder of the server’s machine: what is in it is read, and what it grows by',
      status: 201,
      body: Joi.object({
        path: Joi.string().min(1).max(1000).required(),
        environment: Joi.string().trim().min(1).max(60).default('production'),
        zone: Joi.string().max(60).default('UTC'),
        stated: Joi.boolean().default(false),
        demo: Joi.boolean().default(false),
      }),
      async run({ body, access }): Promise<FollowInfo> {
        if (!isZone(body.zone))
          throw new Refusal(400, 'Unknown zone', `“${body.zone}” is no IANA time zone.`, 'Give a name like Europe/Berlin or UTC.');
        return infoOf(
          await following.add(body.path, { environment: body.environment, zone: body.zone, stated: body.stated, demo: body.demo, access }),
        );
      },
    }),
    endpoint<unknown, { id: number }>({
      method: 'delete',
      path: '/follows/{id}',
      summary: 'Stops following; what was read stays',
      params: numbered,
      async run({ params }): Promise<void> {
        if (!(await following.remove(params.id))) throw notFound('What is followed there');
      },
    }),
  ];
}
