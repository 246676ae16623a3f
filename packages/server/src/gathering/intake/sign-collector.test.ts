import { describe, expect, test } from '@jest/globals';
import { emptyDraft, type Draft } from '@fadenweg/core/reading';
import { SignCollector } from './sign-collector.ts';

const MINUTE = 60_000_000;
const draft = (minute: number, message: string, fields: Draft['fields'] = {}): Draft => ({ ...emptyDraft(), at: minute * MINUTE, message, fields });

describe('signs of change in a batch', () => {
  test('what is alike all the time is told as one stretch and crowds nothing out', () => {
    const signs = new SignCollector();
    for (let minute = 0; minute < 5000; minute++) signs.note(draft(minute, `Started tidy-${minute}.service`), 'systemd', 'app-1', minute, true);
    signs.note(draft(5001, 'Linux version 6.1.0 booting'), 'kernel', 'app-1', 5001, true);
    const rows = signs.take();
    expect(rows.map((row) => row.count).reduce((sum, count) => sum + count, 0)).toBe(5001);
    expect(rows.filter((row) => row.component === 'systemd')).toHaveLength(12);
    expect(rows.find((row) => row.last === 4999 * MINUTE)).toMatchObject({ first: 11 * MINUTE, firstId: 11, count: 4989 });
    expect(rows.find((row) => row.component === 'kernel')).toMatchObject({ kind: 'start', subject: 'Linux', after: '6.1.0', count: 1 });
    expect(signs.take()).toEqual([]);
  });

  test('of transactions only the version that they state counts', () => {
    const signs = new SignCollector();
    for (let minute = 0; minute < 30; minute++)
      signs.note(draft(minute, 'run started by service', { version: minute < 20 ? '1.0' : '1.1' }), 'batch', '', minute, false);
    expect(signs.take()).toMatchObject([
      { kind: 'version', after: '1.0', first: 0, last: 19 * MINUTE, count: 20 },
      { kind: 'version', after: '1.1', first: 20 * MINUTE, last: 29 * MINUTE, count: 10 },
    ]);
  });

  test('a sign that comes late moves the first one back', () => {
    const signs = new SignCollector();
    signs.note(draft(5.6, 'relay server started'), 'relay', '', 2, true);
    signs.note(draft(5.1, 'relay server started'), 'relay', '', 1, true);
    expect(signs.take()).toMatchObject([{ first: 5.1 * MINUTE, firstId: 1, last: 5.6 * MINUTE, count: 2 }]);
  });
});
