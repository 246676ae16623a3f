import { describe, expect, test } from '@jest/globals';
import { MARK } from '../path/marks.ts';
import type { Departure } from '../usual/depart.ts';
import { said, usualOf } from '../usual/testing/legs.ts';
import { whatTookIt } from './took-it.ts';

const usual = usualOf(200);
/** The last of these came late by four seconds, after the first. */
function tookIt(between: ReturnType<typeof said>[]): string | null {
  const records = [said(0, 'shop', 'asking stock'), ...between, said(4100, 'shop', 'answered')];
  const late = { kind: 'late', record: records.length - 1, since: 0, excess: 4_000_000 } as unknown as Departure & { kind: 'late' };
  const at = whatTookIt(records, late, usual);
  return at === null ? null : records[at]!.message;
}

describe('what took the time', () => {
  test('is work that fills most of it', () => {
    expect(tookIt([said(4000, 'stock', 'counted all', { took: 3_900_000 }), said(4050, 'stock', 'wrote it', { took: 20_000 })])).toBe('counted all');
  });
  test('is nobody where nothing states so much', () => expect(tookIt([said(4000, 'stock', 'counted all', { took: 900_000 })])).toBeNull());
  test('is who was asked, not who waited for him', () => {
    expect(tookIt([said(4010, 'stock', 'asked cellar for it', { took: 3_950_000 }), said(4000, 'cellar', 'fetched', { took: 3_900_000 })])).toBe('fetched'); // prettier-ignore
  });
  test('is a warning that no good one has, before what waited', () => {
    expect(tookIt([said(2000, 'cellar', 'lock is held', { level: 4 }), said(4000, 'stock', 'counted', { took: 3_900_000 })])).toBe('lock is held');
  });
  test('is not who was at it since the leg began: that one waited too', () => {
    const records = [said(0, 'gate', 'came in'), said(40, 'shop', 'asking stock'), said(4100, 'shop', 'answered'), said(4110, 'gate', 'gone', { took: 4_108_000, marks: MARK.coarse })]; // prettier-ignore
    const late = { kind: 'late', record: 2, since: 1, excess: 4_000_000 } as unknown as Departure & { kind: 'late' };
    expect(whatTookIt(records, late, usual)).toBeNull();
  });
  test('work that is told at its begin lies behind it', () => {
    expect(tookIt([said(50, 'stock', 'counting', { took: 3_900_000, marks: MARK.begins })])).toBe('counting');
    expect(tookIt([said(50, 'stock', 'counted', { took: 3_900_000 })])).toBeNull();
  });
});
