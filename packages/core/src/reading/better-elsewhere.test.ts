import { describe, expect, it } from '@jest/globals';
import { betterElsewhere } from './better-elsewhere.ts';
import { placesIn, SLICE, withSlices } from './sample.ts';
import { drawHead } from './testing/drawn-heads.ts';

const HINTS = { modified: Date.UTC(2026, 10, 25) * 1000 };
const SETTINGS = Array.from({ length: 1800 }, (_, i) => `  shelf.${i}.width = ${(i * 37) % 900} # as it was measured`).join('\n');
const beyond = (text: string): string[] => placesIn(text.length).map((place) => text.slice(place, place + SLICE));
const better = (text: string, format: string) =>
  betterElsewhere('desk.log', { format, beginning: text.slice(0, 1 << 16) }, beyond(text), HINTS, 'UTC');

describe('what is not written as its beginning is', () => {
  it('is read by other places of it', () => {
    const missed: number[] = [];
    for (let seed = 0; seed < 40; seed++) {
      const { lines } = drawHead(seed, 900);
      const text = `${SETTINGS}\n${lines.map((one) => one.text).join('\n')}\n`;
      const found = better(text, 'plain');
      if (!found || found.format === 'plain') missed.push(seed);
    }
    expect(missed.length).toBeLessThanOrEqual(2);
  });
  it('says what its times lack', () => {
    const lines = Array.from(
      { length: 2000 },
      (_, i) => `Nov 24 10:${String(Math.floor(i / 60) % 60).padStart(2, '0')}:${String(i % 60).padStart(2, '0')} north-1 desk[417]: took box ${i}`,
    );
    expect(better(`${SETTINGS}\n${lines.join('\n')}\n`, 'plain')).toMatchObject({ format: 'syslog', hints: { lacksZone: true, lacksYear: true } });
  });
  it('stays as it is where that is no better', () => {
    const lines = Array.from({ length: 3000 }, (_, i) => `2026-11-24T10:00:00.${String(i % 1000).padStart(3, '0')}Z INFO desk took box ${i}`);
    expect(better(lines.join('\n'), 'text')).toBe(null);
    expect(better(`${SETTINGS}\n${SETTINGS}`, 'plain')).toBe(null);
  });
});

describe('slices', () => {
  it('lie within, the last at the end', () => {
    for (const size of [70_000, 1_000_000, 2 ** 33]) {
      const places = placesIn(size);
      expect(places.every((place) => place > 0 && place + SLICE <= size)).toBe(true);
      expect(size - places.at(-1)! - SLICE).toBeLessThan(2);
    }
  });
  it('are whole lines', () => {
    expect(withSlices(['ee\nfour\nfive\nsi', 'x\nseven\n'])).toBe('four\nfive\nseven\n');
  });
});
