import Joi from 'joi';
import type { Change, ChangeBody, KnownCause, KnownCauseBody, KnownState, Page } from '@fadenweg/api';
import { endpoint, type AnyEndpoint } from '../platform/http/endpoint.ts';
import { after, instant, limit, list, microsOf, splitList, numbered } from '../platform/http/inputs.ts';
import { notFound, Refusal } from '../platform/http/problems.ts';
import type { ChangeRepository } from './change-rows.ts';
import { causeOf, type Changes } from './changes.ts';

const text = (most: number): Joi.StringSchema => Joi.string().trim().max(most);

/** What changed, what was last known, and what people found out about causes. */
export function changeRoutes(changes: Changes, rows: ChangeRepository): AnyEndpoint[] {
  return [
    endpoint<{ from?: string; to?: string; component?: string; environment?: string; after?: string; limit: number }>({
      method: 'get',
      path: '/changes',
      summary: 'Versions, settings, restarts, fail-overs and what was registered, in order of time',
      query: Joi.object({ from: instant, to: instant, component: list, environment: list, after, limit: limit(1000, 300) }),
      async run({ query }): Promise<Page<Change>> {
        return changes.list(
          {
            from: query.from ? microsOf(query.from) : -Infinity,
            to: query.to ? microsOf(query.to) : Infinity,
            components: splitList(query.component),
            environment: splitList(query.environment),
          },
          placeOf(query.after),
          query.limit,
        );
      },
    }),
    endpoint<unknown, unknown, ChangeBody>({
      method: 'post',
      path: '/changes',
      summary: 'Registers a change that no record tells of',
      status: 201,
      body: Joi.object({
        what: text(300).min(1).required(),
        component: text(100).allow(''),
        host: text(100).allow(''),
        environment: text(60).allow(''),
        at: instant,
      }),
      async run({ body, access }): Promise<Change> {
        return changes.register(body, access);
      },
    }),
    endpoint<unknown, { id: string }>({
      method: 'delete',
      path: '/changes/{id}',
      summary: 'Takes back a change that was registered',
      params: Joi.object({ id: Joi.string().max(60).required() }),
      async run({ params }): Promise<void> {
        const number = /^registered-(\d{1,9})$/.exec(params.id)?.[1];
        if (number === undefined)
          throw new Refusal(
            409,
            'A record tells of it',
            'Only what was registered can be taken back.',
            'Take out the import of that record instead.',
          );
        if (!(await changes.remove(Number(number)))) throw notFound('This change');
      },
    }),
    endpoint<{ at: string; environment?: string }>({
      method: 'get',
      path: '/changes/states',
      summary: 'What was last known at an instant: versions, settings, what runs',
      query: Joi.object({ at: instant.required(), environment: list }),
      async run({ query }): Promise<Page<KnownState>> {
        return { items: await changes.states(microsOf(query.at), splitList(query.environment)), next: null };
      },
    }),
    endpoint<unknown, unknown, KnownCauseBody>({
      method: 'post',
      path: '/known-causes',
      summary: 'Keeps for findings that are alike whether this was the cause, how it was mended, and who owns it',
      status: 201,
      body: Joi.object({
        signature: Joi.string().min(1).max(400).required(),
        was: Joi.boolean().required(),
        remedy: text(2000).allow('').required(),
        owner: text(100).allow('').required(),
        strand: text(300).required(),
      }),
      async run({ body, access }): Promise<KnownCause> {
        return causeOf(await rows.keepCause({ ...body, who: access.who }));
      },
    }),
    endpoint<unknown, { id: number }>({
      method: 'delete',
      path: '/known-causes/{id}',
      summary: 'Takes back what was kept about a cause',
      params: numbered,
      async run({ params }): Promise<void> {
        if (!(await rows.forgetCause(params.id))) throw notFound('What was kept');
      },
    }),
  ];
}

function placeOf(text: string | undefined): { at: number; id: string } | null {
  if (text === undefined) return null;
  const hit = /^(-?\d{1,17})~(.{1,50})$/.exec(text);
  if (!hit) throw new Refusal(400, 'The request is not as it should be', '“after” is no place in a list of changes.');
  return { at: Number(hit[1]), id: hit[2]! };
}
