import Joi from 'joi';
import type { DataSet, DataSetHistory, Page, StrandData } from '@fadenweg/api';
import { endpoint, type AnyEndpoint } from '../platform/http/endpoint.ts';
import { notFound } from '../platform/http/problems.ts';
import { windowInput, windowOf, type WindowQuery } from '../platform/http/windows.ts';
import { leads } from '../strands/leads.ts';
import type { StrandService } from '../strands/strand-service.ts';
import type { DataService } from './data.ts';

const LONGEST = 366 * 86_400_000_000;

export function dataRoutes(data: DataService, strands: StrandService): AnyEndpoint[] {
  return [
    endpoint<WindowQuery>({
      method: 'get',
      path: '/data-sets',
      summary: 'Files, tables and feeds that runs read and write in a window: who does, when each was written last, how many rows are usual, what failed',
      query: Joi.object(windowInput),
      run: async ({ query }): Promise<Page<DataSet>> => ({ items: await data.list(windowOf(query, LONGEST)), next: null }),
    }),
    endpoint<WindowQuery & { name: string; of: string }>({
      method: 'get',
      path: '/data-sets/one',
      summary: 'One of them, of an environment: who wrote and read it in a window, the latest first',
      query: Joi.object({ ...windowInput, name: Joi.string().max(300).required(), of: Joi.string().max(100).required() }),
      async run({ query }): Promise<DataSetHistory> {
        const found = await data.one({ name: query.name, environment: query.of }, windowOf(query, LONGEST));
        if (!found) throw notFound(`What is called “${query.name.slice(0, 120)}”, in this time,`);
        return found;
      },
    }),
    endpoint<unknown, { id: string }>({
      method: 'get',
      path: '/strands/{id}/data',
      summary: 'What a strand read and wrote: the run that brought what it read, those that read afterwards what it wrote, an earlier one with the very same input',
      params: Joi.object({ id: Joi.string().max(300).required() }),
      run: async ({ params }): Promise<Page<StrandData>> => ({ items: await data.of(await leads(strands, params.id)), next: null }),
    }),
  ];
}
