import { describe, expect, test } from '@jest/globals';
import { requestOf } from './request-line.ts';

describe('a request told in fields', () => {
  test.each([
    [{ method: 'GET', path: '/orders/7', status: 200 }, 'GET /orders/7 200', 200],
    [{ http_method: 'POST', url: '/orders', response_code: '504' }, 'POST /orders 504', 504],
    [{ 'http.request.method': 'PUT', 'url.path': '/a', 'http.response.status_code': 404 }, 'PUT /a 404', 404],
    [{ req: 'GET /a HTTP/1.1', status: 503 }, 'GET /a HTTP/1.1 503', 503],
    [{ Method: 'GET', Path: '/a' }, 'GET /a', NaN],
  ])('%j', (fields, words, status) => expect(requestOf(fields as Record<string, string>)).toEqual({ words, status }));

  test.each([[{}], [{ method: 'GET' }], [{ path: '/a', status: 200 }], [{ status: 200 }], [{ method: 'one two', path: '/a' }], [{ req: 'x y z' }]])(
    'is none in %j',
    (fields) => expect(requestOf(fields as Record<string, string>)).toBeNull(),
  );

  test('a number that is no status is none', () => {
    expect(requestOf({ method: 'GET', path: '/a', status: 9 })).toEqual({ words: 'GET /a', status: NaN });
    expect(requestOf({ method: 'GET', path: '/a', status: 'ok', response_code: 201 })).toEqual({ words: 'GET /a 201', status: 201 });
  });
});
