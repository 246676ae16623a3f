import { describe, expect, test } from '@jest/globals';
import { flushPromises } from '@vue/test-utils';
import { answers, sent } from '../api/testing/answers.ts';
import { mounted } from '../api/testing/mounted.ts';
import ChangeForm from './ChangeForm.vue';

const props = { components: ['oven', 'desk'], environment: 'lens works', at: '2026-11-24T11:20:00.000Z' };

describe('a change that no record tells of', () => {
  test('is registered with the time that was proposed or written', async () => {
    answers({ id: 'c1' });
    const { wrapper } = await mounted(ChangeForm, { props });
    await wrapper.get('input[maxlength="300"]').setValue('a fan was turned');
    await wrapper.get('input[list]').setValue(' oven ');
    await wrapper.get('input.mono').setValue('2026-11-24 12:00:00');
    await wrapper.get('form').trigger('submit');
    await flushPromises();
    expect(sent()).toEqual([
      { method: 'POST', path: '/api/changes', body: { what: 'a fan was turned', component: 'oven', environment: 'lens works', at: new Date('2026-11-24T12:00:00').toISOString() } },
    ]); // prettier-ignore
    expect(wrapper.emitted('registered')).toHaveLength(1);
    expect((wrapper.get('input[maxlength="300"]').element as HTMLInputElement).value).toBe('');
  });

  test('with a time that is none is not sent, and nothing is lost', async () => {
    answers({});
    const { wrapper } = await mounted(ChangeForm, { props });
    await wrapper.get('input[maxlength="300"]').setValue('a fan was turned');
    await wrapper.get('input.mono').setValue('yesterday noon');
    await wrapper.get('form').trigger('submit');
    await flushPromises();
    expect(sent()).toEqual([]);
    expect(wrapper.text()).toContain('“yesterday noon” is no date with a time.');
    expect((wrapper.get('input[maxlength="300"]').element as HTMLInputElement).value).toBe('a fan was turned');
  });
});
