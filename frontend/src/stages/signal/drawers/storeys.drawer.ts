import StoreysBand from '../StoreysBand.vue'
import type { Drawer } from './index'

export default {
  id: 'storeys', order: 50, label: 'Storeys', what: 'Storeys side by side', band: StoreysBand,
} satisfies Drawer
