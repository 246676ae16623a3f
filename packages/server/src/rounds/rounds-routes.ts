import Joi from 'joi';
import type { Departures, Instant, NotedBody, Rounds, SinceThen } from '@fadenweg/api';
import { endpoint, type AnyEndpoint } from '../platform/http/endpoint.ts';
import { instant, list, microsOf, splitList } from '../platform/http/inputs.ts';
import { windowInput, windowOf, type WindowQuery } from '../platform/http/windows.ts';
import type { DeparturesService } from './departures.ts';
import type { FlowGroups } from './flow-groups.ts';
import type { InstantService } from './instant.ts';
import type { NotedRepository } from './noted.ts';
import type { RoundsService } from './rounds.ts';
import type { SinceService } from './since.ts';

const YEARS = 10 * 366 * 86_400_000_000;
const asked = Joi.object(windowInput);

export function roundsRoutes(
  rounds: RoundsService,
  departures: DeparturesService,
  instants: InstantService,
  since: SinceService,
  noted: NotedRepository,
  groups: FlowGroups,
): AnyEndpoint[] {
  return [
    endpoint<WindowQuery>({
      method: 'get',
      path: '/rounds',
      summary: 'A window as a cloth: what came of each flow in each slot of time, how it ended, and what of it departs from what is usual then',
      query: asked,
      run: ({ query }): Promise<Rounds> => rounds.of(windowOf(query, YEARS)),
    }),
    endpoint<WindowQuery>({
      method: 'get',
      path: '/rounds/departures',
      summary: 'What departs from the usual in a window: what, since when, how much, whom it concerns, the change before it; the gravest first',
      query: asked,
      run: ({ query }): Promise<Departures> => departures.of(windowOf(query, YEARS)),
    }),
    endpoint<{ at: string; environment: string }>({
      method: 'get',
      path: '/rounds/instant',
      summary:
        'The state at an instant: what was running and how long, what failed last and when each flow last did well, versions and settings in force, clocks, which sources spoke',
      query: Joi.object({ at: instant.required(), environment: list.required() }),
      run: ({ query }): Promise<Instant> => instants.at(microsOf(query.at), splitList(query.environment) ?? []),
    }),
    endpoint<{ at: string; environment: string }>({
      method: 'get',
      path: '/rounds/since',
      summary:
        'What was different after an instant than before it, as long on both sides: shares of outcomes, durations, findings, each with how likely it is by chance',
      query: Joi.object({ at: instant.required(), environment: list.required() }),
      run: ({ query }): Promise<SinceThen> => since.of(microsOf(query.at), splitList(query.environment) ?? []),
    }),
    endpoint<unknown, unknown, { flow: string; group: string }>({
      method: 'put',
      path: '/rounds/groups',
      summary: 'Puts a flow into a group, beside the others of it; an empty name takes it out again',
      body: Joi.object({
        flow: Joi.string().max(100).allow('').required(),
        group: Joi.string().trim().max(40).allow('').pattern(/,/, { invert: true }).required(),
      }),
      async run({ body: { flow, group }, access }): Promise<void> {
        await groups.put(flow, group, access.who);
      },
    }),
    endpoint<unknown, unknown, NotedBody>({
      method: 'put',
      path: '/rounds/departures/noted',
      summary: 'Says of a departure that it is in hand, or tolerated until an instant; null takes that back. It comes back when it gets worse.',
      body: Joi.object({
        key: Joi.string().min(1).max(600).required(),
        state: Joi.string().valid('in-hand', 'tolerated').allow(null).required(),
        note: Joi.string().trim().max(1000).allow(''),
        until: instant.allow(null),
        count: Joi.number().integer().min(0).max(2_000_000_000).required(),
        of: Joi.number().min(0).max(2_000_000_000).allow(null).required(),
        expected: Joi.number().min(0).max(2_000_000_000).allow(null).required(),
      }),
      async run({ body, access }): Promise<void> {
        await noted.note(body, body.until ? microsOf(body.until) : null, access.who);
      },
    }),
  ];
}
