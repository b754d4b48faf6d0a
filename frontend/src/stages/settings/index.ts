import { defineAsyncComponent } from 'vue'
import type { StageInfo } from '../registry'

export default {
  id: 'settings', name: 'Settings', order: 60, icon: 'M5 7h14M5 12h14M5 17h14M9 5v4M15 10v4M8 15v4',
  component: defineAsyncComponent(() => import('./SettingsStage.vue')), selects: ['network', 'wireless_name'],
  begun: (store) => store.all('network').length > 0,
} satisfies StageInfo
