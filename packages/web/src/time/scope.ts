import { computed } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { useSummary } from '../stores/summary.ts';

/**
 * The environments that are looked at, kept in the address as `e`, names with commas between them.
 * Without it all of one's own count, and the made-up demo only where there is nothing else: the two never mix by themselves.
 */
export function useScope() {
  const route = useRoute();
  const router = useRouter();
  const store = useSummary();
  const choices = computed(() => store.summary?.environments ?? []);
  const chosen = computed<string[]>(() => {
    const known = choices.value.map((one) => one.name);
    const asked = typeof route.query.e === 'string' ? route.query.e.split(',').filter((name) => known.includes(name)) : [];
    if (asked.length > 0) return asked;
    const own = choices.value.filter((one) => !one.demo).map((one) => one.name);
    return own.length > 0 ? own : known;
  });
  /** From when to when the chosen environments hold evidence. */
  const span = computed<{ from: string | null; to: string | null }>(() => {
    const own = choices.value.filter((one) => chosen.value.includes(one.name));
    const from = own.flatMap((one) => one.from ?? []).sort()[0] ?? null;
    const to = own.flatMap((one) => one.to ?? []).sort().at(-1) ?? null; // prettier-ignore
    return { from, to };
  });
  const set = (names: readonly string[]): void => void router.push({ query: { ...route.query, e: names.length > 0 ? names.join(',') : undefined } });
  return { choices, chosen, span, set };
}
