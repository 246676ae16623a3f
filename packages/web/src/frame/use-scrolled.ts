import { useEventListener } from '@vueuse/core';
import { ref, type Ref } from 'vue';

/** How far an element is scrolled, in pixels: told as it happens, without asking the browser for any style of it. */
export function useScrolled(of: Readonly<Ref<HTMLElement | null>>): { top: Ref<number>; left: Ref<number> } {
  const [top, left] = [ref(0), ref(0)];
  useEventListener(of, 'scroll', () => ([top.value, left.value] = [of.value!.scrollTop, of.value!.scrollLeft]), { passive: true });
  return { top, left };
}
