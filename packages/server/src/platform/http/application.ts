import { randomUUID } from 'node:crypto';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import express, { Router, type Express } from 'express';
import helmet from 'helmet';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import type { Guarded } from '../access.ts';
import { described, mount, type AnyEndpoint } from './endpoint.ts';
import { sameOriginOnly } from './guard.ts';
import { openMetrics, type Metric } from './metrics.ts';
import { openApi } from './openapi.ts';
import { problemHandler, unknownPath } from './problems.ts';

export interface ApplicationParts {
  /** Those of each room. */
  endpoints: readonly Guarded<readonly AnyEndpoint[]>[];
  version: string;
  log: Logger;
  /** Folder of the built page, null where only the API is served. */
  web: string | null;
  hosts: readonly string[];
  /** What the server tells of itself in figures. */
  metrics(): Promise<readonly Metric[]>;
}

/** The HTTP application: guard, API, page. */
export function application({ endpoints, version, log, web, hosts, metrics }: ApplicationParts): Express {
  const app = express();
  app.disable('x-powered-by');
  app.set('query parser', 'simple');
  app.use(
    helmet({
      contentSecurityPolicy: {
        directives: {
          defaultSrc: ["'self'"],
          scriptSrc: ["'self'"],
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'data:', 'blob:'],
          fontSrc: ["'self'", 'data:'],
          workerSrc: ["'self'", 'blob:'],
          connectSrc: ["'self'"],
          objectSrc: ["'none'"],
          frameAncestors: ["'none'"],
          upgradeInsecureRequests: null,
        },
      },
      strictTransportSecurity: false,
    }),
  );
  app.use(sameOriginOnly(hosts));
  app.use('/api', pinoHttp({ logger: log, useLevel: 'debug', genReqId: () => randomUUID().slice(0, 8) }));
  app.use('/api', (request, response, next) => {
    response.set('X-Request-Id', String(request.id));
    next();
  });
  app.get('/metrics', async (_request, response) => {
    response.type('application/openmetrics-text; version=1.0.0; charset=utf-8').send(openMetrics(await metrics()));
  });
  const api = Router();
  api.use(express.json({ limit: '1mb' }));
  api.get('/openapi.json', (_request, response) => {
    response.json(openApi(described(endpoints), version));
  });
  mount(api, endpoints);
  api.use(unknownPath);
  app.use(
    '/api',
    (_request, response, next) => {
      response.set('Cache-Control', 'no-store');
      next();
    },
    api,
  );
  if (web !== null && existsSync(join(web, 'index.html'))) {
    app.use('/assets', express.static(join(web, 'assets'), { immutable: true, maxAge: '1y', fallthrough: false }));
    app.use(express.static(web, { index: false }));
    app.get('/{*path}', (_request, response) => {
      response.set('Cache-Control', 'no-cache').sendFile(join(web, 'index.html'));
    });
  }
  app.use(problemHandler(log));
  return app;
}
