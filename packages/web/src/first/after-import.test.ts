import { beforeEach, describe, expect, jest, test } from '@jest/globals';
import type { ImportInfo, SourceInfo, Summary } from '@fadenweg/api';
import { mounted } from '../api/testing/mounted.ts';
import { useSummary } from '../stores/summary.ts';
import AfterImport from './AfterImport.vue';

const latest = { id: 4, environment: 'shop', records: 1200, understood: 1190, keptWhole: 0, errors: [] } as unknown as ImportInfo;
const source = (more: object): SourceInfo => ({ importId: 4, zoneBy: 'stated', ...more }) as unknown as SourceInfo;
/** Answers by the path that is asked, and by outcome where strands are. */
function answered(paths: Record<string, object>): void {
  globalThis.fetch = jest.fn(async (input: unknown) => {
    const { pathname, searchParams } = new URL(String(input), 'http://page.example');
    const answer = paths[`${pathname.replace('/api', '')} ${searchParams.get('outcome') ?? ''}`.trim()] ?? { items: [], next: null };
    return { status: 200, ok: true, text: async () => JSON.stringify(answer) } as Response;
  }) as unknown as typeof fetch;
}
const shown = (sources: SourceInfo[]) =>
  mounted(AfterImport, {
    props: { latest, sources },
    before: () => void (useSummary().summary = { records: 1200, strands: 0, still: true } as unknown as Summary),
  });
beforeEach(() => localStorage.clear());

describe('what came in leads on', () => {
  test('to the best name of a transaction, where nothing of it became a strand', async () => {
    const best = { kinds: [{ label: 'order' }, { label: 'request' }], transactions: 400, share: 0.98, examples: [], components: [] };
    answered({ '/strands/counts': { items: [], quiet: 0 }, '/identifier-kinds/suggestions': { items: [], next: null, best } });
    const { wrapper } = await shown([source({ zoneBy: 'guessed' }), source({}), source({ importId: 3, zoneBy: 'guessed' })]);
    expect(wrapper.text()).toContain('1,200 records of 2 sources, 10 of them kept as text');
    expect(wrapper.text()).toContain('the zone of 1 source');
    expect(wrapper.text()).toMatch(/The best set, order, request, makes 400 strands of\s+98 % of the records/);
    expect(wrapper.find('a.strand').exists()).toBe(false);
  });

  test('to the first that failed, before what stalled or was slow', async () => {
    const strand = { id: 'order:OR-1', name: 'OR-1', outcome: 'stalled', startedAt: '2026-12-01T05:00:00.000Z', headline: 'Nothing more after bus' };
    answered({ '/strands/counts': { items: [{ flow: 'order', outcome: 'done', count: 399 }], quiet: 0 }, '/strands stalled': { items: [strand], next: null } }); // prettier-ignore
    const { wrapper } = await shown([source({})]);
    expect(wrapper.get('a.strand').attributes('href')).toContain('OR-1');
    expect(wrapper.text()).toContain('Nothing more after bus');
    expect(wrapper.text()).toContain('399 strands');
    answered({ '/strands/counts': { items: [{ flow: 'order', outcome: 'done', count: 399 }], quiet: 0 } });
    expect((await shown([source({})])).wrapper.text()).toContain('nothing failed, stalled or was slow');
  });

  test('until it is put away; a later import leads again', async () => {
    answered({});
    const { wrapper } = await shown([source({})]);
    await wrapper.get('button').trigger('click');
    expect(wrapper.text()).toBe('');
    await wrapper.setProps({ latest: { ...latest, id: 5 }, sources: [source({ importId: 5 })] });
    expect(wrapper.text()).toContain('What came in');
  });
});
