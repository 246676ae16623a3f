import { describe, expect, jest, test } from '@jest/globals';
import type { SourceInfo } from '@fadenweg/api';
import { flushPromises } from '@vue/test-utils';
import { sent } from '../api/testing/answers.ts';
import { mounted } from '../api/testing/mounted.ts';
import SourceForm from './SourceForm.vue';

const source = (more: object = {}): SourceInfo =>
  ({ id: 6, path: 'oven/oven.log', format: 'text', dateOrder: null, zone: 'Europe/Berlin', timeLayout: null, standsAt: null, snapshots: null, component: 'oven', host: '', environment: 'shop', parts: 1, understood: 20, records: 20, copyOf: null, apart: false, state: 'done', ...more }) as unknown as SourceInfo; // prettier-ignore
/** What is kept whole first, then whether the change is taken. */
function taken(refusal: object | null = null): void {
  globalThis.fetch = jest.fn(async (_: unknown, init?: RequestInit) => {
    const bad = init?.method === 'PUT' ? refusal : null;
    return { status: bad ? 409 : 200, ok: !bad, text: async () => JSON.stringify(bad ?? { records: 0, groups: [] }) } as Response;
  }) as unknown as typeof fetch;
}
const changes = () => sent().filter((one) => one.method === 'PUT');
const submit = async ({ wrapper }: Awaited<ReturnType<typeof mounted>>): Promise<void> => {
  await wrapper.get('form').trigger('submit');
  await flushPromises();
};

describe('how a source is read', () => {
  test('sends what was changed and nothing else', async () => {
    taken();
    const page = await mounted(SourceForm, { props: { source: source() } });
    await submit(page);
    expect(changes()).toEqual([]);
    expect(page.wrapper.get('[role="status"]').text()).toBe('Nothing was changed.');
    await page.wrapper.get('input[list="zones"]').setValue('UTC');
    await submit(page);
    expect(changes()).toEqual([{ method: 'PUT', path: '/api/sources/6', body: { zone: 'UTC' } }]);
    expect(page.wrapper.get('[role="status"]').text()).toContain('is read again from its kept bytes');
    expect(page.wrapper.emitted('changed')).toHaveLength(1);
  });

  test('asks only for what this source has', async () => {
    taken();
    const plain = (await mounted(SourceForm, { props: { source: source() } })).wrapper;
    expect(plain.text()).not.toContain('Dates');
    expect(plain.text()).not.toContain('Durations');
    const full = (await mounted(SourceForm, { props: { source: source({ dateOrder: 'day-first', standsAt: 'end', snapshots: false, state: 'failed' }) } })).wrapper; // prettier-ignore
    for (const words of ['Dates', 'Durations', 'Rows', 'Read again']) expect(full.text()).toContain(words);
  });

  test('that is refused says why, and what was typed stays', async () => {
    taken({ status: 409, title: 'Still being read', detail: '“oven/oven.log” is being read at the moment.' });
    const page = await mounted(SourceForm, { props: { source: source() } });
    await page.wrapper.get('input[list="zones"]').setValue('UTC');
    await submit(page);
    expect(page.wrapper.get('[role="alert"]').text()).toContain('is being read at the moment');
    expect((page.wrapper.get('input[list="zones"]').element as HTMLInputElement).value).toBe('UTC');
  });
});
