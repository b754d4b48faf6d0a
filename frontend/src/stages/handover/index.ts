import { defineAsyncComponent } from 'vue'
import type { StageInfo } from '../registry'

export default {
  id: 'handover', name: 'Handover', order: 90, icon: 'M4 13l5 4 4-2 7-7M3 9l5-4 4 3 5-2 4 3M3 9v9M21 9v9',
  component: defineAsyncComponent(() => import('./Stage.vue')), wide: true,
  begun: (store) => store.all('device').some((d) => d.state === 'new'),
  says: (p) =>
    p.handed_over === null ? { text: `${p.still_open} open`, tone: p.still_open ? 'near' : 'good' } : { text: p.signed ? 'received' : 'handed over', tone: 'good' },
} satisfies StageInfo
