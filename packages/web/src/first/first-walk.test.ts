import { beforeEach, describe, expect, test } from '@jest/globals';
import { flushPromises } from '@vue/test-utils';
import type { Summary } from '@fadenweg/api';
import { mounted } from '../api/testing/mounted.ts';
import { useSummary } from '../stores/summary.ts';
import FirstWalk from './FirstWalk.vue';
import { FIRST_WALK } from './walk.ts';

beforeEach(() => localStorage.clear());
const withDemo = (demo: boolean) => () => void (useSummary().summary = { demo, environments: [] } as unknown as Summary);

describe('the first walk', () => {
  test('is offered where the demo is, and nowhere else', async () => {
    expect((await mounted(FirstWalk, { before: withDemo(true) })).wrapper.text()).toContain('New here?');
    expect((await mounted(FirstWalk, { before: withDemo(false) })).wrapper.text()).toBe('');
  });

  test('goes along with whoever goes on by themselves, and back', async () => {
    const { wrapper, router } = await mounted(FirstWalk, { before: withDemo(true) });
    await wrapper.get('a.go').trigger('click');
    await flushPromises();
    expect(wrapper.text()).toContain(FIRST_WALK[0]!.title);
    expect(router.currentRoute.value.name).toBe('rounds');
    await router.push({ name: 'strands' });
    await flushPromises();
    expect(wrapper.text()).toContain(`2 of ${FIRST_WALK.length}`);
    // somewhere that is no next step
    await router.push({ name: 'rounds' });
    await flushPromises();
    expect(wrapper.text()).toContain(`2 of ${FIRST_WALK.length}`);
    await router.push('/strands/order:LX-106070');
    await flushPromises();
    expect(wrapper.text()).toContain(FIRST_WALK[2]!.title);
    await wrapper.get('a.back').trigger('click');
    await flushPromises();
    expect(wrapper.text()).toContain(FIRST_WALK[1]!.title);
    expect(router.currentRoute.value.query.outcome).toBe('failed');
  });

  test('that was left is not offered again', async () => {
    const { wrapper } = await mounted(FirstWalk, { before: withDemo(true) });
    await wrapper.get('button').trigger('click');
    expect(wrapper.text()).toBe('');
    expect((await mounted(FirstWalk, { before: withDemo(true) })).wrapper.text()).toBe('');
  });
});
