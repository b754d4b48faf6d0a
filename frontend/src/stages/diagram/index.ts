import { defineAsyncComponent } from 'vue'
import type { StageInfo } from '../registry'

export default {
  id: 'diagram', name: 'Diagram', order: 55, icon: 'M3 10h5v4H3zM16 4h5v4h-5zM16 16h5v4h-5zM8 12h4M12 6v12M12 6h4M12 18h4',
  component: defineAsyncComponent(() => import('./DiagramStage.vue')),
  list: defineAsyncComponent(() => import('./DiagramList.vue')), selects: ['device', 'switch'],
  begun: (store) => store.all('switch').length + store.all('device').length > 0,
  says: () => ({ text: 'derived', tone: 'idle' }),
} satisfies StageInfo
