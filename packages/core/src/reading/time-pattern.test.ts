import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { isoMicros } from '../units.ts';
import { openReader, sampleOf } from './registry.ts';
import { timePattern } from './time-pattern.ts';
import { emptyDraft, type Draft } from './types.ts';

function readWith(layout: string, lines: string[], format = 'text'): Draft[] {
  const sample = sampleOf('x.log', lines.join('\n'), true);
  const reader = openReader(format, sample, { zone: 'Europe/Berlin', modified: Date.UTC(2026, 11, 31) * 1000, timePattern: layout });
  return lines.map((line) => {
    const draft = emptyDraft();
    reader.read(line, draft);
    return draft;
  });
}

describe('layouts of times that are typed', () => {
  test.each<[string, string, string]>([
    ["yyyy-MM-dd HH:mm:ss,SSS", '2026-11-24 10:41:58,938', '2026-11-24T09:41:58.938000Z'],
    ["d.M.yy H.mm", '4.11.26 9.05', '2026-11-04T08:05:00.000000Z'],
    ["EEE d MMM yyyy 'um' HH'h'mm", 'Di 24 Nov 2026 um 10h41', '2026-11-24T09:41:00.000000Z'],
    ["MM/dd/yyyy hh:mm:ss a", '11/24/2026 12:41:58 AM', '2026-11-23T23:41:58.000000Z'],
    ["yyyyDDDHHmmss", '2026328104158', '2026-11-24T09:41:58.000000Z'],
    ["dd/MMM/yyyy:HH:mm:ss Z", '24/Nov/2026:10:41:58 +0200', '2026-11-24T08:41:58.000000Z'],
    ["yyyy-MM-dd'T'HH:mmX", '2026-11-24T10:41Z', '2026-11-24T10:41:00.000000Z'],
    ["HH:mm:ss dd-MM-yyyy z", '10:41:58 24-11-2026 CET', '2026-11-24T09:41:58.000000Z'],
    ["dd MMM HH:mm:ss", '24 Nov 10:41:58', '2026-11-24T09:41:58.000000Z'],
  ])('%s', (layout, time, wanted) => {
    const [draft] = readWith(layout, [`${time} INFO order LX-204817 taken`, `${time} INFO order LX-204818 taken`]);
    expect(draft).toMatchObject({ understood: true, message: 'order LX-204817 taken', level: 3 });
    expect(isoMicros(draft!.at)).toBe(wanted);
  }); // prettier-ignore

  test('they count also behind other words, and for a named field', () => {
    const [behind] = readWith('ddMMyy HHmmss', ['desk 241126 104158 taken', 'desk 241126 104159 taken']);
    expect(isoMicros(behind!.at)).toBe('2026-11-24T09:41:58.000000Z');
    const [json] = readWith('ddMMyy HHmmss', ['{"time":"241126 104158","msg":"taken"}'], 'json-lines');
    expect(isoMicros(json!.at)).toBe('2026-11-24T09:41:58.000000Z');
  });

  test('what does not fit is kept whole', () => {
    expect(readWith('yyyy-MM-dd HH:mm', ['2026-11-24 10:41 taken', '2026-13-24 10:41 taken', 'no time']).map((one) => one.understood)).toEqual([
      true,
      false,
      false,
    ]);
  });

  test.each<[string, RegExp]>([
    ['', /no day/],
    ['HH:mm', /no day/],
    ['yyyy-MM-dd', /no time of day/],
    ['yyyy-MM-dd hh:mm', /half of the day/],
    ['yyyy-MM-dd at HH:mm', /second time|no part/],
    ["yyyy-MM-dd 'at HH:mm", /not closed/],
    ['yyyy-MM-dd HH:mm b', /“b” stands for no part/],
    ['MM/MM HH:mm', /second time/],
  ])('%s is refused with a reason', (layout, reason) => {
    expect(() => timePattern(layout)).toThrow(reason);
  });

  test('whatever is typed is a pattern or is refused in words', () => {
    fc.assert(
      fc.property(fc.string({ unit: fc.constantFrom(..."yMdHhmsSaZXz'.:/- T[]()*+?\\{}|^$"), maxLength: 90 }), (layout) => {
        try {
          timePattern(layout).pattern.exec('2026-11-24 10:41:58');
        } catch (error) {
          expect(error).toBeInstanceOf(RangeError);
        }
      }),
      { numRuns: 500 },
    );
  });
});
