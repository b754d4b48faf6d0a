import { createRouter, createWebHistory } from 'vue-router'
import StartPage from './shell/StartPage.vue'
import Workbench from './shell/Workbench.vue'
import { STAGES } from './stages/registry'

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', component: StartPage },
    { path: `/p/:id/:stage(${STAGES.map((s) => s.id).join('|')})`, component: Workbench, name: 'stage' },
    { path: '/:rest(.*)*', redirect: '/' },
  ],
})
