import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { formOf, patternOfForms } from './forms.ts';
import { suggestKinds, type SuggestRecord } from './suggest.ts';

const hex = (seed: number): string => ((seed * 2654435761) >>> 0).toString(16).padStart(8, '0').slice(0, 6);

/** A world of bookings: a number that people ask by, a message's number beside it, a hut that many share. */
function world(declared: boolean): SuggestRecord[] {
  const records: SuggestRecord[] = [];
  for (let i = 0; i < 60; i++) {
    const booking = `BK-${41_000 + i * 7}`;
    const message = `m-${hex(i + 1)}`;
    const known = declared ? [{ value: booking, role: 'business' as const, kind: 0 }] : [];
    records.push({
      component: 'desk',
      text: `booked ${booking} for 2 nights, took 812ms`,
      fields: { hut: `hut-${String(i % 6).padStart(3, '0')}` },
      known,
    });
    records.push({ component: 'bus', text: `message=${message} queue=keys.out`, fields: { message, booking }, known });
    records.push({
      component: 'keys',
      text: `key cut for ${booking} (${message}) at 10:41:58`,
      fields: { hut: `hut-${String(i % 6).padStart(3, '0')}` },
      known,
    });
    records.push({ component: 'keys', text: 'GET /health 200', fields: { status: 200, client: '192.0.2.7', pid: 4711 }, known: [] });
  }
  return records;
}

describe('suggested identifiers', () => {
  test('what people ask by, and what ties, with their figures', () => {
    const found = suggestKinds(world(false));
    expect(found[0]).toMatchObject({
      label: 'booking',
      role: 'business',
      patterns: ['BK-\\d{5,7}'],
      values: 60,
      components: ['bus', 'desk', 'keys'],
      across: 1,
      recordsPerValue: 3,
    });
    expect(found.find((one) => one.label === 'message')).toMatchObject({ patterns: ['m-[0-9a-f]{6}'], components: ['bus', 'keys'] });
  });

  test('with the business number declared, it is not suggested again, and the others are measured by it', () => {
    const found = suggestKinds(world(true));
    expect(found.map((one) => one.label)).not.toContain('booking');
    expect(found.find((one) => one.label === 'message')).toMatchObject({ role: 'link', joins: 1 });
    expect(found.find((one) => one.label === 'hut')).toMatchObject({ role: 'shared', joins: 10 });
  });

  test('times, measures, addresses and what never recurs are none', () => {
    const records = Array.from({ length: 200 }, (_, i): SuggestRecord => ({
      component: i % 2 ? 'a' : 'b',
      text: `at 10:41:${i % 60} from 192.0.2.${i % 200} took ${i % 50}ms, T${i}Z once`,
      fields: { status: 200 + (i % 5), bytes: i * 10, version: `4.12.${i % 9}` },
      known: [],
    }));
    expect(suggestKinds(records)).toEqual([]);
  });

  test('a pattern fits all values that it was made of', () => {
    const value = fc
      .tuple(fc.constantFrom('LX-', 'RC', 'job_', 'm-'), fc.stringMatching(/^(?:[0-9]{3,8}|[0-9a-f]{6}|[A-Z]{2}[0-9]{4})$/))
      .map(([head, tail]) => head + tail);
    fc.assert(
      fc.property(fc.array(value, { minLength: 1, maxLength: 20 }), (values) => {
        const alike = values.filter((one) => formOf(one) === formOf(values[0]!));
        const pattern = new RegExp(`^(?:${patternOfForms(alike)})$`);
        for (const one of alike) expect(one).toMatch(pattern);
      }),
    );
  });
});
