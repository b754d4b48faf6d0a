import { defineAsyncComponent } from 'vue'
import type { StageInfo } from '../registry'

export default {
  id: 'order', name: 'Order', order: 70, icon: 'M4 5h3l2 11h9l2-8H8M10 20h.01M17 20h.01',
  component: defineAsyncComponent(() => import('./Stage.vue')), selects: [], wide: true,
  says: (p) => ({ text: p.over_budget ? 'over budget' : 'settled', tone: p.over_budget ? 'bad' : 'good' }),
  begun: (store) => store.all('device').some((d) => d.state === 'new'),
} satisfies StageInfo
