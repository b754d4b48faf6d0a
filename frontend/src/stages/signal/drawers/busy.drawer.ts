import BusyBand from '../BusyBand.vue'
import type { Drawer } from './index'

export default {
  id: 'busy', order: 30, label: 'Busy hour', what: 'Busy hour of the site', band: BusyBand,
  press: () => true,
} satisfies Drawer
