import Joi from 'joi';
import type { Page, WeightRuleBody, WeightRuleInfo } from '@fadenweg/api';
import { fieldNames, LONGEST_SEARCH } from '@fadenweg/core/search';
import { WEIGHTS } from '@fadenweg/core/weights';
import { endpoint, type AnyEndpoint } from '../platform/http/endpoint.ts';
import { searchOf } from '../platform/http/inputs.ts';
import { notFound, Refusal } from '../platform/http/problems.ts';
import { MOST_WEIGHTS, type KeptRepository } from './kept.ts';
import type { WeighedByPeople } from './weights.ts';

const name = Joi.string().pattern(/^[a-z0-9-]{1,40}$/).required(); // prettier-ignore

/** What people say weighs how much: a search, and what is found by it weighs so. */
export function weightRoutes(kept: KeptRepository, weights: WeighedByPeople): AnyEndpoint[] {
  return [
    endpoint({
      method: 'get',
      path: '/weights',
      summary: 'What people say weighs how much, the one that decides first',
      run: async (): Promise<Page<WeightRuleInfo>> => ({ items: await weights.rules(), next: null }),
    }),
    endpoint<unknown, { name: string }, WeightRuleBody>({
      method: 'put',
      path: '/weights/{name}',
      summary: 'Says how much weighs what a search finds, or changes it',
      params: Joi.object({ name }),
      body: Joi.object({
        name,
        label: Joi.string().trim().min(1).max(80).required(),
        q: Joi.string().trim().min(1).max(LONGEST_SEARCH).required(),
        weight: Joi.string().valid(...WEIGHTS).required(), // prettier-ignore
      }),
      async run({ params, body, access }): Promise<WeightRuleBody> {
        if (params.name !== body.name) throw new Refusal(400, 'Two names', 'The name in the address and in the body differ.');
        if (fieldNames(searchOf(body.q)).includes('weight'))
          throw new Refusal(
            400,
            'It asks for itself',
            'What says how much something weighs cannot ask how much it weighs.',
            'Ask for level, words or fields instead.',
          );
        const known = await weights.rules();
        if (known.length >= MOST_WEIGHTS && !known.some((one) => one.name === body.name))
          throw new Refusal(409, 'There are too many', `There are ${MOST_WEIGHTS} already.`, 'Take one away first.');
        await kept.saveWeightRule(body, access);
        weights.forget();
        return body;
      },
    }),
    endpoint<unknown, { name: string }>({
      method: 'delete',
      path: '/weights/{name}',
      summary: 'Takes away what was said of a weight',
      params: Joi.object({ name }),
      async run({ params }): Promise<void> {
        if (!(await kept.removeWeightRule(params.name))) throw notFound(`A weight “${params.name}”`);
        weights.forget();
      },
    }),
  ];
}
