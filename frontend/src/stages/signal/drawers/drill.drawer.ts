import DrillBand from '../DrillBand.vue'
import type { Drawer } from './index'

export default {
  id: 'drill', order: 70, label: 'Drill', what: 'Failure drill', band: DrillBand,
} satisfies Drawer
