import { defineAsyncComponent } from 'vue'
import type { StageInfo } from '../registry'

export default {
  id: 'install', name: 'Install', order: 80, icon: 'M4 6h2v2H4zM9 7h11M4 11h2v2H4zM9 12h11M4 16h2v2H4zM9 17h7',
  component: defineAsyncComponent(() => import('./Stage.vue')), selects: [], wide: true,
  says: (p) => ({ text: p.blocked ? `${p.blocked} blocked` : `${p.done} of ${p.steps}`, tone: p.blocked ? 'bad' : p.steps && p.done === p.steps ? 'good' : 'idle' }),
  begun: (store) => store.all('device').some((d) => d.state === 'new'),
} satisfies StageInfo
