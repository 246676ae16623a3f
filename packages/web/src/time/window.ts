import { computed } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { useSummary } from '../stores/summary.ts';
import { useScope } from './scope.ts';

export const PRESETS = [
  { name: 'all', label: 'All time' },
  { name: 'day', label: 'Last day' },
  { name: '6h', label: 'Last 6 hours' },
  { name: 'hour', label: 'Last hour' },
  { name: '15min', label: 'Last 15 minutes' },
  { name: 'week', label: 'Last 7 days' },
] as const;
const LENGTH: Record<string, number> = { '6h': 6 * 3_600_000, hour: 3_600_000, '15min': 900_000, week: 7 * 86_400_000 };

/** In milliseconds. */
const RUNS_ON = 3 * 3_600_000;

/**
 * The time window, kept in the address as `w`: a preset, or two exact times with `~` between them.
 * Presets reach back from the end of the evidence, so that an imported past opens on its last day, and no further than to its begin: ten minutes are not shown as a day.
 */
export function useWindow() {
  const route = useRoute();
  const router = useRouter();
  const store = useSummary();
  const { span } = useScope();
  const text = computed(() => (typeof route.query.w === 'string' ? route.query.w : 'day'));
  const bounds = computed<{ from: string | undefined; to: string | undefined }>(() => {
    if (text.value.includes('~')) {
      const [from, to] = text.value.split('~');
      // a window that is turned round is meant the other way
      const turned = Date.parse(from!) > Date.parse(to!);
      if (!Number.isNaN(Date.parse(from!)) && !Number.isNaN(Date.parse(to!))) return turned ? { from: to, to: from } : { from, to };
    }
    const end = span.value.to;
    if (text.value === 'all' || !end) return { from: undefined, to: undefined };
    const last = new Date(Date.parse(end) + 1);
    // what only runs on for a while after midnight is still the day before
    const belongs = new Date(last.getTime() - RUNS_ON);
    const begin =
      text.value in LENGTH ? new Date(last.getTime() - LENGTH[text.value]!) : new Date(belongs.getFullYear(), belongs.getMonth(), belongs.getDate());
    const first = span.value.from === null ? begin : new Date(Date.parse(span.value.from));
    return { from: (first > begin && first < last ? first : begin).toISOString(), to: last.toISOString() };
  });
  const set = (next: string): void => void router.push({ query: { ...route.query, w: next === 'day' ? undefined : next } });
  return { text, bounds, set, ready: computed(() => store.summary !== null) };
}
