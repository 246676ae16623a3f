import { describe, expect, test } from '@jest/globals';
import type { FlowCount } from '@fadenweg/api';
import { flushPromises } from '@vue/test-utils';
import { mounted } from '../api/testing/mounted.ts';
import StrandFilters from './StrandFilters.vue';

const counts: FlowCount[] = [
  { flow: 'order', outcome: 'failed', count: 3 },
  { flow: 'order', outcome: 'done', count: 40 },
  { flow: 'job', outcome: 'failed', count: 1 },
  { flow: null, outcome: 'done', count: 5 },
];
const props = { counts, quiet: 0, flows: [{ name: 'order', label: 'lens order' }], components: ['oven'] };
const at = (address: string) => mounted(StrandFilters, { props, address });
const pieces = (wrapper: Awaited<ReturnType<typeof mounted>>['wrapper']): string[] => wrapper.findAll('button').map((one) => one.text().replace(/\s+/g, ' ')); // prettier-ignore

describe('filters of strands', () => {
  test('flows count what is left of the outcomes chosen, and outcomes of the flows', async () => {
    const all = pieces((await at('/strands')).wrapper);
    expect(all).toEqual(expect.arrayContaining(['lens order 43', 'job 1', 'other strands 5', 'failed 4', 'done 45']));
    const failed = pieces((await at('/strands?outcome=failed')).wrapper);
    expect(failed).toEqual(expect.arrayContaining(['lens order 3', 'job 1', 'other strands 0', 'failed 4', 'done 45']));
    expect(pieces((await at('/strands?flow=none')).wrapper)).toEqual(expect.arrayContaining(['failed 0', 'done 5']));
  });

  test('several are chosen and left again; what else the address says stays', async () => {
    const { wrapper, router } = await at('/strands?w=hour&outcome=failed');
    const press = async (text: string): Promise<void> => {
      await wrapper.findAll('button').find((one) => one.text().startsWith(text))!.trigger('click'); // prettier-ignore
      await flushPromises();
    };
    await press('done');
    expect(router.currentRoute.value.query).toEqual({ w: 'hour', outcome: 'failed,done' });
    await press('failed');
    await press('done');
    expect(router.currentRoute.value.query).toEqual({ w: 'hour' });
    await press('job');
    await press('clear all');
    expect(router.currentRoute.value.query).toEqual({ w: 'hour' });
  });

  test('a duration is understood as it is typed, and what is none is not taken', async () => {
    const { wrapper, router } = await at('/strands');
    const field = wrapper.get('.duration');
    const type = async (text: string): Promise<void> => {
      (field.element as HTMLInputElement).value = text;
      await field.trigger('change');
      await flushPromises();
    };
    await type('2s');
    expect(router.currentRoute.value.query.minMs).toBe('2000');
    await type('soon');
    expect((field.element as HTMLInputElement).validationMessage).toContain('Write a duration');
    expect(router.currentRoute.value.query.minMs).toBe('2000');
    await type('');
    expect(router.currentRoute.value.query.minMs).toBeUndefined();
  });
});
