import { rounded } from '@/document/geometry'
import WalkBand from '../WalkBand.vue'
import WayLayer from '../WayLayer.vue'
import type { Drawer } from './index'

export default {
  id: 'walk', order: 60, label: 'Walk', what: 'Walk with a call', band: WalkBand,
  layer: WayLayer,
  press: (at, { floor, walk }) => {
    if (!walk.drawing.value) return false
    walk.add({ floor: floor.value, at: rounded(at) })
    return true
  },
  deaf: () => 'all',
  opened: ({ walk }) => (walk.drawing.value = walk.points.value.length < 2),
} satisfies Drawer
