import Joi from 'joi';
import type { Page, WorkInfo, WorkState } from '@fadenweg/api';
import { endpoint, type AnyEndpoint } from '../platform/http/endpoint.ts';
import { after, limit, list, splitList } from '../platform/http/inputs.ts';
import { notFound, Refusal } from '../platform/http/problems.ts';
import type { WorkRow } from '../platform/work/types.ts';
import type { Work } from '../platform/work/work.ts';

const STATES: readonly WorkState[] = ['running', 'waiting', 'failed', 'done', 'cancelled'];
const number = Joi.object({ id: Joi.number().integer().min(1).max(Number.MAX_SAFE_INTEGER).required() });

/** What runs, waits and failed in the background. */
export function workRoutes(work: Work): AnyEndpoint[] {
  const inWords = (row: WorkRow): WorkInfo => ({
    id: row.id,
    kind: row.kind,
    label: work.label(row.kind),
    about: row.about,
    why: row.why,
    who: row.who,
    state: row.state,
    madeAt: row.made_at.toISOString(),
    dueAt: row.due_at.toISOString(),
    startedAt: row.started_at?.toISOString() ?? null,
    endedAt: row.ended_at?.toISOString() ?? null,
    tries: row.tries,
    share: row.share,
    doing: row.doing,
    error: row.error,
  });
  const find = async (id: number): Promise<WorkRow> => {
    const row = await work.byId(id);
    if (!row) throw notFound(`The piece of work ${id}`);
    return row;
  };
  return [
    endpoint<{ state?: string; after?: string; limit: number }>({
      method: 'get',
      path: '/work',
      summary: 'Work in the background, the latest first: what runs, what waits, what failed and why',
      query: Joi.object({ state: list, after, limit: limit(200, 50) }),
      async run({ query }): Promise<Page<WorkInfo>> {
        const states = (splitList(query.state) ?? [...STATES]) as WorkState[];
        const unknown = states.find((state) => !STATES.includes(state));
        if (unknown) throw new Refusal(400, 'Unknown state', `There is no state “${unknown}”.`, `States are ${STATES.join(', ')}.`);
        const before = query.after === undefined ? null : Number(query.after);
        if (before !== null && !Number.isSafeInteger(before)) throw new Refusal(400, 'Unknown place', `“${query.after}” is no place in this list.`);
        const rows = await work.list(states, before, query.limit + 1);
        return {
          items: rows.slice(0, query.limit).map(inWords),
          next: rows.length > query.limit ? String(rows[query.limit - 1]!.id) : null,
        };
      },
    }),
    endpoint<unknown, { id: number }>({
      method: 'get',
      path: '/work/{id}',
      summary: 'One piece of work',
      params: number,
      async run({ params }): Promise<WorkInfo> {
        return inWords(await find(params.id));
      },
    }),
    endpoint<unknown, { id: number }>({
      method: 'post',
      path: '/work/{id}/again',
      summary: 'Tries again what failed or was cancelled',
      params: number,
      status: 202,
      async run({ params, access }): Promise<WorkInfo> {
        const row = await find(params.id);
        if (!(await work.again(row, access)))
          throw new Refusal(409, 'Nothing to try again', 'It has not failed.', 'Only what failed or was cancelled is tried again.');
        return inWords(await find(params.id));
      },
    }),
    endpoint<unknown, { id: number }>({
      method: 'delete',
      path: '/work/{id}',
      summary: 'Cancels what waits or runs; what runs ends behind its next step',
      params: number,
      status: 202,
      async run({ params }): Promise<WorkInfo> {
        const row = await find(params.id);
        if (!(await work.cancel(row))) throw new Refusal(409, 'It has ended', 'What has ended cannot be cancelled.');
        return inWords(await find(params.id));
      },
    }),
  ];
}
