import ChannelsBand from '../ChannelsBand.vue'
import ScannedLayer from '../ScannedLayer.vue'
import { scan } from '../scan'
import type { Drawer } from './index'

export default {
  id: 'channels', order: 20, label: 'Channels', what: 'Channels', band: ChannelsBand,
  layer: ScannedLayer,
  press: scan,
} satisfies Drawer
