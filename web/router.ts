import { createRouter, createWebHistory } from 'vue-router';
import NowherePlace from './places/NowherePlace.vue';
import { failNotice } from './controls/undoNotice';
import RackPlace from './places/RackPlace.vue';

// Places are fetched when they are first wanted; the browser keeps them all, so that none is out of reach while the
// server is away.

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'rack', component: RackPlace },
    { path: '/sources', name: 'sources', component: () => import('./places/SourcesPlace.vue') },
    { path: '/bench', name: 'bench', component: () => import('./places/BenchPlace.vue') },
    { path: '/bench/slab/:id', name: 'slab', component: () => import('./places/SlabBench.vue'), props: true },
    { path: '/bench/sheet/:id', name: 'sheet', component: () => import('./places/SheetBench.vue'), props: true },
    { path: '/bench/scan/:id', name: 'scan', component: () => import('./places/ScanBench.vue'), props: true },
    {
      path: '/bench/lettering/:id',
      name: 'lettering',
      component: () => import('./places/LetteringBench.vue'),
      props: true,
    },
    { path: '/bench/pattern/:id', name: 'pattern', component: () => import('./places/PatternBench.vue'), props: true },
    { path: '/bench/part/:id', name: 'part', component: () => import('./places/PartBench.vue'), props: true },
    { path: '/bench/alpha/:id', name: 'alpha', component: () => import('./places/AlphaBench.vue'), props: true },
    {
      path: '/bench/brush/:id',
      name: 'brush',
      component: () => import('./places/BrushBench.vue'),
      props: ({ params, query }) => ({ id: params['id'], ...(query['add'] ? { add: query['add'] } : {}) }),
    },
    { path: '/lineage/:id', name: 'lineage', component: () => import('./places/LineagePlace.vue'), props: true },
    { path: '/proof/:id', name: 'proof', component: () => import('./places/ProofPlace.vue'), props: true },
    { path: '/settings', name: 'settings', component: () => import('./places/SettingsPlace.vue') },
    { path: '/:rest(.*)*', name: 'nowhere', component: NowherePlace },
  ],
});

// A place that was never opened, in a browser that hasn’t kept the page yet.
router.onError(() => failNotice('This place can’t be fetched now: the server is away. Try again once it is back.'));
