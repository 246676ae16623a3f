import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { createPinia, setActivePinia } from 'pinia';
import { useConnection } from '../stores/connection.ts';
import { addressOf, hrefOf } from './calls.ts';
import { api, ApiError } from './client.ts';

const respond = (status: number, text: string): void => {
  globalThis.fetch = jest.fn(async () => ({ status, ok: status < 400, text: async () => text }) as Response) as typeof fetch;
};
beforeEach(() => void setActivePinia(createPinia()));
afterEach(() => void jest.restoreAllMocks());

describe('what the page asks of the server', () => {
  test('leaves away what is undefined or empty, and keeps a zero', () => {
    expect(addressOf('/x', { query: { a: 'x y', b: undefined, c: null, d: '', e: 0 } })).toBe('/api/x?a=x+y&e=0');
    expect(addressOf('/x')).toBe('/api/x');
    // what stands in the path is encoded, whatever it is
    expect(hrefOf('/sources/{id}/slice', { params: { id: 'a/b ?' }, query: { from: 1, to: 2 } })).toBe('/api/sources/a%2Fb%20%3F/slice?from=1&to=2');
  });

  test('comes back as it was told; nothing where there is nothing', async () => {
    respond(200, '{"items":[1]}');
    expect(await api.get('/own-packages')).toEqual({ items: [1] });
    respond(204, '');
    expect(await api.delete('/changes/{id}', { params: { id: 'one' } })).toBeUndefined();
  });

  test('sends bodies as JSON', async () => {
    respond(200, '{}');
    await api.post('/own-packages', { body: { prefix: 'a' } });
    expect(globalThis.fetch).toHaveBeenCalledWith('/api/own-packages', expect.objectContaining({ method: 'POST', body: '{"prefix":"a"}', headers: { 'content-type': 'application/json' } })); // prettier-ignore
  });

  test('a refusal is the problem that the server tells', async () => {
    const problem = { type: 'x', title: 'Not so', status: 400, detail: 'no such flow' };
    respond(400, JSON.stringify(problem));
    const error = await api.get('/own-packages').catch((one: unknown) => one);
    expect(error).toBeInstanceOf(ApiError);
    expect((error as ApiError).problem).toEqual(problem);
    expect(useConnection().up).toBe(true);
  });

  test('a server that is away, or its database, shows in the foot line until it is back', async () => {
    respond(503, '{"detail":"the database is away"}');
    await expect(api.get('/own-packages')).rejects.toThrow('the database is away');
    expect(useConnection().up).toBe(false);
    respond(200, '{}');
    await api.get('/own-packages');
    expect(useConnection().up).toBe(true);
    globalThis.fetch = jest.fn(async () => Promise.reject(new TypeError('failed to fetch'))) as typeof fetch;
    await expect(api.get('/own-packages')).rejects.toThrow('Nothing is lost');
    expect(useConnection().up).toBe(false);
  });

  test('what was broken off by the page itself is no problem of the server', async () => {
    globalThis.fetch = jest.fn(async () => Promise.reject(new DOMException('aborted', 'AbortError'))) as typeof fetch;
    await expect(api.get('/own-packages')).rejects.toThrow('aborted');
    expect(useConnection().up).toBe(true);
  });
});
