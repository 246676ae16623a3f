import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { createPinia, setActivePinia } from 'pinia';
import { useConnection } from '../stores/connection.ts';
import { api, ApiError, query } from './client.ts';

const respond = (status: number, text: string): void => {
  globalThis.fetch = jest.fn(async () => ({ status, ok: status < 400, text: async () => text }) as Response) as typeof fetch;
};
beforeEach(() => void setActivePinia(createPinia()));
afterEach(() => void jest.restoreAllMocks());

describe('what the page asks of the server', () => {
  test('leaves away what is undefined or empty, and keeps a zero', () => {
    expect(query({ a: 'x y', b: undefined, c: null, d: '', e: 0 })).toBe('?a=x+y&e=0');
    expect(query({})).toBe('');
  });

  test('comes back as it was told; nothing where there is nothing', async () => {
    respond(200, '{"items":[1]}');
    expect(await api.get('/x')).toEqual({ items: [1] });
    respond(204, '');
    expect(await api.delete('/x')).toBeUndefined();
  });

  test('sends bodies as JSON', async () => {
    respond(200, '{}');
    await api.post('/x', { a: 1 });
    expect(globalThis.fetch).toHaveBeenCalledWith('/api/x', expect.objectContaining({ method: 'POST', body: '{"a":1}', headers: { 'content-type': 'application/json' } })); // prettier-ignore
  });

  test('a refusal is the problem that the server tells', async () => {
    const problem = { type: 'x', title: 'Not so', status: 400, detail: 'no such flow' };
    respond(400, JSON.stringify(problem));
    const error = await api.get('/x').catch((one: unknown) => one);
    expect(error).toBeInstanceOf(ApiError);
    expect((error as ApiError).problem).toEqual(problem);
    expect(useConnection().up).toBe(true);
  });

  test('a server that is away, or its database, shows in the foot line until it is back', async () => {
    respond(503, '{"detail":"the database is away"}');
    await expect(api.get('/x')).rejects.toThrow('the database is away');
    expect(useConnection().up).toBe(false);
    respond(200, '{}');
    await api.get('/x');
    expect(useConnection().up).toBe(true);
    globalThis.fetch = jest.fn(async () => Promise.reject(new TypeError('failed to fetch'))) as typeof fetch;
    await expect(api.get('/x')).rejects.toThrow('Nothing is lost');
    expect(useConnection().up).toBe(false);
  });

  test('what was broken off by the page itself is no problem of the server', async () => {
    globalThis.fetch = jest.fn(async () => Promise.reject(new DOMException('aborted', 'AbortError'))) as typeof fetch;
    await expect(api.get('/x')).rejects.toThrow('aborted');
    expect(useConnection().up).toBe(true);
  });
});
