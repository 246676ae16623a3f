import { beforeEach, describe, expect, test } from '@jest/globals';
import { pageAt } from '../api/testing/page.ts';
import { useChosenColumns, useOwnColumns } from './own-columns.ts';

beforeEach(() => localStorage.clear());
const COLS = 'outcome:98,happened';

describe('columns that a person chose', () => {
  test('stand in an address that says none, with all else it says', async () => {
    localStorage.setItem('fadenweg.strand-columns', COLS);
    const page = await pageAt('/strands?flow=x', () => useOwnColumns('strand-columns', 'strands'));
    expect(await page.query()).toEqual({ flow: 'x', cols: COLS });
  });
  test('never take the place of what an address says, nor stand in another view', async () => {
    localStorage.setItem('fadenweg.strand-columns', COLS);
    const sent = await pageAt('/strands?cols=begin', () => useOwnColumns('strand-columns', 'strands'));
    expect(await sent.query()).toEqual({ cols: 'begin' });
    const other = await pageAt('/find', () => useOwnColumns('strand-columns', 'strands'));
    expect(await other.query()).toEqual({});
    await other.router.push('/strands');
    expect(await other.query()).toEqual({ cols: COLS });
  });
  test('none were chosen: the address stays', async () => {
    const page = await pageAt('/strands', () => [useOwnColumns('strand-columns', 'strands'), useChosenColumns('strand-columns').value]);
    expect(await page.query()).toEqual({});
  });
});
