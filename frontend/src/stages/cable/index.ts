import type { StageInfo } from '../registry'
import List from './List.vue'
import CableStage from './Stage.vue'

export default {
  id: 'cable', name: 'Cable', order: 40, icon: 'M4 18h5V9h6v6h5',
  component: CableStage, list: List,
  begun: (store) => store.all('equipment_room').length > 0,
} satisfies StageInfo
