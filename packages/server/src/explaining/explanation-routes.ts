import Joi from 'joi';
import type { KeptCode, OwnCode, Page } from '@fadenweg/api';
import { endpoint, type AnyEndpoint } from '../platform/http/endpoint.ts';
import { numbered } from '../platform/http/inputs.ts';
import { notFound, Refusal } from '../platform/http/problems.ts';
import { MOST_CODES, type OwnCodes } from './own-codes.ts';

const text = (most: number): Joi.StringSchema => Joi.string().trim().max(most).allow('').default('');
const code = Joi.object({
  code: Joi.string().trim().min(2).max(60).required(),
  component: Joi.string().trim().min(1).max(100).allow(null).default(null),
  title: Joi.string().trim().min(1).max(120).required(),
  means: text(1000),
  causes: text(1000),
  next: text(1000),
});

/** What codes of one's own mean; the list is what an import takes. */
export function explanationRoutes(own: OwnCodes): AnyEndpoint[] {
  return [
    endpoint({
      method: 'get',
      path: '/explanations',
      summary: 'What codes of one’s own mean; to be kept as a file, and brought in again by POST',
      async run(): Promise<Page<KeptCode>> {
        return { items: await own.all(), next: null };
      },
    }),
    endpoint<unknown, unknown, { items: OwnCode[] }>({
      method: 'post',
      path: '/explanations',
      summary: 'Adds what codes of one’s own mean; those that are there already are replaced',
      status: 201,
      body: Joi.object({
        items: Joi.array()
          .items(code.keys({ id: Joi.any().strip(), changedBy: Joi.any().strip() }))
          .min(1)
          .max(1000)
          .required(),
        next: Joi.any().strip(),
      }),
      async run({ body, access }): Promise<Page<KeptCode>> {
        if ((await own.all()).length + body.items.length > MOST_CODES)
          throw new Refusal(409, 'Too many codes', `At most ${MOST_CODES} are kept.`, 'Take away those that are not needed any more.');
        await own.keep(body.items, access);
        return { items: await own.all(), next: null };
      },
    }),
    endpoint<unknown, { id: number }>({
      method: 'delete',
      path: '/explanations/{id}',
      summary: 'Takes away what a code of one’s own means',
      params: numbered,
      async run({ params }): Promise<void> {
        if (!(await own.forget(params.id))) throw notFound('This code');
      },
    }),
  ];
}
