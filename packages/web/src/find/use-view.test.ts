import { describe, expect, test } from '@jest/globals';
import { pageAt } from '../api/testing/page.ts';
import { USUAL_COLUMNS } from './columns.ts';
import { useView } from './use-view.ts';

describe('what the address says about Find', () => {
  test('is restored: search, order, sources, columns, density, marks', async () => {
    const { used } = await pageAt(
      '/find?q=level%20%3D%20error&order=oldest&src=3,7,x,-1&cols=component:90,order&view=close.wrap&mark=a%0Ab&show=strand',
      useView,
    );
    expect(used.asked.value).toMatchObject({ q: 'level = error', order: 'oldest', sources: '3,7', quiet: 'hide', environment: 'production' });
    expect([used.density.value, used.wrap.value, used.since.value, used.marks.value, used.show.value]).toEqual(['close', true, false, ['a', 'b'], 'strand']); // prettier-ignore
    expect(used.columns.value.map(({ field }) => field)).toEqual(['component', 'order']);
  });

  test('a search that is not understood asks nothing, and neither does an empty system', async () => {
    expect((await pageAt('/find?q=where%20level%20%3D', useView)).used.asked.value).toBeNull();
    expect((await pageAt('/find?q=lock', useView, [])).used.asked.value).toBeNull();
  });

  test('sources that are switched off count only where none is chosen alone', async () => {
    expect((await pageAt('/find?off=4,5', useView)).used.asked.value).toMatchObject({ sources: undefined, withoutSources: '4,5' });
    expect((await pageAt('/find?off=4,5&src=4', useView)).used.asked.value).toMatchObject({ sources: '4', withoutSources: undefined });
    const { used, query } = await pageAt('/find?off=4', useView);
    used.setSources({ only: [9] });
    expect(await query()).toEqual({ src: '9' });
  });

  test('with all time still has bounds for what is drawn over time', async () => {
    const { used } = await pageAt('/find?w=all&order=oldest', useView);
    expect([used.asked.value!.from, used.bounded.value!.from, used.bounded.value!.order]).toEqual([undefined, '2026-11-23T08:00:00.000Z', 'latest']);
  });

  test('the same question is the same object, so that nothing is asked again', async () => {
    const { used, router } = await pageAt('/find?q=lock&w=hour', useView);
    const before = used.asked.value;
    await router.push('/find?q=lock&w=hour&record=7-1');
    expect(used.asked.value).toBe(before);
    await router.push('/find?q=lock2&w=hour');
    expect(used.asked.value).not.toBe(before);
  });

  test('a column is ranked down, up, and by time again', async () => {
    const { used, query } = await pageAt('/find?record=7-1', useView);
    const ranks: (string | undefined)[] = [];
    for (let i = 0; i < 3; i++) {
      used.turnRank('took');
      ranks.push((await query()).rank);
    }
    expect(ranks).toEqual(['took.down', 'took.up', undefined]);
    used.turnRank('took');
    await query();
    used.turnRank('order.id');
    expect((await query()).rank).toBe('order.id.down');
    expect(used.rank.value).toEqual({ field: 'order.id', direction: 'down' });
  });

  test('density is one of three, and a saved set is restored in one step', async () => {
    const { used, query } = await pageAt('/find?view=since', useView);
    used.setDensity('wide');
    expect((await query()).view).toBe('since.wide');
    used.setDensity('close');
    expect((await query()).view).toBe('close.since');
    used.setDensity('usual');
    expect((await query()).view).toBe('since');
    used.takeSet({ columns: [{ field: 'order', width: 90 }], density: 'close', wrap: true, rank: 'took.up' });
    expect(await query()).toEqual({ view: 'close.since.wrap', cols: 'order:90', rank: 'took.up' });
    used.takeSet({ columns: [...USUAL_COLUMNS], density: 'usual', wrap: false, rank: null });
    expect(await query()).toEqual({ view: 'since' });
  });

  test('an emptied search leaves the address, and the record that was open with it', async () => {
    const { used, query } = await pageAt('/find?q=lock&record=7-1', useView);
    used.search('');
    expect(await query()).toEqual({});
    used.search('where level = error');
    used.setMarks(['a', 'b']);
    expect((await query()).mark).toBe('a\nb');
    used.setMarks([]);
    expect((await query()).mark).toBeUndefined();
  });
});
