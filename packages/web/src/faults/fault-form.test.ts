import { describe, expect, test } from '@jest/globals';
import type { FaultDetail } from '@fadenweg/api';
import { flushPromises } from '@vue/test-utils';
import { answers, sent } from '../api/testing/answers.ts';
import { mounted } from '../api/testing/mounted.ts';
import FaultForm from './FaultForm.vue';

const fault = (more: object = {}): FaultDetail => ({ id: 7, history: [], versions: [{ version: '4.12.0' }, { version: '4.12.0' }, { version: '4.11.0' }], ...more }) as unknown as FaultDetail; // prettier-ignore
const labels = (wrapper: Awaited<ReturnType<typeof mounted>>['wrapper']): string => wrapper.findAll('label').map((one) => one.text()).join('|'); // prettier-ignore

describe('what is said of a fault', () => {
  test('asks only for what goes with it', async () => {
    const { wrapper } = await mounted(FaultForm, { props: { fault: fault() } });
    expect(labels(wrapper)).toContain('By whom');
    expect(labels(wrapper)).not.toContain('Until');
    await wrapper.get('input[value="tolerated"]').setValue();
    expect(labels(wrapper)).toContain('Until the end of');
    expect(labels(wrapper)).toContain('Because');
    await wrapper.get('input[value="mended"]').setValue();
    // each version once
    expect(wrapper.findAll('#fault-versions option').map((one) => one.attributes('value'))).toEqual(['4.12.0', '4.11.0']);
    await wrapper.get('input[value="new"]').setValue();
    expect(labels(wrapper)).not.toContain('By whom');
  });

  test('is sent as it was said, without what no longer goes with it', async () => {
    answers({});
    const { wrapper } = await mounted(FaultForm, { props: { fault: fault() } });
    await wrapper.get('input[value="mended"]').setValue();
    await wrapper.get('input[list]').setValue('4.12.1');
    await wrapper.get('input[value="in-hand"]').setValue();
    await wrapper.get('input[maxlength="100"]').setValue('Ada');
    await wrapper.get('form').trigger('submit');
    await flushPromises();
    expect(sent()).toEqual([
      { method: 'POST', path: '/api/faults/7/said', body: { state: 'in-hand', owner: 'Ada', note: '', ticket: '', version: '', until: null } },
    ]);
    expect(wrapper.emitted('said')).toHaveLength(1);
  });

  test('that is refused stays in the form, with the reason', async () => {
    answers({}, { status: 400, title: 'Not so', detail: 'Tolerated without a reason.' });
    const { wrapper } = await mounted(FaultForm, { props: { fault: fault({ history: [{ state: 'in-hand', owner: 'Ada', ticket: 'T-1' }] }) } });
    const owner = wrapper.get('input[maxlength="100"]').element as HTMLInputElement;
    expect(owner.value).toBe('Ada');
    await wrapper.get('form').trigger('submit');
    await flushPromises();
    expect(wrapper.get('[role="alert"]').text()).toContain('Tolerated without a reason.');
    expect(owner.value).toBe('Ada');
    expect(wrapper.emitted('said')).toBeUndefined();
    // what was said last can be taken back
    await wrapper.get('button.link').trigger('click');
    await flushPromises();
    expect(sent().at(-1)).toMatchObject({ method: 'DELETE', path: '/api/faults/7/said' });
  });
});
