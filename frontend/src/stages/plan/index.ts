import { defineAsyncComponent } from 'vue'
import type { StageInfo } from '../registry'

export default {
  id: 'plan', name: 'Plan', order: 20, icon: 'M4 18V6l5-2 6 2 5-2v12l-5 2-6-2z',
  component: defineAsyncComponent(() => import('./Stage.vue')), list: defineAsyncComponent(() => import('./List.vue')), overview: true,
  begun: (store) => store.all('wall').length + store.all('space').length > 0,
} satisfies StageInfo
