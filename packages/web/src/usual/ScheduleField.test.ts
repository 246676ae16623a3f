import { describe, expect, test } from '@jest/globals';
import { mounted } from '../api/testing/mounted.ts';
import ScheduleField from './ScheduleField.vue';

const field = async (modelValue: unknown) => (await mounted(ScheduleField, { props: { modelValue } })).wrapper; // prettier-ignore
const said = (wrapper: Awaited<ReturnType<typeof field>>): string => wrapper.get('#schedule-said').text();

describe('when runs are to begin', () => {
  test('what is typed is said in words with the next times, and stands for the flow', async () => {
    const wrapper = await field(null);
    expect(said(wrapper)).toContain('as in a crontab');
    await wrapper.get('[aria-label^="Minute"]').setValue('30 6 * * 1-5');
    await wrapper.get('[aria-label^="Time zone"]').setValue('Europe/Berlin');
    await wrapper.get('[aria-label^="It may begin"]').setValue('10 min');
    expect(said(wrapper)).toMatch(/^at 06:30, Monday through Friday \(Europe\/Berlin\); next \d{4}-.*, .*, /);
    expect(wrapper.emitted('update:modelValue')!.at(-1)).toEqual([{ cron: '30 6 * * 1-5', zone: 'Europe/Berlin', lateMs: 600_000 }]);
    await wrapper.get('[aria-label^="Minute"]').setValue('');
    expect(wrapper.emitted('update:modelValue')!.at(-1)).toEqual([null]);
  });
  test('what is no schedule says why, and changes nothing', async () => {
    const wrapper = await field({ cron: '0 6 * * *', zone: 'UTC', lateMs: null });
    await wrapper.get('[aria-label^="Minute"]').setValue('0 26 * * *');
    expect(said(wrapper)).toContain('hours part');
    expect(wrapper.emitted('problem')!.at(-1)![0]).toContain('hours part');
    expect(wrapper.get('[aria-label^="Minute"]').attributes('aria-invalid')).toBe('true');
    await wrapper.get('[aria-label^="Minute"]').setValue('0 6 * * *');
    await wrapper.get('[aria-label^="It may begin"]').setValue('soon');
    expect(said(wrapper)).toContain('length of time');
    expect(wrapper.emitted('update:modelValue')).toBeUndefined();
  });
});
