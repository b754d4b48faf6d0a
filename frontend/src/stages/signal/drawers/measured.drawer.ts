import MeasuredBand from '../MeasuredBand.vue'
import ScannedLayer from '../ScannedLayer.vue'
import { scan } from '../scan'
import type { Drawer } from './index'

export default {
  id: 'measured', order: 80, label: 'Measured', what: 'Measured against planned', band: MeasuredBand,
  layer: ScannedLayer,
  press: scan,
} satisfies Drawer
