import { describe, expect, test } from '@jest/globals';
import type { LogRecord, QuietRuleInfo } from '@fadenweg/api';
import { flushPromises } from '@vue/test-utils';
import { answers, sent } from '../api/testing/answers.ts';
import { mounted } from '../api/testing/mounted.ts';
import QuietPanel from './QuietPanel.vue';

const rule = (name: string, more: Partial<QuietRuleInfo> = {}): QuietRuleInfo => ({ name, label: `the ${name}`, why: '', q: name, on: true, supplied: false, changedBy: 'me', ...more }); // prettier-ignore
const list = (...items: QuietRuleInfo[]) => ({ items, next: null });
const asked = { q: '', from: '2026-11-24T09:00:00.000Z', to: '2026-11-24T10:00:00.000Z', quiet: 'hide', order: 'oldest' } as const;
const record = { component: 'oven', shape: 'ping ‹n›', message: 'ping 7', attributes: {}, identifiers: [] } as unknown as LogRecord;
const opened = (first: object, record: LogRecord | null = null) => mounted(QuietPanel, { props: { asked, hidden: { pings: 1200 }, record }, before: () => void first }); // prettier-ignore
const press = async ({ wrapper }: Awaited<ReturnType<typeof mounted>>, text: string): Promise<void> => {
  await wrapper.findAll('button').find((one) => one.text() === text)!.trigger('click'); // prettier-ignore
  await flushPromises();
};

describe('quiet rules', () => {
  test('tell what each hides; a supplied one is turned off, and never taken away', async () => {
    answers({}, list(rule('pings', { supplied: true })), {}, list(rule('pings', { supplied: true, on: false })));
    const page = await opened({});
    expect(page.wrapper.text()).toContain('1,200 hidden');
    expect(page.wrapper.findAll('button').map((one) => one.text())).not.toContain('take away');
    await page.wrapper.get('input[type="checkbox"]').trigger('change');
    await flushPromises();
    expect(sent()[1]).toMatchObject({ method: 'PUT', path: '/api/quiet-rules/pings', body: { name: 'pings', q: 'pings', on: false } });
    expect(page.wrapper.emitted('changed')).toHaveLength(1);
    expect(page.wrapper.text()).not.toContain('1,200 hidden');
  });

  test('one’s own is taken away, and brought back', async () => {
    answers({}, list(rule('pings')), {}, list(), {}, list(rule('pings')));
    const page = await opened({});
    await press(page, 'take away');
    expect(page.wrapper.text()).toContain('“the pings” is taken away.');
    await press(page, 'undo');
    expect(sent()[3]).toMatchObject({ method: 'PUT', path: '/api/quiet-rules/pings', body: { label: 'the pings', on: true } });
    expect(page.wrapper.text()).not.toContain('is taken away');
  });

  test('a new one is made of a record, and saved once it was tried', async () => {
    const part = (total: number) => ({ total, searched: 1, next: null, slots: [], hidden: {} });
    answers({}, list(), part(30), part(900), {}, list(rule('own')));
    const page = await opened({}, record);
    await press(page, 'Hide what looks like the chosen line');
    const save = () => page.wrapper.findAll('button').find((one) => one.text() === 'Save')!;
    expect(save().attributes('disabled')).toBeDefined();
    expect((page.wrapper.get('textarea').element as HTMLTextAreaElement).value).toContain('component = oven');
    await press(page, 'Try it');
    expect(page.wrapper.text()).toMatch(/hides\s+30\s+of\s+900 records/);
    expect(save().attributes('disabled')).toBeUndefined();
    await page.wrapper.get('form').trigger('submit');
    await flushPromises();
    expect(sent()[3]).toMatchObject({ method: 'PUT', body: { label: 'oven: ping ‹n›', on: true } });
    expect(page.wrapper.find('form').exists()).toBe(false);
  });
});
