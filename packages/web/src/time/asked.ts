import { computed } from 'vue';
import { ZONE } from './format.ts';
import { useScope } from './scope.ts';
import { useWindow } from './window.ts';

/** The window and the environments that are looked at, with a begin and an end; null as long as they are not known. */
export function useAsked() {
  const view = useWindow();
  const scope = useScope();
  return computed(() => {
    const { from, to } = view.bounds.value;
    const { span } = scope;
    // all time is from the first record to the last
    const [begin, end] = [from ?? span.value.from, to ?? (span.value.to === null ? null : new Date(Date.parse(span.value.to) + 1).toISOString())];
    if (!view.ready.value || !begin || !end || scope.chosen.value.length === 0) return null;
    return { from: begin, to: end, environment: scope.chosen.value.join(','), zone: ZONE };
  });
}
