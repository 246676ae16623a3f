import { describe, expect, test } from '@jest/globals';
import { pairsOf, regionsIn, zoneOf, zoneOfDate, zonesAmong, type FirstMention, type TimePair } from './zone-guess.ts';
import { zoneClock } from './zones.ts';

const SECOND = 1_000_000;
const HOUR = 3600 * SECOND;
const at = (...of: [number, number, number, number?, number?, number?]): number => Date.UTC(...of) * 1000;

/** Mentions every hour and a bit, written by the wall clock of a zone. */
function written(zone: string, from: number, count: number, step = 1.01 * HOUR): TimePair[] {
  return Array.from({ length: count }, (_, i) => {
    const moment = from + i * step;
    return { at: moment, local: moment + zoneClock(zone).offsetAt(moment / 1000) * 1000 + (i % 7) * SECOND };
  });
}
const NOVEMBER = at(2026, 10, 24);
/** The clocks of Europe go back on 25 October. */
const CHANGE = at(2026, 9, 24);

describe('zones told by what others say', () => {
  test('a region that is named counts before an offset that fits as well', () => {
    expect(zoneOf(written('Europe/Berlin', NOVEMBER, 40), 'UTC', ['America/New_York', 'Europe/Berlin'])).toBe('Europe/Berlin');
    expect(zoneOf(written('Europe/Berlin', at(2026, 6, 1), 40), 'UTC', ['Europe/Berlin'])).toBe('Europe/Berlin');
    expect(zoneOf(written('Asia/Kolkata', NOVEMBER, 40), 'UTC', ['Asia/Kolkata'])).toBe('Asia/Kolkata');
  });

  test('an offset counts where nothing names a region, as long as it fits', () => {
    expect(zoneOf(written('Europe/Berlin', NOVEMBER, 40), 'UTC', [])).toBe('Etc/GMT-1');
    expect(zoneOf(written('America/New_York', NOVEMBER, 40), 'UTC', ['Europe/Berlin'])).toBe('Etc/GMT+5');
  });

  test('an offset that no clock on earth has is none: what is fifteen hours apart was said again', () => {
    const apart = (hours: number): TimePair[] =>
      written('UTC', NOVEMBER, 40).map(({ at: moment, local }) => ({ at: moment, local: local + hours * HOUR }));
    expect([-15, -13, 15].map((hours) => zoneOf(apart(hours), 'UTC', []))).toEqual([null, null, null]);
    expect([-12, 14].map((hours) => zoneOf(apart(hours), 'UTC', []))).toEqual(['Etc/GMT+12', 'Etc/GMT-14']);
  });

  test('across a clock change a region counts, also one that nothing names', () => {
    const pairs = written('Europe/Berlin', CHANGE, 60);
    expect(zoneOf(pairs, 'UTC', ['Europe/Berlin'])).toBe('Europe/Berlin');
    const found = zoneOf(pairs, 'UTC', [])!;
    for (const { local, at: moment } of pairs) expect(Math.abs(zoneClock(found).toUtc(local, moment) - moment)).toBeLessThan(10 * SECOND);
  });

  test('it stays where it fits, and where nothing is sure', () => {
    expect(zoneOf(written('UTC', NOVEMBER, 40), 'UTC', ['Europe/Berlin'])).toBeNull();
    expect(zoneOf(written('Europe/Berlin', NOVEMBER, 9), 'UTC', ['Europe/Berlin'])).toBeNull();
    const mixed = [...written('Europe/Berlin', NOVEMBER, 20), ...written('UTC', NOVEMBER, 20)];
    expect(zoneOf(mixed, 'UTC', ['Europe/Berlin'])).toBeNull();
    // some pairs are far apart by themselves: one that is worked on for hours
    const late = written('Europe/Berlin', NOVEMBER, 40).map((pair, i) => (i % 5 === 0 ? { ...pair, local: pair.local + 3 * HOUR } : pair));
    expect(zoneOf(late, 'UTC', ['Europe/Berlin'])).toBe('Europe/Berlin');
  });

  test('mentions are paired from source to source, for those in question alone', () => {
    const [asked, sure, other, alsoAsked] = [1, 2, 3, 4];
    const mentions: FirstMention[] = [
      { key: 10, source: asked, at: HOUR },
      { key: 10, source: sure, at: 5 },
      { key: 10, source: other, at: 7 },
      { key: 10, source: alsoAsked, at: 0 },
      { key: 11, source: asked, at: 20 * HOUR },
      { key: 11, source: sure, at: 0 },
      { key: 12, source: sure, at: 0 },
      { key: 12, source: other, at: HOUR },
    ];
    const found = pairsOf(mentions, (source) => source === asked || source === alsoAsked);
    expect([...found]).toEqual([
      [asked, [{ local: HOUR, at: 5 }, { local: HOUR, at: 7 }]],
      [alsoAsked, [{ local: 0, at: 5 }, { local: 0, at: 7 }]],
    ]); // prettier-ignore
    expect(pairsOf([], () => true).size).toBe(0);
  });
});

describe('sources that have something in common with each other alone', () => {
  const [gate, voice] = [1, 2];
  const mentions = written('Europe/Berlin', NOVEMBER, 40).flatMap(({ local, at: moment }, key): FirstMention[] => [
    { key, source: gate, at: moment },
    { key, source: voice, at: local },
  ]);
  const open = (likely: string[]) => [gate, voice].map((id) => ({ id, zone: 'UTC', likely }));
  const zones = new Map([[gate, 'UTC'], [voice, 'UTC']]); // prettier-ignore

  test('that one changes which a named zone explains', () => {
    expect([...zonesAmong(open(['Europe/Berlin', 'UTC']), mentions, zones)]).toEqual([[voice, 'Europe/Berlin']]);
  });
  test('neither does where both would be explained, where none is named, and where they agree', () => {
    expect(zonesAmong(open(['Europe/Berlin', 'Etc/GMT+1']), mentions, zones).size).toBe(0);
    expect(zonesAmong(open(['UTC']), mentions, zones).size).toBe(0);
    const right = open(['Europe/Berlin', 'UTC']).map((one) => (one.id === voice ? { ...one, zone: 'Europe/Berlin' } : one));
    expect(zonesAmong(right, mentions, new Map(right.map((one) => [one.id, one.zone]))).size).toBe(0);
  });
});

describe('zones told by the date of a file', () => {
  const last = at(2026, 10, 24, 10, 41, 58);
  test('the last line was written with it', () => {
    expect(zoneOfDate(last, last - HOUR + SECOND, 'UTC', ['America/New_York', 'Europe/Berlin'])).toBe('Europe/Berlin');
    expect(zoneOfDate(last, last + SECOND, 'UTC', ['Europe/Berlin'])).toBeNull();
    expect(zoneOfDate(last, last - HOUR + 30 * SECOND, 'UTC', ['Europe/Berlin'])).toBeNull();
  });
  test('a date without seconds tells nothing', () => {
    expect(zoneOfDate(at(2026, 10, 24, 10, 41), at(2026, 10, 24, 9, 41), 'UTC', ['Europe/Berlin'])).toBeNull();
  });
});

describe('regions that a text names', () => {
  test('by name, by abbreviation, and none by chance', () => {
    expect(regionsIn('log_timezone = Europe/Berlin\n2026-11-24 10:00:00 CET [7] LOG: ready')).toEqual(['Europe/Berlin', 'CET']);
    expect(regionsIn('sent to America/Nowhere and EST is no time here')).toEqual([]);
  });
});
