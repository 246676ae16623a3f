import type { Summary } from '@fadenweg/api';
import { createPinia, setActivePinia } from 'pinia';
import { createApp, effectScope, type EffectScope } from 'vue';
import { createMemoryHistory, createRouter, type Router } from 'vue-router';
import { useSummary } from '../../stores/summary.ts';

export interface PageAt<T> {
  used: T;
  router: Router;
  scope: EffectScope;
  /** The query of the address once what was set going has come to rest. */
  query(): Promise<Record<string, string>>;
}
type Environment = Summary['environments'][number];
export const PRODUCTION: Environment = { name: 'production', demo: false, sources: 2, records: 9, from: '2026-11-23T08:00:00.000Z', to: '2026-11-24T21:59:59.999Z' } as Environment; // prettier-ignore

/** Uses something as a page at an address does, with what is known of what is loaded. */
export async function pageAt<T>(address: string, use: () => T, environments: readonly Environment[] = [PRODUCTION]): Promise<PageAt<T>> {
  const part = { template: '' };
  const router = createRouter({
    history: createMemoryHistory(),
    routes: [
      { path: '/find', name: 'find', component: part },
      { path: '/strands', name: 'strands', component: part },
      { path: '/strand/:id', name: 'strand', component: part },
    ],
  });
  const pinia = createPinia();
  setActivePinia(pinia);
  useSummary().summary = { environments, sources: environments.length, records: 9, imports: [], weaving: null, strands: 1 } as unknown as Summary;
  await router.push(address);
  const app = createApp(part).use(router).use(pinia);
  const scope = effectScope();
  const used = app.runWithContext(() => scope.run(use)!);
  const query = async (): Promise<Record<string, string>> => {
    await new Promise((resolve) => setTimeout(resolve, 0));
    return { ...router.currentRoute.value.query } as Record<string, string>;
  };
  return { used, router, scope, query };
}
