import { flushPromises, mount, type VueWrapper } from '@vue/test-utils';
import { createPinia, setActivePinia } from 'pinia';
import { defineComponent, h, type Component } from 'vue';
import { VDialog } from './dialog.ts';
import { createMemoryHistory, createRouter, type Router } from 'vue-router';

interface Around {
  props?: Record<string, unknown>;
  address?: string;
  /** What stores hold before it is there. */
  before?(): void;
}
const NAMES = ['rounds', 'find', 'strands', 'faults', 'sources', 'calls', 'jobs'];

const VBtn = defineComponent({
  setup:
    (_, { slots }) =>
    () =>
      h('button', slots.default?.()),
});

/** A component as it stands in the page, at an address; parts of Vuetify stand for themselves as plain elements. */
export async function mounted(
  component: Component,
  { props = {}, address = '/', before }: Around = {},
): Promise<{ wrapper: VueWrapper; router: Router }> {
  // prettier-ignore
  const part = { template: '' };
  const router = createRouter({
    history: createMemoryHistory(),
    routes: [
      { path: '/', name: 'begin', component: part },
      { path: '/strands/:id', name: 'strand', component: part },
      ...NAMES.map((name) => ({ path: `/${name}`, name, component: part })),
    ],
  });
  const pinia = createPinia();
  setActivePinia(pinia);
  before?.();
  await router.push(address);
  const wrapper = mount(component, {
    props,
    global: { plugins: [pinia, router], stubs: { VBtn, VDialog } },
  }) as unknown as VueWrapper;
  await flushPromises();
  return { wrapper, router };
}
