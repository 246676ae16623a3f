import Joi from 'joi';
import type { Departure, Departures, Instant, NotedBody, Rounds, SinceThen } from '@fadenweg/api';
import { isZone } from '@fadenweg/core/reading';
import type { SourceRepository } from '../evidence/sources.ts';
import { endpoint, type AnyEndpoint } from '../platform/http/endpoint.ts';
import { instant, list, microsOf, splitList } from '../platform/http/inputs.ts';
import { Pieces } from '../platform/http/leaving.ts';
import { Refusal } from '../platform/http/problems.ts';
import type { DeparturesService } from './departures.ts';
import type { InstantService } from './instant.ts';
import type { NotedRepository } from './noted.ts';
import type { RoundsService } from './rounds.ts';
import type { SinceService } from './since.ts';
import type { Asked } from './window.ts';

const DAY = 86_400_000_000;
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

interface Unusual {
  from?: string;
  to?: string;
  environment?: string;
  zone: string;
}

export function roundsRoutes(
  rounds: RoundsService,
  departures: DeparturesService,
  instants: InstantService,
  since: SinceService,
  noted: NotedRepository,
  sources: SourceRepository,
): AnyEndpoint[] {
  /** Where no window is asked for, the last day of the evidence; where no environment, all of one's own, and the demo only where there is nothing else. */
  async function unusual({ from, to, environment, zone }: Unusual): Promise<Asked | null> {
    const known = await sources.environments();
    const own = known.some((one) => !one.demo) ? known.filter((one) => !one.demo) : known;
    const names = splitList(environment) ?? own.map((one) => one.name);
    const last = Math.max(...known.filter((one) => names.includes(one.name)).map((one) => one.last ?? -Infinity));
    const end = to === undefined ? last + 1 : microsOf(to);
    return Number.isFinite(end) ? checked({ from: from === undefined ? end - DAY : microsOf(from), to: end, environment: names, zone }) : null;
  }
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
    endpoint<Unusual>({
      method: 'get',
      path: '/unusual/export',
      summary: 'What departs from the usual, as JSON lines, the gravest first; of the last day of the evidence where no window is given',
      query: Joi.object({ from: instant, to: instant, environment: list, zone: Joi.string().max(60).default('UTC') }),
      async run({ query }): Promise<Pieces> {
        const window = await unusual(query);
        return new Pieces(lines(window ? (await departures.of(window)).items : []), 'application/x-ndjson');
      },
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

const windowOf = ({ from, to, environment, zone }: Query): Asked =>
  checked({ from: microsOf(from), to: microsOf(to), environment: splitList(environment) ?? [], zone });

function checked(window: Asked): Asked {
  const { zone } = window;
  if (!isZone(zone)) throw new Refusal(400, 'Unknown time zone', `There is no time zone “${zone}”.`, 'Give a name such as Europe/Berlin.');
  if (window.to <= window.from) throw new Refusal(400, 'The window is empty', 'Its end has to be after its begin.');
  if (window.to - window.from > YEARS) throw new Refusal(400, 'The window is too long', 'At most ten years are looked at at once.');
  return window;
}

async function* lines(items: readonly Departure[]): AsyncGenerator<string> {
  for (const { what, component, host, from, to, count, expected, weight, title, flows, outcome, finding } of items)
    yield `${JSON.stringify({ what, component, host, shape: null, from, to, count, expected, weight, title, outcome, flows: flows.map((one) => one.flow), finding })}\n`;
}
