import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { once } from 'node:events';
import { createServer, request, type IncomingMessage, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { text } from 'node:stream/consumers';
import { setTimeout } from 'node:timers/promises';
import Joi from 'joi';
import { pino } from 'pino';
import { guarded } from '../access.ts';
import { application } from './application.ts';
import { AskerGone, endpoint } from './endpoint.ts';
import type { EventStream } from './event-stream.ts';
import { Pieces, Telling } from './leaving.ts';
import { Elsewhere, Refusal } from './problems.ts';

const seen = { pieces: 0, ended: false, why: null as unknown, stream: null as EventStream | null, told: 0 };
async function* counted(count: number, size: number, breaksAt = Infinity): AsyncGenerator<string> {
  try {
    for (let i = 0; i < count; i++) {
      if (i === breaksAt) throw new Error('the database is gone');
      seen.pieces++;
      yield `${String(i).padEnd(size - 1, '.')}\n`;
    }
  } finally {
    seen.ended = true;
  }
}
const get = <Query>(path: string, run: (query: Query, signal: AbortSignal) => unknown, query?: Joi.ObjectSchema, status?: number) =>
  endpoint<Query>({ method: 'get', path, summary: path, query, status, run: ({ query: own, signal }) => Promise.resolve(run(own, signal)) });
const endpoints = [
  get('/pieces', ({ count }: { count: number }) => new Pieces(counted(count, 1000), 'text/csv', { 'X-Strands': String(count) }), Joi.object({ count: Joi.number() })), // prettier-ignore
  get('/broken', () => new Pieces(counted(500, 1000, 400), 'application/x-ndjson')),
  get('/none', () => undefined),
  get('/made', () => ({ made: true }), undefined, 201),
  get('/moved', () => Promise.reject(new Elsewhere('/api/made'))),
  get('/several', () => Promise.reject(new Refusal(300, 'Several', 'There are two.', 'Choose one.', { choices: [] }))),
  get('/full', () => Promise.reject(Object.assign(new Error('could not extend file'), { code: '53100' }))),
  get('/waits', async (_query, signal) => {
    await once(signal, 'abort');
    seen.why = signal.reason;
    return 'nobody hears this';
  }),
  get('/events', () => {
    return new Telling(async (stream) => {
      seen.stream = stream;
      for (let i = 0; i < 400 && stream.open; i++) {
        await stream.send('one', { i, filling: '.'.repeat(20_000) }, String(i));
        seen.told++;
      }
    });
  }),
];
let server: Server;
let url = '';
beforeAll(async () => {
  const parts = { version: '1', log: pino({ level: 'silent' }), web: null, hosts: [], metrics: async () => [] };
  server = createServer(application({ endpoints: [guarded(() => endpoints)], ...parts })).listen(0, '127.0.0.1');
  await once(server, 'listening');
  url = `http://127.0.0.1:${(server.address() as AddressInfo).port}/api`;
});
afterAll(async () => {
  server.closeAllConnections();
  await new Promise((resolve) => server.close(resolve));
});
const open = async (path: string): Promise<IncomingMessage> => {
  const [answer] = (await once(request(`${url}${path}`).end(), 'response')) as [IncomingMessage];
  return answer;
};
const until = async (holds: () => boolean): Promise<void> => {
  for (let i = 0; !holds(); i++) {
    if (i > 400) throw new Error('it never came to that');
    await setTimeout(10);
  }
};

describe('what leaves the server', () => {
  test('pieces come in their order, with their type and headers', async () => {
    const answer = await fetch(`${url}/pieces?count=300`);
    expect([answer.status, answer.headers.get('content-type'), answer.headers.get('x-strands')]).toEqual([200, expect.stringContaining('text/csv'), '300']); // prettier-ignore
    const lines = (await answer.text()).trimEnd().split('\n');
    expect(lines.map((line) => parseInt(line))).toEqual(Array.from({ length: 300 }, (_, i) => i));
  });

  test('what breaks in the middle breaks the answer: nobody takes a part for the whole', async () => {
    seen.pieces = 0;
    await expect(open('/broken').then(text)).rejects.toThrow(/aborted|hang up/);
    expect(seen.pieces).toBe(400);
    expect((await fetch(`${url}/made`)).status).toBe(201); // and the server goes on
  });

  test('no more is made than the reader takes, and none when the reader is gone', async () => {
    Object.assign(seen, { pieces: 0, ended: false });
    const answer = await open('/pieces?count=100000');
    await once(answer, 'readable');
    answer.read(1);
    await setTimeout(300);
    const made = seen.pieces;
    expect(made).toBeLessThan(50_000);
    await setTimeout(200);
    expect(seen.pieces).toBe(made);
    answer.destroy();
    await until(() => seen.ended);
    expect(seen.pieces).toBeLessThan(made + 100);
  });

  test('nothing is 204, a value has the status of its call, and what moved is told for good', async () => {
    expect([(await fetch(`${url}/none`)).status, await (await fetch(`${url}/none`)).text()]).toEqual([204, '']);
    const made = await fetch(`${url}/made`);
    expect([made.status, await made.json()]).toEqual([201, { made: true }]);
    const moved = await fetch(`${url}/moved`, { redirect: 'manual' });
    expect([moved.status, moved.headers.get('location')]).toEqual([308, '/api/made']);
    const several = await fetch(`${url}/several`);
    expect([several.status, await several.json()]).toEqual([300, expect.objectContaining({ title: 'Several', action: 'Choose one.', choices: [] })]);
    expect(await (await fetch(`${url}/full`)).json()).toMatchObject({ status: 507, title: 'The disk is full' });
  });

  test('who leaves ends what is done for them', async () => {
    const asking = request(`${url}/waits`).end();
    asking.on('error', () => {}); // it is given up
    await setTimeout(100);
    asking.destroy();
    await until(() => seen.why !== null);
    expect(seen.why).toBeInstanceOf(AskerGone);
  });

  test('events wait for a slow reader, come whole, and end with the reader', async () => {
    const answer = await open('/events');
    expect(answer.headers['content-type']).toContain('text/event-stream');
    await until(() => seen.told > 0);
    await setTimeout(200);
    const held = seen.told;
    expect(held).toBeLessThan(400);
    let heard = '';
    answer.on('data', (chunk: Buffer) => (heard += chunk.toString()));
    await until(() => seen.told > held + 20);
    answer.destroy();
    await until(() => !seen.stream!.open);
    const events = heard.split('\n\n').slice(1, -1);
    expect(events.length).toBeGreaterThan(20);
    for (const [i, event] of events.entries()) {
      const [name, id, data] = event.split('\n');
      expect([name, id]).toEqual(['event: one', `id: ${i}`]);
      expect(JSON.parse(data!.slice(6))).toEqual({ i, filling: '.'.repeat(20_000) });
    }
  });
});
