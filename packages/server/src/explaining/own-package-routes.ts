import Joi from 'joi';
import type { OwnPackage, Page } from '@fadenweg/api';
import { endpoint, type AnyEndpoint } from '../platform/http/endpoint.ts';
import { notFound, Refusal } from '../platform/http/problems.ts';
import { MOST_PACKAGES, type OwnPackages } from './own-packages.ts';

const prefix = Joi.string()
  .trim()
  .min(2)
  .max(200)
  .pattern(/^[^\s,]+$/, 'one package or folder')
  .pattern(/[^./\\]$/, 'a name that ends with a letter or digit')
  .required();

/** Packages whose calls are the program's own in every stack trace. */
export function ownPackageRoutes(own: OwnPackages): AnyEndpoint[] {
  return [
    endpoint({
      method: 'get',
      path: '/own-packages',
      summary: 'Packages and folders that are declared to be the program’s own',
      async run(): Promise<Page<OwnPackage>> {
        return { items: await own.all(), next: null };
      },
    }),
    endpoint<unknown, unknown, { prefix: string }>({
      method: 'post',
      path: '/own-packages',
      summary: 'Declares a package or folder, with all below it, to be the program’s own; its calls are shown in stack traces',
      status: 201,
      body: Joi.object({ prefix }),
      async run({ body, access }): Promise<Page<OwnPackage>> {
        if ((await own.all()).length >= MOST_PACKAGES)
          throw new Refusal(
            409,
            'Too many packages',
            `At most ${MOST_PACKAGES} are declared.`,
            'Declare a shorter beginning that holds several of them.',
          );
        await own.keep(body.prefix, access);
        return { items: await own.all(), next: null };
      },
    }),
    endpoint<{ prefix: string }>({
      method: 'delete',
      path: '/own-packages',
      summary: 'Takes back that a package is the program’s own',
      query: Joi.object({ prefix }),
      async run({ query }): Promise<void> {
        if (!(await own.forget(query.prefix))) throw notFound('This package');
      },
    }),
  ];
}
