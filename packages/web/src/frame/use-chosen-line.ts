import { computed, nextTick, useTemplateRef, type Ref } from 'vue';
import { useCommands } from '../keys/commands.ts';
import { useAddressed } from './use-addressed.ts';

/**
 * The chosen line of a list beside a sheet, by key too. It stands in the address; the element that holds the lines has the template reference `body`.
 *
 * @param name of the part of the address that holds the line's key
 * @param open what `o` does with it
 * @returns the chosen key, which need not be in the list: the first one's where none is chosen; and the line
 */
export function useChosenLine<T>(items: Ref<readonly T[]>, keyOf: (item: T) => string, name: string, open: (item: T) => void) {
  const { text, adjust } = useAddressed();
  const chosen = computed(() => text(name) || (items.value[0] === undefined ? '' : keyOf(items.value[0])));
  const selected = computed(() => items.value.find((item) => keyOf(item) === chosen.value) ?? items.value[0] ?? null);
  const body = useTemplateRef<HTMLElement>('body');
  function step(by: number): void {
    const at = items.value.findIndex((item) => keyOf(item) === chosen.value);
    const next = items.value[Math.max(0, Math.min(items.value.length - 1, at + by))];
    if (next === undefined) return;
    adjust({ [name]: keyOf(next) });
    void nextTick(() => body.value?.querySelector('[aria-selected=true]')?.scrollIntoView({ block: 'nearest' }));
  }
  useCommands('this list', [
    { name: 'next line', keys: ['j', 'ArrowDown'], run: () => step(1), can: () => items.value.length > 0 },
    { name: 'previous line', keys: ['k', 'ArrowUp'], run: () => step(-1), can: () => items.value.length > 0 },
    {
      name: 'open the line',
      keys: ['o'],
      can: () => selected.value !== null,
      run: () => {
        if (selected.value !== null) open(selected.value);
      },
    },
  ]);
  return { chosen, selected };
}
