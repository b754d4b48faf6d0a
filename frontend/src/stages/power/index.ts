import { defineAsyncComponent } from 'vue'
import type { StageInfo } from '../registry'

export default {
  id: 'power', name: 'Power', order: 50, icon: 'M13 3L6 13h5l-1 8 8-11h-6z',
  component: defineAsyncComponent(() => import('./PowerStage.vue')), selects: ['device'],
  begun: (store) => store.all('switch').length > 0,
} satisfies StageInfo
