import { describe, expect, test } from '@jest/globals';
import { quartersLater, shiftOf, zoneFor, type FirstMention } from './zone-guess.ts';

const HOUR = 3_600_000_000;
const NOVEMBER = Date.UTC(2026, 10, 24) * 1000;
const JULY = Date.UTC(2026, 6, 24) * 1000;

describe('zones told by what others say', () => {
  test('a shift is believed where most identifiers agree on it', () => {
    expect(shiftOf(new Map([[4, 90], [0, 5], [-3, 5]]))).toBe(HOUR); // prettier-ignore
    expect(shiftOf(new Map([[4, 50], [0, 50]]))).toBe(0); // prettier-ignore
    expect(shiftOf(new Map([[0, 500], [4, 20]]))).toBe(0); // prettier-ignore
    expect(shiftOf(new Map([[-8, 9]]))).toBe(0);
    expect(shiftOf(new Map())).toBe(0);
  });

  test('quarters of an hour are counted from source to source, for those in question alone', () => {
    const [asked, sure, other, alsoAsked] = [1, 2, 3, 4];
    const mentions: FirstMention[] = [
      { key: 10, source: asked, at: HOUR },
      { key: 10, source: sure, at: 5_000_000 },
      { key: 10, source: other, at: HOUR / 2 },
      { key: 10, source: alsoAsked, at: 0 },
      { key: 11, source: asked, at: 20 * HOUR },
      { key: 11, source: sure, at: 0 },
      { key: 12, source: sure, at: 0 },
      { key: 12, source: other, at: HOUR },
      { key: 13, source: asked, at: 2 * HOUR },
      { key: 13, source: sure, at: HOUR - 1 },
    ];
    const found = quartersLater(mentions, (source) => source === asked || source === alsoAsked, 15 * HOUR);
    expect([...found.keys()]).toEqual([asked, alsoAsked]);
    expect(Object.fromEntries(found.get(asked)!)).toEqual({ 4: 2, 2: 1 });
    expect(Object.fromEntries(found.get(alsoAsked)!)).toEqual({ 0: 1, [-2]: 1 });
    expect(quartersLater([], () => true, HOUR).size).toBe(0);
  });

  test('the zone is a likely one that fits at all moments, else a fixed offset', () => {
    // local times of Berlin that were read as UTC come an hour late in winter, two in summer
    expect(zoneFor('UTC', HOUR, [NOVEMBER], ['America/New_York', 'Europe/Berlin'])).toBe('Europe/Berlin');
    expect(zoneFor('UTC', 2 * HOUR, [JULY], ['Europe/Berlin'])).toBe('Europe/Berlin');
    expect(zoneFor('UTC', HOUR, [JULY, NOVEMBER], ['Europe/Berlin'])).toBe('Etc/GMT-1');
    expect(zoneFor('Europe/Berlin', -HOUR, [NOVEMBER], ['Europe/Berlin', 'UTC'])).toBe('UTC');
    expect(zoneFor('UTC', -5 * HOUR, [NOVEMBER], [])).toBe('Etc/GMT+5');
    expect(zoneFor('UTC', 5.5 * HOUR, [NOVEMBER], ['Asia/Kolkata'])).toBe('Asia/Kolkata');
    expect(zoneFor('UTC', 5.75 * HOUR, [NOVEMBER], [])).toBeNull();
  });
});
