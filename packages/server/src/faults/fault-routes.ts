import Joi from 'joi';
import { FAULT_STATES } from '@fadenweg/core/faults';
import { WEIGHTS, type WeightName } from '@fadenweg/core/weights';
import type { FaultBody, FaultDetail, Faults, FaultState } from '@fadenweg/api';
import { endpoint, type AnyEndpoint } from '../platform/http/endpoint.ts';
import { instant, microsOf } from '../platform/http/inputs.ts';
import { notFound, Refusal } from '../platform/http/problems.ts';
import { windowInput, windowOf, type WindowQuery } from '../platform/http/windows.ts';
import type { FaultRepository } from './fault-rows.ts';
import type { FaultStanding } from './standing.ts';
import { LONGEST, type FaultService, type FaultSort } from './faults.ts';

export const faultId = Joi.object({ id: Joi.number().integer().min(0).max(Number.MAX_SAFE_INTEGER).required() });
const text = (most: number): Joi.StringSchema => Joi.string().trim().max(most).allow('').default('');
/** As which fault one counts. */
export async function headOf(rows: FaultRepository, fault: number): Promise<number> {
  const head = await rows.headOf(fault);
  if (head === null) throw notFound(`The fault ${fault}`);
  return head;
}
interface Query extends WindowQuery {
  sort: FaultSort;
  component?: string;
  state?: FaultState;
  owner?: string;
  version?: string;
  weight: WeightName;
  flow?: string;
  all: boolean;
}

export function faultRoutes(faults: FaultService, rows: FaultRepository, standing: FaultStanding): AnyEndpoint[] {
  return [
    endpoint<Query>({
      method: 'get',
      path: '/faults',
      summary: 'Errors of a window by where they come from: strands that failed by each, since when, state; each failed strand counts at exactly one',
      query: Joi.object({
        ...windowInput,
        sort: Joi.string().valid('strands', 'records', 'newest', 'latest', 'gravest').default('strands'),
        component: Joi.string().max(200),
        state: Joi.string().valid(...FAULT_STATES),
        owner: Joi.string().max(100).allow(''),
        version: Joi.string().max(100),
        weight: Joi.string().valid(...WEIGHTS).default('slight'), // prettier-ignore
        flow: Joi.string().max(200).allow(''),
        all: Joi.boolean().default(false),
      }),
      run: ({ query }): Promise<Faults> =>
        faults.list({
          ...windowOf(query, LONGEST),
          sort: query.sort,
          component: query.component ?? null,
          state: query.state ?? null,
          owner: query.owner ?? null,
          version: query.version ?? null,
          flow: query.flow,
          weight: query.weight,
          all: query.all,
        }),
    }),
    endpoint<WindowQuery, { id: number }>({
      method: 'get',
      path: '/faults/{id}',
      summary:
        'A fault in a window: its course, whom and what it hits more than others, versions, what followed from it, an example, what was said of it',
      params: faultId,
      query: Joi.object(windowInput),
      run: ({ query, params }): Promise<FaultDetail> => faults.one(params.id, windowOf(query, LONGEST), query.zone),
    }),
    endpoint<unknown, { id: number }, FaultBody>({
      method: 'post',
      path: '/faults/{id}/said',
      summary:
        'Says of a fault that it is new, in hand, mended (in a version, or since an instant) or tolerated (until an instant); what was said before stays in its history',
      params: faultId,
      body: Joi.object({
        state: Joi.string().valid('new', 'in-hand', 'mended', 'tolerated').required(),
        owner: text(100),
        note: text(2000),
        ticket: text(200),
        version: text(100),
        since: instant.allow(null).default(null),
        until: instant.allow(null).default(null),
      }),
      async run({ params, body, access }): Promise<void> {
        const fault = await headOf(rows, params.id);
        const { state, owner = '', note = '', ticket = '', version = '', since, until } = body;
        if (state === 'tolerated' && note === '')
          throw new Refusal(400, 'A reason is needed', 'What is tolerated needs a reason.', 'Write why it may be so, in “because”.');
        const mended = state === 'mended';
        await rows.say({
          fault,
          state,
          owner,
          note,
          ticket,
          version: mended ? version : '',
          since_at: !mended || version !== '' ? null : since ? microsOf(since) : Date.now() * 1000,
          until_at: state === 'tolerated' && until ? microsOf(until) : null,
          who: access.who,
        });
        standing.forget();
      },
    }),
    endpoint<unknown, { id: number }>({
      method: 'delete',
      path: '/faults/{id}/said',
      summary: 'Takes back what was said of a fault last',
      params: faultId,
      async run({ params }): Promise<void> {
        if (!(await rows.unsay(await headOf(rows, params.id))))
          throw new Refusal(409, 'Nothing to take back', 'Nothing was said of this fault.', 'Choose a state for it instead.');
        standing.forget();
      },
    }),
  ];
}
