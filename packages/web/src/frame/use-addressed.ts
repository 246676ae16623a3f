import { useRoute, useRouter } from 'vue-router';

/** What a view is set to, as it stands in the address: '' for what is not there; what is changed replaces it. */
export function useAddressed() {
  const route = useRoute();
  const router = useRouter();
  const text = (name: string): string => (typeof route.query[name] === 'string' ? (route.query[name] as string) : '');
  const adjust = (change: Record<string, string | undefined>): void => void router.replace({ query: { ...route.query, ...change } });
  return { text, adjust };
}
