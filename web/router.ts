import { createRouter, createWebHistory } from 'vue-router';
import RackPlace from './places/RackPlace.vue';

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'rack', component: RackPlace },
    { path: '/sources', name: 'sources', component: () => import('./places/SourcesPlace.vue') },
    { path: '/bench/slab/:id', name: 'slab', component: () => import('./places/SlabBench.vue'), props: true },
    { path: '/bench/brush/:id', name: 'brush', component: () => import('./places/BrushBench.vue'), props: true },
    { path: '/proof/:id', name: 'proof', component: () => import('./places/ProofPlace.vue'), props: true },
    { path: '/:rest(.*)*', name: 'nowhere', component: () => import('./places/NowherePlace.vue') },
  ],
});
