import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { codesIn } from './find.ts';
import { HTTP } from './http.ts';
import { Q850, SIP } from './sip.ts';
import { SQLSTATE } from './sqlstate.ts';
import { ERRNO, ERRNO_NUMBERS, EXCEPTION, EXIT, FACILITY, GRPC, SEVERITY, SIGNAL, SIGNAL_NUMBERS, TLS } from './system-codes.ts';

const codes = (message: string, fields: Record<string, unknown> = {}): string[] =>
  codesIn({ message, fields, component: 'desk' }).map(
    (one) => `${one.system} ${one.code}${one.field === '' ? '' : ` in ${one.field}`}: ${one.title}`,
  );

describe('codes in a record', () => {
  test.each<[string, string, Record<string, unknown>, string[]]>([
    ['of an answer', 'POST /orders', { status: 503, method: 'POST' }, ['http 503 in status: Service Unavailable']],
    ['in a wire message', 'HTTP/1.1 409 Conflict', {}, ['http 409: Conflict']],
    ['of a call', 'SIP/2.0 488 Not Acceptable Here', { status: 488, cseq: '1 INVITE' }, ['sip 488 in status: Not Acceptable Here']],
    ['of the database', 'canceling statement due to lock timeout', { sqlstate: '55P03' }, ['sqlstate 55P03 in sqlstate: lock not available']],
    ['in words', 'query failed: SQLSTATE[40P01]: deadlock detected', {}, ['sqlstate 40P01: deadlock detected']],
    ['of the system', 'connect ECONNREFUSED 127.0.0.1:5432', {}, ['errno ECONNREFUSED: connection refused (111)']],
    ['by number', 'read failed, errno=104', {}, ['errno ECONNRESET: connection reset (104)']],
    ['of a process', 'worker exited with code 137, signal 9', {}, ['signal SIGKILL: kill (9)', 'exit 137: killed']],
    ['of a remote call', 'rpc error: code = DEADLINE_EXCEEDED desc = x', {}, ['grpc DEADLINE_EXCEEDED: deadline exceeded (4)']],
    ['of encryption', 'TLS alert: certificate expired', {}, ['tls certificate_expired: certificate expired (45)']],
    ['of a hang-up', 'BYE sip:x SIP/2.0\nReason: Q.850;cause=16;text="x"', {}, ['q850 16: Normal clearing']],
    ['of an exception', 'java.net.SocketTimeoutException: Read timed out', {}, ['exception SocketTimeoutException: no answer in time']],
  ])('%s', (_what, message, fields, expected) => expect(codes(message, fields)).toEqual(expected));

  test('what only looks like one is none', () =>
    expect(codes('order 404 of shop 503 has 200 items, EVERY one; build 137', { items: 500, size: 404 })).toEqual([]));

  test('own entries come first, for their component, in fields and bodies', () => {
    const own = [
      { code: 'F-204', component: null, title: 'no shape', means: 'the supplier has no shape of this frame', causes: '', next: '' },
      { code: 'F-2', component: null, title: 'another', means: '', causes: '', next: '' },
      { code: '503', component: 'gate', title: 'ours', means: '', causes: '', next: '' },
    ];
    const told = (component: string, message: string, fields = {}) =>
      codesIn({ message, fields, component }, own).map((one) => `${one.system} ${one.code} ${one.field}`);
    expect(told('gate', 'HTTP/1.1 200 OK\n\n<answer><code>F-204</code></answer>')).toEqual(['own F-204 ', 'http 200 ']);
    expect(told('gate', 'x', { status: 503 })).toEqual(['own 503 status', 'http 503 status']);
    expect(told('desk', 'x', { status: 503 })).toEqual(['http 503 status']);
  });

  test('never more than a few, of any text', () =>
    fc.assert(
      fc.property(fc.string({ maxLength: 300 }), fc.dictionary(fc.string(), fc.string()), (message, fields) =>
        expect(codesIn({ message, fields, component: 'x' }).length).toBeLessThanOrEqual(12),
      ),
    ));
});

test('every entry has a title, and numbers lead to their names', () => {
  for (const table of [HTTP, SIP, Q850, SQLSTATE, ERRNO, EXCEPTION, EXIT, FACILITY, GRPC, SEVERITY, SIGNAL, TLS])
    for (const [code, one] of table) expect([code, one.title.length > 1]).toEqual([code, true]);
  expect([ERRNO_NUMBERS.get('111'), SIGNAL_NUMBERS.get('15')]).toEqual(['ECONNREFUSED', 'SIGTERM']);
  for (const code of SQLSTATE.keys()) expect(code).toMatch(/^[0-9A-Z]{5}$/);
});
