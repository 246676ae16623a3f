import Joi from 'joi';
import type { Departures, NotedBody, Rounds } from '@fadenweg/api';
import { isZone } from '@fadenweg/core/reading';
import { endpoint, type AnyEndpoint } from '../platform/http/endpoint.ts';
import { instant, list, microsOf, splitList } from '../platform/http/inputs.ts';
import { Refusal } from '../platform/http/problems.ts';
import type { DeparturesService } from './departures.ts';
import type { NotedRepository } from './noted.ts';
import type { RoundsService } from './rounds.ts';
import type { Asked } from './window.ts';

const YEARS = 10 * 366 * 86_400_000_000;
const asked = Joi.object({
  from: instant.required(),
  to: instant.required(),
  environment: list.required(),
  zone: Joi.string().max(60).default('UTC'),
});
interface Query {
  from: string;
  to: string;
  environment: string;
  zone: string;
}

export function roundsRoutes(rounds: RoundsService, departures: DeparturesService, noted: NotedRepository): AnyEndpoint[] {
  return [
    endpoint<Query>({
      method: 'get',
      path: '/rounds',
      summary: 'A window as a cloth: what came of each flow in each slot of time, how it ended, and what of it departs from what is usual then',
      query: asked,
      run: ({ query }): Promise<Rounds> => rounds.of(windowOf(query)),
    }),
    endpoint<Query>({
      method: 'get',
      path: '/rounds/departures',
      summary: 'What departs from the usual in a window: what, since when, how much, whom it concerns, the change before it; the gravest first',
      query: asked,
      run: ({ query }): Promise<Departures> => departures.of(windowOf(query)),
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
        share: Joi.number().min(0).max(2_000_000_000).required(),
      }),
      async run({ body, access }) {
        await noted.note(body, body.until ? microsOf(body.until) : null, access.who);
      },
    }),
  ];
}

function windowOf({ from, to, environment, zone }: Query): Asked {
  if (!isZone(zone)) throw new Refusal(400, 'Unknown time zone', `There is no time zone “${zone}”.`, 'Give a name such as Europe/Berlin.');
  const window = { from: microsOf(from), to: microsOf(to), environment: splitList(environment) ?? [], zone };
  if (window.to <= window.from) throw new Refusal(400, 'The window is empty', 'Its end has to be after its begin.');
  if (window.to - window.from > YEARS) throw new Refusal(400, 'The window is too long', 'At most ten years are looked at at once.');
  return window;
}
