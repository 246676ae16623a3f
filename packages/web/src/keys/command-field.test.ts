import { afterEach, describe, expect, jest, test } from '@jest/globals';
import { flushPromises } from '@vue/test-utils';
import { defineComponent, h } from 'vue';
import { mounted } from '../api/testing/mounted.ts';
import CommandField from './CommandField.vue';
import { useCommands } from './commands.ts';

const ran = jest.fn();
/** The field beside a view with commands of its own, one of which cannot be done now. */
const View = defineComponent({
  setup() {
    useCommands('Ovens', [
      { name: 'heat the oven', keys: ['h'], run: () => void ran('heat') },
      { name: 'open the oven', keys: ['o'], run: () => void ran('open') },
      { name: 'heat the hall', keys: [], can: () => false, run: () => void ran('hall') },
    ]);
    return () => h(CommandField);
  },
});
const ctrlK = async (more: KeyboardEventInit = {}): Promise<void> => {
  window.dispatchEvent(new KeyboardEvent('keydown', { key: 'k', ctrlKey: true, bubbles: true, cancelable: true, ...more }));
  await flushPromises();
};
let page: Awaited<ReturnType<typeof mounted>>;
const open = async (): Promise<void> => {
  Element.prototype.scrollIntoView = () => {};
  page = await mounted(View);
  await ctrlK();
};
const names = (): string[] => page.wrapper.findAll('[role="option"] .name').map((one) => one.text());
const chosen = (): string => page.wrapper.get('[aria-selected="true"] .name').text();
afterEach(() => {
  page.wrapper.unmount();
  ran.mockClear();
});

describe('the field of commands', () => {
  test('finds what can be done now by some of its letters, and does it', async () => {
    await open();
    expect(names()).toEqual(expect.arrayContaining(['heat the oven', 'open the oven']));
    expect(names()).not.toContain('heat the hall');
    await page.wrapper.get('input').setValue('heat');
    expect(names()).toEqual(['heat the oven']);
    await page.wrapper.get('input').trigger('keydown', { key: 'Enter' });
    await flushPromises();
    expect(ran.mock.calls).toEqual([['heat']]);
    expect(page.wrapper.find('input').exists()).toBe(false);
  });

  test('goes up and down and round, and begins anew with other letters', async () => {
    await open();
    await page.wrapper.get('input').setValue('oven');
    const first = chosen();
    await page.wrapper.get('input').trigger('keydown', { key: 'ArrowUp' });
    expect(chosen()).not.toBe(first);
    await page.wrapper.get('input').trigger('keydown', { key: 'ArrowDown' });
    expect(chosen()).toBe(first);
    expect(page.wrapper.get('input').attributes('aria-activedescendant')).toBe(page.wrapper.get('[aria-selected="true"]').attributes('id'));
  });

  test('that finds nothing says so, and Enter does nothing', async () => {
    await open();
    await page.wrapper.get('input').setValue('zzz');
    expect(page.wrapper.get('[role="status"]').text()).toContain('Nothing of that name can be done here.');
    await page.wrapper.get('input').trigger('keydown', { key: 'Enter' });
    await flushPromises();
    expect(ran).not.toHaveBeenCalled();
    expect(page.wrapper.find('input').exists()).toBe(true);
  });

  test('opens by its own key alone', async () => {
    page = await mounted(View);
    await ctrlK({ altKey: true });
    await ctrlK({ ctrlKey: false });
    expect(page.wrapper.find('input').exists()).toBe(false);
    await ctrlK({ ctrlKey: false, metaKey: true });
    expect(page.wrapper.find('input').exists()).toBe(true);
  });
});
