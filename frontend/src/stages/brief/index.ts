import { defineAsyncComponent } from 'vue'
import type { StageInfo } from '../registry'

export default {
  id: 'brief', name: 'Brief', order: 10, icon: 'M5 3h10l4 4v14H5zM15 3v4h4M8 12h8M8 16h5',
  component: defineAsyncComponent(() => import('./Stage.vue')), list: defineAsyncComponent(() => import('./List.vue')),
  begun: (store) => store.all('floor').length > 0,
} satisfies StageInfo
