import MeshBand from '../MeshBand.vue'
import BackhaulLayer from '../BackhaulLayer.vue'
import type { Drawer } from './index'

export default {
  id: 'mesh', order: 40, label: 'Mesh', what: 'Mesh: back-haul over the air', band: MeshBand,
  layer: BackhaulLayer,
  press: () => true,
} satisfies Drawer
