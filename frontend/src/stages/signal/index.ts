import { defineAsyncComponent } from 'vue'
import { hasAir } from '@/document/kinds'
import type { StageInfo } from '../registry'

export default {
  id: 'signal', name: 'Signal', order: 30,
  icon: 'M4 16c4 0 5-4 8-4s4 4 8 4M7 12c2 0 3-4 5-4s3 4 5 4M11 6l1-2 1 2z',
  component: defineAsyncComponent(() => import('./Stage.vue')), list: defineAsyncComponent(() => import('./List.vue')),
  begun: (store) => store.all('device').some((d) => hasAir(store.catalogue, d)),
} satisfies StageInfo
