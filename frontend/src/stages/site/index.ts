import type { StageInfo } from '../registry'
import SiteStage from './Stage.vue'

export default {
  id: 'site', name: 'Site', order: 10, icon: 'M4 20V10l8-6 8 6v10zM10 20v-6h4v6',
  component: SiteStage, selects: [], overview: true,
  begun: (store) => store.all('floor').length > 0,
} satisfies StageInfo
