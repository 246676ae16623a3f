import { describe, expect, test } from '@jest/globals';
import { isResult, traitsOf } from './traits.ts';

describe('what tells a record apart besides its shape', () => {
  test.each<[string, string, Record<string, unknown>]>([
    ['', 'GET /orders', { method: 'GET', bytes: 17 }],
    ['status=202', 'POST /orders', { status: 202, path: '/orders' }],
    ['http.status_code=503', 'upstream', { 'http.status_code': 503 }],
    ['state=55P03', 'canceling statement', { state: '55P03' }],
    ['', 'failed', { error: 'connection to the database was refused' }],
    ['', 'failed', { error: { code: 7 }, reason: null }],
    ['status=F-204', 'wire partner received\nHTTP/1.1 200 OK\n\n<Answer>\n <Status>F-204</Status>\n</Answer>', {}],
    ['code=F-204', 'wire partner received\n\n<Answer>\n <Status code="F-204">withdrawn</Status>\n</Answer>', {}],
    ['result=ok', 'answer\n{"id": 4, "result": "ok"}', {}],
    ['error_code=17', 'answer\n{"error_code":17,"more":1}', {}],
    ['status=200 code=A1', 'answer\nCode: A1', { status: 200 }],
    ['event=enqueued queue=orders.in', 'broker=b event=enqueued', { event: 'enqueued', queue: 'orders.in', size: 17 }],
    ['evt.name=accepted', '{"evt":{"name":"accepted"}}', { 'evt.name': 'accepted', 'user.name': 'nobody', name: 'x' }],
    ['', 'trace\n\tat a.b.C(C.java:3)\nCaused by: a.b.D: no', {}],
  ])('%s', (wanted, message, fields) => expect(traitsOf(message, fields)).toBe(wanted));

  test('never more than a short text, however the message looks', () => {
    expect(traitsOf(`x\n${'status='.repeat(2000)}`, {}).length).toBeLessThanOrEqual(96);
    expect(traitsOf('x', Object.fromEntries(Array.from({ length: 30 }, (_, i) => [`a${i}.status`, 'abcdefgh'])))).not.toMatch(/=$|\s$|=abcdefg$/);
  });
});

test.each([
  ['status', true],
  ['http.status_code', true],
  ['ctx.resultCode', true],
  ['queue', false],
  ['evt.name', false],
  ['statusPage', false],
])('whether %s states how something went', (field, is) => expect(isResult(field)).toBe(is));
