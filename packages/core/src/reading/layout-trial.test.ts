import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { isoMicros } from '../units.ts';
import { LayoutTrial } from './layout-trial.ts';
import { sampleOf } from './registry.ts';

declare class TextEncoder {
  encode(text: string): Uint8Array;
}
const LINES = Array.from({ length: 90 }, (_, i) => `241126 ${String(100_000 + i)} order LX-${204_800 + i} taken`);
const TEXT = `# begin\n${LINES.slice(0, 60).join('\n')}\n\tat desk\n${LINES.slice(60).join('\n')}\n`;
const CONTEXT = { zone: 'UTC', modified: Date.UTC(2026, 10, 26) * 1000, timePattern: 'ddMMyy HHmmss' };

describe('a trial of another way of reading', () => {
  test('tells what comes of it, whatever the blocks are cut to', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 700 }), { minLength: 1, maxLength: 8 }), (cuts) => {
        const bytes = new TextEncoder().encode(TEXT);
        const trial = new LayoutTrial('text', sampleOf('x.log', TEXT, true), CONTEXT, 'utf-8');
        let from = 0;
        for (let i = 0; from < bytes.length; i++) {
          const to = Math.min(bytes.length, from + cuts[i % cuts.length]!);
          trial.feed(bytes.subarray(from, to), to === bytes.length);
          from = to;
        }
        const { records, understood, first, backwards, examples, missed } = trial.result;
        // seconds above 59 are read on as they are written: what is typed is not guessed
        expect({ records, understood, backwards }).toEqual({ records: 91, understood: 90, backwards: 0 });
        expect(isoMicros(first!)).toBe('2026-11-24T10:00:00.000000Z');
        expect(missed).toEqual([{ line: 1, text: '# begin' }]);
        expect(examples.length).toBeGreaterThan(2);
      }),
      { numRuns: 30 },
    );
  });

  test('parts that are confused show as steps back', () => {
    const text = Array.from({ length: 12 }, (_, i) => `${String(i + 1).padStart(2, '0')}/05/26 10:00 taken`).join('\n');
    const back = (timePattern: string): number => {
      const trial = new LayoutTrial('text', sampleOf('x.log', text, true), { ...CONTEXT, timePattern }, 'utf-8');
      trial.feed(new TextEncoder().encode(text), true);
      return trial.result.backwards;
    };
    expect(back('dd/MM/yy HH:mm')).toBe(0);
    expect(back('yy/MM/dd HH:mm')).toBe(0);
    const shuffled = ['05/11/26 10:00 a', '12/10/26 10:00 b', '06/11/26 10:00 c'].join('\n');
    const trial = new LayoutTrial('text', sampleOf('x.log', shuffled, true), { ...CONTEXT, timePattern: 'dd/MM/yy HH:mm' }, 'utf-8');
    trial.feed(new TextEncoder().encode(shuffled), true);
    expect(trial.result.backwards).toBe(1);
  });
});
