import { createRouter, createWebHistory } from 'vue-router'

import RackView from './rack/RackView.vue'

export const router = createRouter({
  history: createWebHistory('/'),
  routes: [
    { path: '/', name: 'rack', component: RackView },
    {
      path: '/piece/:id/:station(stance|top|boring|legs|stretchers|level|glueup|finish|work|class|log|wood|paper)?',
      name: 'piece',
      component: () => import('./piece/PieceView.vue'),
      props: true,
    },
    {
      path: '/piece/:id/bench/:which?',
      name: 'bench',
      component: () => import('./build/BenchView.vue'),
      props: true,
    },
    { path: '/log', name: 'log', component: () => import('./build/WholeLogView.vue') },
    { path: '/timber', name: 'timber', component: () => import('./timber/TimberView.vue') },
    { path: '/time', name: 'time', component: () => import('./build/TimeView.vue') },
    { path: '/quick', name: 'quick', component: () => import('./quick/QuickView.vue') },
    {
      path: '/rehearsal',
      name: 'rehearsal',
      component: () => import('./rehearsal/RehearsalView.vue'),
    },
    { path: '/shop', name: 'shop', component: () => import('./shop/ShopView.vue') },
    { path: '/makers', name: 'makers', component: () => import('./session/MakersView.vue') },
    { path: '/:rest(.*)', redirect: '/' },
  ],
})
