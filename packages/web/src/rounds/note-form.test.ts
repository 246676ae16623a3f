import { describe, expect, test } from '@jest/globals';
import type { Departure } from '@fadenweg/api';
import { flushPromises } from '@vue/test-utils';
import { answers, sent } from '../api/testing/answers.ts';
import { mounted } from '../api/testing/mounted.ts';
import NoteForm from './NoteForm.vue';

const departure = (noted: object | null = null): Departure => ({ key: 'failed|order|x', count: 12, of: 90, expected: 1.5, noted }) as unknown as Departure; // prettier-ignore
const seen = { key: 'failed|order|x', count: 12, of: 90, expected: 1.5 };

describe('a note on what departs from the usual', () => {
  test('tells how much of it there was, so that it can come back; until the end of a day of this zone', async () => {
    answers({});
    const { wrapper } = await mounted(NoteForm, { props: { departure: departure() } });
    expect(wrapper.find('input[type="date"]').exists()).toBe(false);
    await wrapper.get('input[value="tolerated"]').setValue();
    await wrapper.get('input[maxlength]').setValue('a partner is moving');
    await wrapper.get('input[type="date"]').setValue('2026-12-05');
    await wrapper.get('form').trigger('submit');
    await flushPromises();
    const until = new Date('2026-12-05T23:59:59').toISOString();
    expect(sent()[0]!.body).toEqual({ ...seen, state: 'tolerated', note: 'a partner is moving', until });
    expect(wrapper.emitted('done')).toHaveLength(1);
  });

  test('that was noted is there again, and can be taken back', async () => {
    answers({});
    const { wrapper } = await mounted(NoteForm, { props: { departure: departure({ state: 'in-hand', note: 'Ada looks', until: null }) } });
    expect((wrapper.get('input[maxlength]').element as HTMLInputElement).value).toBe('Ada looks');
    await wrapper.findAll('button').find((one) => one.text() === 'Take it back')!.trigger('click'); // prettier-ignore
    await flushPromises();
    expect(sent()[0]!.body).toEqual({ ...seen, state: null });
  });

  test('that is refused says why, and nothing is lost', async () => {
    answers({}, { status: 400, title: 'Not so', detail: 'Why it is tolerated is not said.' });
    const { wrapper } = await mounted(NoteForm, { props: { departure: departure() } });
    await wrapper.get('input[maxlength]').setValue('x');
    await wrapper.get('form').trigger('submit');
    await flushPromises();
    expect(wrapper.text()).toContain('Why it is tolerated is not said.');
    expect((wrapper.get('input[maxlength]').element as HTMLInputElement).value).toBe('x');
    expect(wrapper.emitted('done')).toBeUndefined();
  });
});
