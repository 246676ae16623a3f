import { describe, expect, test } from '@jest/globals';
import type { ImportInfo } from '@fadenweg/api';
import { flushPromises } from '@vue/test-utils';
import { answers, sent } from '../api/testing/answers.ts';
import { mounted } from '../api/testing/mounted.ts';
import ImportList from './ImportList.vue';

const one = (more: Partial<ImportInfo>): ImportInfo =>
  ({
    id: 3, state: 'done', startedAt: '2026-11-24T10:00:00.000Z', endedAt: null, who: 'me', environment: 'shop', demo: false, files: 2, alreadyThere: 0,
    bytes: 1000, readBytes: 250, records: 1200, understood: 1200, keptWhole: 0, perSecond: 10, secondsLeft: null, errors: [], waitsFor: [], ...more,
  }); // prettier-ignore
const press = async ({ wrapper }: Awaited<ReturnType<typeof mounted>>, text: string): Promise<void> => {
  await wrapper.findAll('button').find((button) => button.text() === text)!.trigger('click'); // prettier-ignore
  await flushPromises();
};

describe('the list of imports', () => {
  test('tells how far one is, what it could not read and what it waits for', async () => {
    const errors = Array.from({ length: 7 }, (_, i) => ({ path: `${i}.log`, error: 'is no log' }));
    const { wrapper } = await mounted(ImportList, { props: { imports: [one({ state: 'reading', secondsLeft: 9, errors, waitsFor: [{ words: 'the weaving', stopped: true }] as never })] } }); // prettier-ignore
    expect(wrapper.text()).toMatch(/25 %, 9 s left/);
    expect(wrapper.findAll('.errors li').map((li) => li.text())).toHaveLength(6);
    expect(wrapper.get('.errors').text()).toContain('and 2 more');
    expect(wrapper.get('.waits a').attributes('href')).toBe('/sources?tab=work');
    expect((await mounted(ImportList, { props: { imports: [] } })).wrapper.text()).toBe('There was no import yet.');
  });

  test('takes one out after asking, and not without', async () => {
    answers({});
    const page = await mounted(ImportList, { props: { imports: [one({}), one({ id: 4, state: 'removing' })] } });
    await press(page, 'Take out');
    expect(page.wrapper.get('[role="dialog"]').text()).toContain('Its 1,200 records');
    await press(page, 'Keep it');
    expect(page.wrapper.find('[role="dialog"]').exists()).toBe(false);
    expect(sent()).toEqual([]);
    await press(page, 'Take out');
    await press(page, 'Take it out');
    expect(sent()).toEqual([{ method: 'DELETE', path: '/api/imports/3', body: undefined }]);
    expect(page.wrapper.emitted('changed')).toHaveLength(1);
  });

  test('what cannot be taken out says why', async () => {
    answers({}, { status: 409, title: 'Being read', detail: 'It is just beginning.', action: 'Wait a moment.' });
    const page = await mounted(ImportList, { props: { imports: [one({ state: 'receiving' })] } });
    await press(page, 'Cancel');
    await press(page, 'Cancel it');
    expect(page.wrapper.get('[role="alert"]').text()).toBe('Being read: It is just beginning. Wait a moment.');
  });
});
