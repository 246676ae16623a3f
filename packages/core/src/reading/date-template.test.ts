import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { isoMicros } from '../units.ts';
import { learnDate } from './date-template.ts';
import { emptyDraft } from './types.ts';
import { guessFormats, openReader, sampleOf } from './registry.ts';

const MODIFIED = Date.UTC(2026, 10, 26) * 1000;
const two = (value: number): string => String(value).padStart(2, '0');
const CLOSING: Record<string, string> = { '[': ']', '<': '>', '(': ')' };
const NAMES = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];

/** A layout of a date by chance: the order of its parts, how they are written, and what stands between them. */
const layouts = fc.record({
  order: fc.constantFrom('ymd', 'dmy', 'mdy'),
  long: fc.boolean(),
  named: fc.boolean(),
  between: fc.constantFrom('-', '/', '.', ':', '_', ' ', ', '),
  gap: fc.constantFrom(' ', '-', 'T', ' - ', '_', '  ', ' @ ', '/'),
  behind: fc.boolean(),
  open: fc.constantFrom('', '[', 'L ', '<', '('),
  fraction: fc.constantFrom('', '.', ',', "'", ':'),
});
type Layout = typeof layouts extends fc.Arbitrary<infer One> ? One : never;
const pieces = (at: Date): { y: string; m: string; d: string; clock: string; ms: string } => ({
  y: String(at.getUTCFullYear()),
  m: two(at.getUTCMonth() + 1),
  d: two(at.getUTCDate()),
  clock: [at.getUTCHours(), at.getUTCMinutes(), at.getUTCSeconds()].map(two).join(':'),
  ms: String(at.getUTCMilliseconds()).padStart(3, '0'),
});
function written({ order, long, named, between, gap, behind, open, fraction }: Layout, at: Date): string {
  const { y, m, d, clock, ms } = pieces(at);
  const parts: Record<string, string> = { y: long ? y : y.slice(2), m: named ? NAMES[Number(m) - 1]! : m, d };
  const date = [...order].map((part) => parts[part]).join(between);
  const time = `${clock}${fraction === '' ? '' : `${fraction}${ms}`}`;
  return `${open}${behind ? `${time} ${date}` : `${date}${gap}${time}`}${CLOSING[open] ?? ''}`;
}

describe('dates in layouts that nobody has seen', () => {
  test('are read in whatever order and with whatever stands between, where the lines tell which part is what', () => {
    let right = 0;
    let drawn = 0;
    fc.assert(
      fc.property(layouts, fc.integer({ min: 0, max: 300 }), (layout, start) => {
        // twenty days on end: then no month can be taken for a day
        const times = Array.from({ length: 60 }, (_, i) => new Date(Date.UTC(2026, 0, 1) + start * 86_400_000 + i * 28_800_000 + i * 1003));
        const text = times.map((at, i) => `${written(layout, at)} order LX-${i} taken`).join('\n');
        const sample = sampleOf('x/x.log', text, true);
        const { format } = guessFormats(sample)[0]!;
        const reader = openReader(format, sample, { zone: 'UTC', modified: MODIFIED });
        const fine = layout.fraction !== '';
        const all = times.every((at, i) => {
          const draft = emptyDraft();
          reader.read(text.split('\n')[i]!, draft);
          const wanted = fine ? at.getTime() * 1000 : Math.floor(at.getTime() / 1000) * 1_000_000;
          return draft.understood && draft.at === wanted && draft.message.endsWith(`order LX-${i} taken`);
        });
        drawn++;
        if (all) right++;
      }),
      { numRuns: 400, seed: 11 },
    );
    expect(right / drawn).toBeGreaterThanOrEqual(0.95);
  });

  test.each<[string, string, string]>([
    ['Apr-07-13 07:08:36 x', 'Apr-17-13 07:08:37 x', '2013-04-07T07:08:36.000000Z'],
    ['L 01/01/2014 - 01:25:17: x', 'L 01/13/2014 - 01:25:17: x', '2014-01-01T01:25:17.000000Z'],
    ['2014:07:02-00:17:45 x', '2014:07:22-00:17:45 x', '2014-07-02T00:17:45.000000Z'],
    ['@4000000050d506482dc7a8f4 x', '@4000000050d506492dc7a8f4 x', '2012-12-22T01:00:46.768059Z'],
    ['[PDT Apr 16 21:05:29] x', '[PDT Apr 16 21:05:30] x', '2026-04-17T04:05:29.000000Z'],
    ['130324  0:04:00 [Note] x', '130324 10:04:00 [Note] x', '2013-03-24T00:04:00.000000Z'],
    ["2026-11-24 10:00:00'123 INFO x", "2026-11-24 10:00:01'456 INFO x", '2026-11-24T10:00:00.123000Z'],
    ['Mar  5 21:44:43 srv desk x', 'Mar  5 21:44:44 srv desk x', '2026-03-05T21:44:43.000000Z'],
  ])('%s', (first, second, at) => {
    const sample = sampleOf('x/x.log', `${first}\n${second}\n`, true);
    const draft = emptyDraft();
    openReader(guessFormats(sample)[0]!.format, sample, { zone: 'UTC', modified: MODIFIED }).read(first, draft);
    expect(isoMicros(draft.at)).toBe(at);
  });

  test.each(['version 1.2.3 took 10:15:30 to build', 'from 10.0.0.1 at 10:15:30', '1234 10:15:30 x', '99/99/9999 10:15:30 x', '12345678 10:15:30 x'])(
    'what is no date is none: %s',
    (line) => {
      expect(learnDate([line, line], undefined, MODIFIED)).toBeNull();
    },
  );
});
