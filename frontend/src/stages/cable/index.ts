import { defineAsyncComponent } from 'vue'
import type { StageInfo } from '../registry'

export default {
  id: 'cable', name: 'Cable', order: 40, icon: 'M4 18h5V9h6v6h5',
  component: defineAsyncComponent(() => import('./Stage.vue')), list: defineAsyncComponent(() => import('./List.vue')),
  begun: (store) => store.all('equipment_room').length > 0,
} satisfies StageInfo
