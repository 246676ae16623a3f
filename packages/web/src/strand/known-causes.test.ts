import { describe, expect, test } from '@jest/globals';
import type { Finding, KnownCause } from '@fadenweg/api';
import { flushPromises } from '@vue/test-utils';
import { answers, sent } from '../api/testing/answers.ts';
import { mounted } from '../api/testing/mounted.ts';
import KnownCauses from './KnownCauses.vue';

const cause = (id: number, more: Partial<KnownCause> = {}): KnownCause => ({ id, was: true, remedy: 'a longer limit', owner: 'Ada', strand: 'order:LX-1', by: 'me', at: '2026-11-24T10:00:00.000Z', ...more }); // prettier-ignore
const props = (known: KnownCause[] = []) => ({ finding: { signature: 'failed-at|blank-store|labdb|x', known } as unknown as Finding, strand: 'order:LX-1' }); // prettier-ignore
const press = async ({ wrapper }: Awaited<ReturnType<typeof mounted>>, text: string): Promise<void> => {
  await wrapper.findAll('button').find((one) => one.text() === text)!.trigger('click'); // prettier-ignore
  await flushPromises();
};

describe('what was found out about findings that are alike', () => {
  test('is kept with what it was and whose, and stands there at once', async () => {
    answers(cause(9, { was: false, remedy: 'the job held the lock' }));
    const page = await mounted(KnownCauses, { props: props() });
    await press(page, 'it was not');
    expect(page.wrapper.text()).toContain('What it was instead');
    await page.wrapper.get('textarea').setValue('the job held the lock');
    await page.wrapper.get('form').trigger('submit');
    await flushPromises();
    expect(sent()).toEqual([
      {
        method: 'POST',
        path: '/api/known-causes',
        body: { signature: 'failed-at|blank-store|labdb|x', was: false, remedy: 'the job held the lock', owner: '', strand: 'order:LX-1' },
      },
    ]);
    expect(page.wrapper.text()).toContain('This was not the cause: the job held the lock');
    expect(page.wrapper.find('form').exists()).toBe(false);
  });

  test('of another strand leads there; only what was said here can be taken back', async () => {
    answers({});
    const page = await mounted(KnownCauses, { props: props([cause(1), cause(2, { strand: 'order:LX-2', remedy: 'asked the partner' })]) });
    expect(page.wrapper.get('li a').attributes('href')).toContain('LX-2');
    expect(page.wrapper.findAll('button').filter((one) => one.text() === 'take back')).toHaveLength(1);
    await press(page, 'take back');
    expect(sent()[0]).toMatchObject({ method: 'DELETE', path: '/api/known-causes/1' });
    expect(page.wrapper.text()).not.toContain('a longer limit');
    expect(page.wrapper.text()).toContain('asked the partner');
  });

  test('that cannot be taken back stays, with the reason', async () => {
    answers({}, { status: 409, title: 'Not so', detail: 'It was said by somebody else.' });
    const page = await mounted(KnownCauses, { props: props([cause(1)]) });
    await press(page, 'take back');
    expect(page.wrapper.text()).toContain('It was said by somebody else.');
    expect(page.wrapper.text()).toContain('a longer limit');
  });
});
