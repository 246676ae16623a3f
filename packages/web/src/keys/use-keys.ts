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

/** A key that leads to a place was pressed: the next one names it, and is no command of a view. Until then, in milliseconds. */
let ledUntil = 0;
const LED_FOR = 1500;
/** Takes the next key away from the views for a moment. */
export function lead(): void {
  ledUntil = Date.now() + LED_FOR;
}
/** Whether a key may name a place; the one behind it is the views’ again, once all have seen this one. */
export function isLed(): boolean {
  const seen = ledUntil;
  if (Date.now() >= seen) return false;
  // a busy page sees the next key before this comes
  window.setTimeout(() => {
    if (ledUntil === seen) ledUntil = 0;
  });
  return true;
}

/**
 * Single-key commands of a view; keys with modifiers are left to the browser.
 *
 * @param places they name places, after the key that leads to one
 */
export function useKeys(commands: Record<string, (event: KeyboardEvent) => void>, places = false): void {
  onKeyStroke(Object.keys(commands), (event) => {
    if (!places && isLed()) return;
    if (event.ctrlKey || event.metaKey || event.altKey || typing(event) || presses(event)) return;
    event.preventDefault();
    commands[event.key]!(event);
  });
}
