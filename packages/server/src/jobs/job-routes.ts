import Joi from 'joi';
import type { JobRuns, Jobs, Page } from '@fadenweg/api';
import { endpoint, type AnyEndpoint } from '../platform/http/endpoint.ts';
import { list, splitList } from '../platform/http/inputs.ts';
import { windowInput, windowOf, type WindowQuery } from '../platform/http/windows.ts';
import type { JobService, JobSort } from './jobs.ts';

const LONGEST = 366 * 86_400_000_000;

export function jobRoutes(jobs: JobService): AnyEndpoint[] {
  return [
    endpoint<WindowQuery & { sort: JobSort }>({
      method: 'get',
      path: '/jobs',
      summary:
        'Jobs: their learned schedule, the last run and the last good one, rows and duration against the usual, when the next is due, and what did not start in a window',
      query: Joi.object({ ...windowInput, sort: Joi.string().valid('gravest', 'last', 'name').default('gravest') }),
      run: ({ query }): Promise<Jobs> => jobs.list(windowOf(query, LONGEST), query.sort),
    }),
    endpoint<WindowQuery & { flow?: string }>({
      method: 'get',
      path: '/jobs/runs',
      summary: 'Runs of jobs in a window, each job’s in order of time, and when they were due and did not start',
      query: Joi.object({ ...windowInput, flow: list }),
      run: async ({ query }): Promise<Page<JobRuns>> => ({
        items: await jobs.runs(windowOf(query, LONGEST), splitList(query.flow) ?? null),
        next: null,
      }),
    }),
  ];
}
