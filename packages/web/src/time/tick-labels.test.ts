import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { scaleTime } from 'd3-scale';
import { tickLabels } from './tick-labels.ts';

describe('labels of a time axis', () => {
  test('no two that stand beside each other read alike, whatever is shown', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 2_000_000_000 }),
        fc.integer({ min: 20, max: 400 * 86_400_000 }),
        fc.integer({ min: 3, max: 14 }),
        (from, length, count) => {
          const begin = Date.UTC(2026, 0, 1) + from;
          const labels = tickLabels(
            scaleTime()
              .domain([begin, begin + length])
              .ticks(count),
          );
          for (let i = 1; i < labels.length; i++) expect(labels[i]).not.toBe(labels[i - 1]);
        },
      ),
    );
  });
  test('thousandths are told where seconds are not enough', () => {
    const at = (ms: number): Date => new Date(Date.UTC(2026, 10, 24, 10, 0, 5) + ms);
    expect(tickLabels([at(0), at(500), at(1000)])).toEqual(['05.000', '05.500', '06.000']);
    expect(tickLabels([at(0), at(5000)])).toEqual([':05', ':10']);
  });
});
