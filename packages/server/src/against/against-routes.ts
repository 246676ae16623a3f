import Joi from 'joi';
import type { Against, AgainstWhat } from '@fadenweg/api';
import { endpoint, type AnyEndpoint } from '../platform/http/endpoint.ts';
import { windowInput, windowOf, type WindowQuery } from '../platform/http/windows.ts';
import type { AgainstService } from './against.ts';

const YEAR = 366 * 86_400_000_000;
interface Query extends WindowQuery {
  what: AgainstWhat;
  name: string;
  of: string;
}

export function againstRoutes(against: AgainstService): AnyEndpoint[] {
  return [
    endpoint<Query>({
      method: 'get',
      path: '/against',
      summary:
        'A party, component, host or version beside all others of the same flows, and beside itself before: outcomes, durations, time in databases and elsewhere, by time; others of its kind',
      query: Joi.object({
        what: Joi.string().valid('party', 'component', 'host', 'version').required(),
        name: Joi.string().min(1).max(300).required(),
        of: Joi.string().max(200).allow('').default(''),
        ...windowInput,
      }),
      run({ query }): Promise<Against> {
        const { what, name, of } = query;
        const { zone, ...window } = windowOf(query, YEAR);
        return against.of({ what, name, of }, window, zone);
      },
    }),
  ];
}
