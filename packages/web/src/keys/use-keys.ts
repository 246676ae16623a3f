import { onKeyStroke } from '@vueuse/core';

/** Whether the key belongs to a field that is being typed into, or to an open dialog or menu. */
export function typing(event: KeyboardEvent): boolean {
  const target = event.target as HTMLElement | null;
  if (!target) return false;
  return (
    target.isContentEditable ||
    ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName) ||
    // one that was just closed may keep the focus for a moment
    (target.closest('[role=dialog],[role=menu],[role=listbox]:not([data-lines])')?.checkVisibility() ?? false)
  );
}

/** Whether Enter or the space bar presses what has the focus. */
const presses = ({ key, target }: KeyboardEvent): boolean =>
  (key === 'Enter' || key === ' ') && target instanceof Element && target.closest('button,a[href],summary') !== null;

/** Single-key commands of a view; keys with modifiers are left to the browser. */
export function useKeys(commands: Record<string, (event: KeyboardEvent) => void>): void {
  onKeyStroke(Object.keys(commands), (event) => {
    if (event.ctrlKey || event.metaKey || event.altKey || typing(event) || presses(event)) return;
    event.preventDefault();
    commands[event.key]!(event);
  });
}
