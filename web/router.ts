import { createRouter, createWebHistory } from 'vue-router';
import AlphaBench from './places/AlphaBench.vue';
import BrushBench from './places/BrushBench.vue';
import LetteringBench from './places/LetteringBench.vue';
import LineagePlace from './places/LineagePlace.vue';
import NowherePlace from './places/NowherePlace.vue';
import PartBench from './places/PartBench.vue';
import PatternBench from './places/PatternBench.vue';
import ProofPlace from './places/ProofPlace.vue';
import RackPlace from './places/RackPlace.vue';
import ScanBench from './places/ScanBench.vue';
import SheetBench from './places/SheetBench.vue';
import SlabBench from './places/SlabBench.vue';
import SourcesPlace from './places/SourcesPlace.vue';

// All places come with the page, so that none is out of reach while the server is away.

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'rack', component: RackPlace },
    { path: '/sources', name: 'sources', component: SourcesPlace },
    { path: '/bench/slab/:id', name: 'slab', component: SlabBench, props: true },
    { path: '/bench/sheet/:id', name: 'sheet', component: SheetBench, props: true },
    { path: '/bench/scan/:id', name: 'scan', component: ScanBench, props: true },
    { path: '/bench/lettering/:id', name: 'lettering', component: LetteringBench, props: true },
    { path: '/bench/pattern/:id', name: 'pattern', component: PatternBench, props: true },
    { path: '/bench/part/:id', name: 'part', component: PartBench, props: true },
    { path: '/bench/alpha/:id', name: 'alpha', component: AlphaBench, props: true },
    {
      path: '/bench/brush/:id',
      name: 'brush',
      component: BrushBench,
      props: ({ params, query }) => ({ id: params['id'], ...(query['add'] ? { add: query['add'] } : {}) }),
    },
    { path: '/lineage/:id', name: 'lineage', component: LineagePlace, props: true },
    { path: '/proof/:id', name: 'proof', component: ProofPlace, props: true },
    { path: '/:rest(.*)*', name: 'nowhere', component: NowherePlace },
  ],
});
