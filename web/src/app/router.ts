import { createRouter, createWebHistory } from 'vue-router'
import { StartPage } from '@/features/start'

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'start', component: StartPage, meta: { title: 'What is next' } },
    {
      path: '/plan/:id(\\d+)?',
      name: 'plan',
      component: () => import('@/features/plan/pages').then((m) => m.PlanPage),
      meta: { title: 'Plan' },
    },
    {
      path: '/plan/page',
      name: 'fridge',
      component: () => import('@/features/plan/pages').then((m) => m.FridgePage),
      meta: { title: 'One page' },
    },
    {
      path: '/plan/compare',
      name: 'compare',
      component: () => import('@/features/plan/pages').then((m) => m.ComparePage),
      meta: { title: 'Which of the two' },
    },
    // What earlier versions called the room.
    { path: '/steps/:rest(.*)*', redirect: (to) => to.path.replace('/steps', '/plan') },
    {
      path: '/stove/:id(\\d+)?',
      name: 'stove',
      component: () => import('@/features/stove').then((m) => m.StovePage),
      meta: { title: 'Stove' },
    },
    {
      path: '/meal/:id(\\d+)?',
      name: 'meal',
      component: () => import('@/features/meal').then((m) => m.MealPage),
      meta: { title: 'Meal' },
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
