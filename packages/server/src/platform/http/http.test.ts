import { beforeAll, describe, expect, test } from '@jest/globals';
import Joi from 'joi';
import { pino } from 'pino';
import request from 'supertest';
import { guarded } from '../access.ts';
import { application } from './application.ts';
import { endpoint } from './endpoint.ts';
import { microsOf, splitList } from './inputs.ts';
import { notFound, Refusal } from './problems.ts';

const endpoints = [
  endpoint<{ n: number }>({
    method: 'get',
    path: '/double',
    summary: 'Doubles',
    query: Joi.object({ n: Joi.number().integer().min(0).max(10).default(1) }),
    run: async ({ query }) => ({ n: query.n * 2 }),
  }),
  endpoint<unknown, { id: string }>({
    method: 'get',
    path: '/things/{id}',
    summary: 'A thing',
    params: Joi.object({ id: Joi.string().max(5).required() }),
    run: async ({ params }) => {
      throw notFound(`Thing ${params.id}`);
    },
  }),
  endpoint<unknown, unknown, { name: string }>({
    method: 'post',
    path: '/things',
    summary: 'Makes a thing',
    status: 201,
    body: Joi.object({ name: Joi.string().min(1).max(20).required() }),
    run: async ({ body, access }) => ({ ...body, who: access.who }),
  }),
  endpoint({ method: 'delete', path: '/things', summary: 'Takes all away', run: async () => undefined }),
  endpoint({
    method: 'get',
    path: '/broken',
    summary: 'Breaks',
    run: async () => {
      throw new Error('secret of the inside');
    },
  }),
  endpoint({
    method: 'get',
    path: '/away',
    summary: 'Has no database',
    run: async () => {
      throw Object.assign(new Error('connect ECONNREFUSED'), { code: 'ECONNREFUSED' });
    },
  }),
];
const app = application({
  endpoints: [guarded(() => endpoints)],
  version: '9.9.9',
  log: pino({ level: 'silent' }),
  web: null,
  hosts: ['logs.brillmoor.example'],
  metrics: async () => [],
});
let agent: ReturnType<typeof request>;
beforeAll(() => {
  agent = request(app);
});

describe('the API’s manners', () => {
  test('input is converted and checked, unknown names are refused by name', async () => {
    expect((await agent.get('/api/double?n=4')).body).toEqual({ n: 8 });
    expect((await agent.get('/api/double')).body).toEqual({ n: 2 });
    const bad = await agent.get('/api/double?n=99');
    expect([bad.status, bad.headers['content-type']]).toEqual([400, expect.stringContaining('application/problem+json')]);
    expect((await agent.get('/api/double?m=1')).body.detail).toContain('"m"');
    expect((await agent.get('/api/broken?x=1')).body.detail).toContain('“x”');
  });
  test('a zero byte is refused wherever it stands', async () => {
    for (const answer of [
      await agent.get('/api/double?n=1%00'),
      await agent.get('/api/things/a%00'),
      await agent.post('/api/things').send({ name: 'a\0b' }),
      await agent.post('/api/things').send({ 'na\0me': 'ab' }),
    ])
      expect([answer.status, answer.body.detail]).toEqual([400, expect.stringContaining('zero byte')]);
  });
  test('changes carry who did them; answers have the promised status', async () => {
    const made = await agent.post('/api/things').send({ name: 'one' });
    expect([made.status, made.body]).toEqual([201, { name: 'one', who: 'local administrator' }]);
    expect((await agent.post('/api/things').send({})).status).toBe(400);
    expect((await agent.post('/api/things').set('content-type', 'application/json').send('{"name":')).status).toBe(400);
    expect((await agent.delete('/api/things')).status).toBe(204);
  });
  test('what is not there, what breaks and what is away each say so, and nothing of the inside gets out', async () => {
    expect((await agent.get('/api/things/7')).body).toMatchObject({ status: 404, detail: 'Thing 7 does not exist.' });
    expect((await agent.get('/api/nowhere')).body).toMatchObject({ status: 404, action: expect.stringContaining('openapi') });
    const broken = await agent.get('/api/broken');
    expect([broken.status, JSON.stringify(broken.body)]).toEqual([500, expect.not.stringContaining('secret')]);
    expect([broken.headers['x-request-id'], broken.body.detail]).toEqual([broken.body.request, expect.stringContaining(broken.body.request)]);
    expect((await agent.get('/api/away')).body).toMatchObject({ status: 503, title: 'The database does not answer' });
  });
  test('answers are not kept, and the page may run nothing from elsewhere', async () => {
    const { headers } = await agent.get('/api/double');
    expect(headers['cache-control']).toBe('no-store');
    expect(headers['content-security-policy']).toMatch(/script-src 'self'(;|$)/);
    expect(headers['x-powered-by']).toBeUndefined();
  });
  test('other hosts and foreign pages are turned away, names that were allowed are not', async () => {
    expect((await agent.get('/api/double').set('host', 'evil.example')).status).toBe(421);
    expect((await agent.get('/api/double').set('host', 'logs.brillmoor.example:7350')).status).toBe(200);
    expect((await agent.delete('/api/things').set('origin', 'http://evil.example')).status).toBe(403);
    expect((await agent.delete('/api/things').set('host', 'logs.brillmoor.example').set('origin', 'https://logs.brillmoor.example')).status).toBe(
      204,
    );
    expect((await agent.get('/api/double').set('origin', 'http://evil.example')).status).toBe(200);
    for (const site of ['cross-site', 'same-site']) expect((await agent.delete('/api/things').set('sec-fetch-site', site)).status).toBe(403);
    for (const site of ['same-origin', 'none']) expect((await agent.delete('/api/things').set('sec-fetch-site', site)).status).toBe(204);
  });
  test('the description is made from the calls', async () => {
    const { body } = await agent.get('/api/openapi.json');
    expect(body.info.version).toBe('9.9.9');
    expect(body.paths['/api/double'].get.parameters).toEqual([
      { name: 'n', in: 'query', required: false, schema: { type: 'integer', minimum: 0, maximum: 10, default: 1 } },
    ]);
    expect(body.paths['/api/things/{id}'].get.parameters[0]).toMatchObject({ in: 'path', required: true, schema: { type: 'string', maxLength: 5 } });
    expect(body.paths['/api/things'].post.requestBody.content['application/json'].schema).toMatchObject({ type: 'object', required: ['name'] });
  });
});

test('a refusal carries what to do', () =>
  expect(new Refusal(409, 'No', 'because', 'wait')).toMatchObject({ status: 409, message: 'because', action: 'wait' }));
test('microseconds of a time are kept', () => {
  expect(microsOf('2026-11-24T09:41:58.912345Z')).toBe(1_795_513_318_912_345);
  expect(microsOf('2026-11-24T10:41:58.9+01:00')).toBe(1_795_513_318_900_000);
  expect(microsOf('2026-11-24T09:41:58Z')).toBe(1_795_513_318_000_000);
});
test('lists are parted by commas', () =>
  expect([splitList('a, b,,c'), splitList(''), splitList(undefined)]).toEqual([['a', 'b', 'c'], undefined, undefined]));
