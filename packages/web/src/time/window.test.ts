import { describe, expect, test } from '@jest/globals';
import { pageAt, PRODUCTION } from '../api/testing/page.ts';
import { useWindow } from './window.ts';

const bounds = async (w: string, to = PRODUCTION.to) =>
  (await pageAt(`/find${w === '' ? '' : `?w=${w}`}`, useWindow, [{ ...PRODUCTION, from: '2026-01-01T00:00:00.000Z', to }])).used.bounds.value;
const HOUR = 3_600_000;

describe('the time window in the address', () => {
  test.each([
    ['hour', HOUR],
    ['6h', 6 * HOUR],
    ['15min', HOUR / 4],
    ['week', 7 * 24 * HOUR],
  ])('“%s” reaches back from the end of the evidence', async (name, length) => {
    const { from, to } = await bounds(name);
    expect(Date.parse(to!)).toBe(Date.parse(PRODUCTION.to!) + 1);
    expect(Date.parse(to!) - Date.parse(from!)).toBe(length);
  });

  test('without one it is the last day, to which what runs on after midnight belongs', async () => {
    const midnight = (text: string): string => new Date(new Date(text).setHours(0, 0, 0, 0)).toISOString();
    expect((await bounds('')).from).toBe(midnight(PRODUCTION.to!));
    const late = new Date(Date.parse(midnight('2026-11-25T12:00:00')) + HOUR).toISOString();
    expect((await bounds('', late)).from).toBe(midnight('2026-11-24T12:00:00'));
  });

  test('no preset reaches back beyond the begin of the evidence', async () => {
    const from = new Date(Date.parse(PRODUCTION.to!) - 10 * 60_000).toISOString();
    const page = await pageAt('/find', useWindow, [{ ...PRODUCTION, from }]);
    expect(page.used.bounds.value.from).toBe(from);
    page.used.set('week');
    await page.query();
    expect(page.used.bounds.value.from).toBe(from);
    page.used.set('15min');
    await page.query();
    expect(page.used.bounds.value.from).toBe(from);
  });

  test('all time has no bounds, nor has a system without evidence', async () => {
    expect(await bounds('all')).toEqual({ from: undefined, to: undefined });
    const { used } = await pageAt('/find?w=hour', useWindow, []);
    expect(used.bounds.value).toEqual({ from: undefined, to: undefined });
  });

  test('two times are taken as they stand, and turned round where they are', async () => {
    const [from, to] = ['2026-11-24T10:00:00.000Z', '2026-11-24T11:00:00.000Z'];
    expect(await bounds(`${from}~${to}`)).toEqual({ from, to });
    expect(await bounds(`${to}~${from}`)).toEqual({ from, to });
  });

  test('what cannot be read is the last day', async () => {
    expect(await bounds('yesterday~tomorrow')).toEqual(await bounds(''));
    expect(await bounds('nonsense')).toEqual(await bounds(''));
  });

  test('is set in the address, which keeps all else; the usual one is not written', async () => {
    const page = await pageAt('/find?q=lock&w=hour', useWindow);
    page.used.set('6h');
    expect(await page.query()).toEqual({ q: 'lock', w: '6h' });
    page.used.set('day');
    expect(await page.query()).toEqual({ q: 'lock' });
  });
});
