import { createRouter, createWebHistory } from 'vue-router'
import OpenLast from './shell/OpenLast.vue'
import Workbench from './shell/Workbench.vue'

export const STAGES = ['plan', 'signal', 'cable', 'power', 'settings'] as const
export type Stage = (typeof STAGES)[number]

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', component: OpenLast },
    { path: `/p/:id/:stage(${STAGES.join('|')})`, component: Workbench, name: 'stage' },
    { path: '/:rest(.*)*', redirect: '/' },
  ],
})
