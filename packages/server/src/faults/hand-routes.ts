import Joi from 'joi';
import type { FaultParting } from '@fadenweg/api';
import { endpoint, type AnyEndpoint } from '../platform/http/endpoint.ts';
import { Refusal } from '../platform/http/problems.ts';
import type { Weaving } from '../weaving/weaving.ts';
import type { FaultHands } from './fault-hands.ts';
import type { FaultRepository } from './fault-rows.ts';
import { faultId, headOf } from './fault-routes.ts';
import type { FaultStanding } from './standing.ts';

const words = Joi.string().min(2).max(200).required();

/** What people put together and part of faults; it holds for what comes later, and can be taken back. */
export function handRoutes(rows: FaultRepository, hands: FaultHands, standing: FaultStanding, weaving: Weaving): AnyEndpoint[] {
  const judgedAgain = async (founders: readonly number[]): Promise<void> => {
    standing.forget();
    if (founders.length > 0) await weaving.changed(founders, [], 'people parted a fault');
  };
  return [
    endpoint<unknown, { id: number }, { other: number }>({
      method: 'post',
      path: '/faults/{id}/together',
      summary: 'Puts another fault together with this one: from now on it counts as this, also of what comes later',
      params: faultId,
      body: Joi.object({ other: Joi.number().integer().min(0).max(Number.MAX_SAFE_INTEGER).required() }),
      async run({ params, body, access }): Promise<void> {
        const [head, other] = [await headOf(rows, params.id), await headOf(rows, body.other)];
        if (head === other)
          throw new Refusal(409, 'They are one fault', 'These two count as one already.', 'Choose another fault to put together with it.');
        await hands.together(other, head, access.who);
        standing.forget();
      },
    }),
    endpoint<{ words: string }, { id: number }>({
      method: 'get',
      path: '/faults/{id}/parts',
      summary: 'How many records of a fault hold some words, letter for letter: what would be parted by them',
      params: faultId,
      query: Joi.object({ words }),
      run: async ({ params, query }): Promise<FaultParting> => hands.holding(await headOf(rows, params.id), query.words),
    }),
    endpoint<unknown, { id: number }, { words: string }>({
      method: 'post',
      path: '/faults/{id}/parts',
      summary: 'Makes a fault of its own of what holds some words, letter for letter, also of what comes later; its strands are judged again',
      params: faultId,
      body: Joi.object({ words }),
      async run({ params, body, access }): Promise<{ id: number }> {
        const fault = await headOf(rows, params.id);
        const { records, of } = await hands.holding(fault, body.words);
        if (records === 0 || records === of)
          throw new Refusal(
            409,
            'These words part nothing',
            records === 0 ? 'None of its records holds them.' : 'All of its records hold them.',
            'Choose words that some of its records hold and others do not; letters large and small count.',
          );
        const { part, founders } = await hands.part(fault, body.words, access.who);
        await judgedAgain(founders);
        return { id: part };
      },
    }),
    endpoint<unknown, { id: number }>({
      method: 'delete',
      path: '/faults/{id}/hand',
      summary: 'Takes back what was put together with a fault, or parted of it, last',
      params: faultId,
      async run({ params }): Promise<void> {
        const members = (await rows.members(await headOf(rows, params.id))).map((one) => one.id);
        const [last] = await hands.of(members);
        if (!last)
          throw new Refusal(409, 'Nothing to take back', 'Nothing was put together with this fault or parted of it.', 'Choose another fault.');
        await judgedAgain(await hands.takeBack(last));
      },
    }),
  ];
}
