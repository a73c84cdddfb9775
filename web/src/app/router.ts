import { createRouter, createWebHistory } from 'vue-router'
import { StartPage } from '@/features/start'
import { PlanPage } from '@/features/plan'

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'start', component: StartPage, meta: { title: 'What is next' } },
    { path: '/plan/:id(\\d+)?', name: 'plan', component: PlanPage, meta: { title: 'Plan' } },
    {
      path: '/steps/:id(\\d+)?',
      name: 'steps',
      component: () => import('@/features/chain').then((m) => m.ChainPage),
      meta: { title: 'Steps' },
    },
    {
      path: '/steps/page',
      name: 'fridge',
      component: () => import('@/features/chain').then((m) => m.FridgePage),
      meta: { title: 'One page' },
    },
    {
      path: '/steps/compare',
      name: 'compare',
      component: () => import('@/features/chain').then((m) => m.ComparePage),
      meta: { title: 'Which of the two' },
    },
    {
      path: '/stove/:id(\\d+)?',
      name: 'stove',
      component: () => import('@/features/stove').then((m) => m.StovePage),
      meta: { title: 'Stove' },
    },
    {
      path: '/log',
      name: 'log',
      component: () => import('@/features/log').then((m) => m.LogPage),
      meta: { title: 'Log' },
    },
    {
      path: '/log/:id(\\d+)',
      name: 'cook',
      component: () => import('@/features/log').then((m) => m.CookPage),
      meta: { title: 'One cook' },
    },
    {
      path: '/sauces',
      name: 'sauces',
      component: () => import('@/features/sauces').then((m) => m.SaucesPage),
      meta: { title: 'Sauces' },
    },
    {
      path: '/kitchen',
      name: 'kitchen',
      component: () => import('@/features/kitchen').then((m) => m.KitchenPage),
      meta: { title: 'Kitchen' },
    },
    {
      path: '/:rest(.*)*',
      name: 'lost',
      component: () => import('./LostPage.vue'),
      meta: { title: 'Nothing here' },
    },
  ],
})
