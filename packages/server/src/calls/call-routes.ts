import Joi from 'joi';
import type { Call, CallCounts, CallPage } from '@fadenweg/api';
import { endpoint, type AnyEndpoint } from '../platform/http/endpoint.ts';
import { after, limit, list, splitList } from '../platform/http/inputs.ts';
import { Refusal } from '../platform/http/problems.ts';
import { windowInput, windowOf, type WindowQuery } from '../platform/http/windows.ts';
import { leads } from '../strands/leads.ts';
import type { StrandService } from '../strands/strand-service.ts';
import type { CallCursor, CallFilter, CallSort } from './call-rows.ts';
import { keptName, type CallService } from './calls.ts';

const LONGEST = 366 * 86_400_000_000;
const STATES = ['asked', 'ringing', 'talking', 'ended', 'refused', 'given-up'];
const SORTS = ['-started', '-setup', '-postdial', '-talking', 'talking'];
const filters = {
  ...windowInput,
  /** Numbers in any notation, or names: as caller, called or reached. */
  number: list,
  caller: list,
  called: list,
  state: Joi.string().max(80),
  status: Joi.string()
    .pattern(/^\d{3}(?:,\d{3})*$/, 'codes of three digits with commas between')
    .max(200),
  outcome: list,
};
interface Filters extends WindowQuery {
  number?: string;
  caller?: string;
  called?: string;
  state?: string;
  status?: string;
  outcome?: string;
}

export function callRoutes(calls: CallService, strands: StrandService): AnyEndpoint[] {
  return [
    endpoint<Filters & { sort: CallSort; after?: string; limit: number }>({
      method: 'get',
      path: '/calls',
      summary:
        'Calls that began in a window: who called whom, how they went, how long until something was heard, until they were taken, and how long was talked',
      query: Joi.object({ ...filters, sort: Joi.string().valid(...SORTS).default('-started'), after, limit: limit(500, 100) }), // prettier-ignore
      run: ({ query }): Promise<CallPage> => calls.list(filterOf(query), query.sort, cursorOf(query.after), query.limit),
    }),
    endpoint<Filters>({
      method: 'get',
      path: '/calls/counts',
      summary: 'How many calls began in a window, by how they went',
      query: Joi.object(filters),
      run: ({ query }): Promise<CallCounts> => calls.counts(filterOf(query)),
    }),
    endpoint<unknown, { id: string }>({
      method: 'get',
      path: '/strands/{id}/call',
      summary: 'What there is to say of a strand as a call, and its messages laid out between those who sent them; 204 where it is none',
      params: Joi.object({ id: Joi.string().max(300).required() }),
      run: async ({ params }): Promise<Call | undefined> => (await calls.of(await leads(strands, params.id))) ?? undefined,
    }),
  ];
}

function filterOf(query: Filters): CallFilter {
  const { from, to, environment } = windowOf(query, LONGEST);
  const state = splitList(query.state);
  const unknown = state?.find((one) => !STATES.includes(one));
  if (unknown) throw new Refusal(400, 'Unknown state', `There is no state “${unknown}” of a call.`, `States are ${STATES.join(', ')}.`);
  return {
    from,
    to,
    environment,
    state,
    numbers: splitList(query.number)?.map(keptName),
    caller: splitList(query.caller)?.map(keptName),
    called: splitList(query.called)?.map(keptName),
    status: splitList(query.status)?.map(Number),
    outcome: splitList(query.outcome),
  };
}
function cursorOf(text: string | undefined): CallCursor | null {
  if (text === undefined) return null;
  const hit = /^(-?\d{1,17})~(\d{1,17})$/.exec(text);
  if (!hit) throw new Refusal(400, 'The request is not as it should be', '“after” is no place in a list of calls.');
  return { value: Number(hit[1]), founder: Number(hit[2]) };
}
