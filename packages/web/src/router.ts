import { createRouter, createWebHistory } from 'vue-router';
import RoundsView from './rounds/RoundsView.vue';

/** Every view restores itself from its address alone. */
export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', redirect: '/rounds' },
    { path: '/rounds', name: 'rounds', component: RoundsView, meta: { title: 'Rounds' } },
    { path: '/strands', name: 'strands', component: () => import('./strands/StrandsView.vue'), meta: { title: 'Strands' } },
    { path: '/strands/:id', name: 'strand', component: () => import('./strand/StrandView.vue'), props: true, meta: { title: 'Strand' } },
    { path: '/usual/:name', name: 'usual', component: () => import('./usual/UsualView.vue'), props: true, meta: { title: 'The usual' } },
    { path: '/records/:id', name: 'record', component: () => import('./record/RecordView.vue'), props: true, meta: { title: 'Record' } },
    {
      path: '/sources/:id/original',
      name: 'original',
      component: () => import('./record/OriginalView.vue'),
      props: true,
      meta: { title: 'Original file' },
    },
    { path: '/against', name: 'against', component: () => import('./against/AgainstView.vue'), meta: { title: 'Against everybody' } },
    { path: '/faults', name: 'faults', component: () => import('./faults/FaultsView.vue'), meta: { title: 'Faults' } },
    { path: '/calls', name: 'calls', component: () => import('./calls/CallsView.vue'), meta: { title: 'Calls' } },
    { path: '/data', name: 'data', component: () => import('./data/DataView.vue'), meta: { title: 'What runs touch' } },
    { path: '/jobs', name: 'jobs', component: () => import('./jobs/JobsView.vue'), meta: { title: 'Jobs' } },
    { path: '/shapes', name: 'shapes', component: () => import('./shapes/ShapesView.vue'), meta: { title: 'Shapes' } },
    { path: '/changes', name: 'changes', component: () => import('./changes/ChangesView.vue'), meta: { title: 'Changes' } },
    { path: '/find', name: 'find', component: () => import('./find/FindView.vue'), meta: { title: 'Find' } },
    { path: '/runbooks', name: 'runbooks', component: () => import('./runbooks/RunbooksView.vue'), meta: { title: 'Runbooks' } },
    { path: '/sources', name: 'sources', component: () => import('./sources/SourcesView.vue'), meta: { title: 'Sources' } },
    { path: '/:path(.*)*', name: 'nowhere', component: () => import('./frame/NowhereView.vue'), meta: { title: 'Nothing here' } },
  ],
});
router.afterEach((to) => {
  const what = to.name === 'strand' ? String(to.params.id).replace(/^[^:]*:/, '') : String(to.meta.title ?? '');
  document.title = `${what} · Fadenweg`;
});
