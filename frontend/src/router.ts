import { createRouter, createWebHistory } from 'vue-router'
import { STAGES } from './stages/registry'

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', component: () => import('./shell/StartPage.vue') },
    { path: `/p/:id/:stage(${STAGES.map((s) => s.id).join('|')})`, component: () => import('./shell/Workbench.vue'), name: 'stage' },
    { path: '/:rest(.*)*', redirect: '/' },
  ],
})
