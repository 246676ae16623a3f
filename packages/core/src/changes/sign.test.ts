import { describe, expect, test } from '@jest/globals';
import { signOf, versionIn } from './sign.ts';

const told = (message: string, fields: Record<string, string> = {}): string => {
  const sign = signOf(message, fields);
  return sign ? [sign.kind, sign.subject, sign.before, sign.after].join(' | ') : 'nothing';
};

describe('what a record tells about a change', () => {
  test.each([
    ['setting material 1.74/70 changed from allowed to blocked', 'setting | material 1.74/70 | allowed | blocked'],
    ['parameter "log_min_duration_statement" changed to "250"', 'setting | log_min_duration_statement |  | 250'],
    ['pool.size raised from 20 to 40.', 'setting | pool.size | 20 | 40'],
    ['operator set parameter retry.limit to 5', 'setting | retry.limit |  | 5'],
    ['Level for o.b.Main was changed from INFO to DEBUG', 'setting | o.b.Main | INFO | DEBUG'],
    ['received SIGHUP, reloading configuration files', 'setting | configuration |  | '],
  ])('a setting: %s', (message, expected) => expect(told(message)).toBe(expected));

  test('fields name the setting and its values where words do not', () => {
    expect(told('setting changed', { setting: 'material.1.74/70', value: 'blocked' })).toBe('setting | material.1.74/70 |  | blocked');
    expect(told('setting material 1.74/70 changed from allowed to blocked', { setting: 'material.1.74/70', value: 'blocked' })).toBe(
      'setting | material.1.74/70 | allowed | blocked',
    );
    expect(told('option changed', { option: 'depth', old: '3', new: '4' })).toBe('setting | depth | 3 | 4');
  });

  test.each([
    ['lens-calc 4.12.0 started, 6 workers', 'start | lens-calc |  | 4.12.0'],
    ['lens-calc 4.11.0 stopping, queue left to the next', 'stop | lens-calc |  | 4.11.0'],
    ['Linux version 6.1.0 booting', 'start | Linux |  | 6.1.0'],
    ['starting PostgreSQL 15.8 (Debian 15.8-0) on x86_64', 'start | PostgreSQL |  | 15.8'],
    ['database system is ready to accept connections', 'start |  |  | '],
    ['database system is shut down', 'stop |  |  | '],
    ['Server listening on 127.0.0.1 port 22', 'start |  |  | '],
    ['asking app-2 to shut down', 'stop |  |  | '],
    ['rolled out order-desk 7.3.2 to app-2', 'deployment | order-desk |  | 7.3.2'],
    ['standby promoted to primary', 'fail-over |  |  | '],
    ['relay-b took over from relay-a', 'fail-over |  |  | '],
  ])('what runs: %s', (message, expected) => expect(told(message)).toBe(expected));

  test.each(['order LX-1 accepted', 'status changed', 'handed over to relay', 'overdue: 3', 'the exchange is open', 'material 1.74/70 blocked'])(
    'nothing changes: %s',
    (message) => expect(told(message)).toBe('nothing'),
  );

  test('only the first line counts, and of it the beginning', () => {
    expect(told('request failed\nserver started')).toBe('nothing');
    expect(told(`setting ${'a '.repeat(200_000)}changed from`)).toBe('nothing');
    expect(told(`set ${'to '.repeat(200_000)}`)).toBe('nothing');
  });

  test('a version in fields, whatever the format calls it', () => {
    expect(versionIn({ 'service.version': '4.12.0', thread: 'w-1' })).toBe('4.12.0');
    expect(versionIn({ Release: '2026.11' })).toBe('2026.11');
    expect(versionIn({ 'http.version': '1.1' })).toBe('');
    expect(versionIn({ version: 4 })).toBe('');
  });
});
