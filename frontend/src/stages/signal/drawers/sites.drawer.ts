import SitesBand from '../SitesBand.vue'
import PlacesLayer from '../PlacesLayer.vue'
import type { Drawer } from './index'

export default {
  id: 'sites', order: 10, label: 'Places', what: 'Search for places', band: SitesBand,
  layer: PlacesLayer,
  press: () => true, // what is worked on is not left by a press beside it
  deaf: ({ proposed }) => (proposed.value ? 'levels' : ''),
} satisfies Drawer
