<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import Select from 'primevue/select'
import SelectButton from 'primevue/selectbutton'
import { computed, onUnmounted, reactive, ref, shallowRef, watch } from 'vue'
import type { MeshLink, Point, Residual, View } from '@/api/types'
import { useAgainst } from '@/answers/useAgainst'
import type { BestSoFar, Moved } from '@/answers/useSites'
import { useSpot } from '@/answers/useSpot'
import { useWalk, walkToShow } from '@/answers/useWalk'
import { useDesign } from '@/document/store'
import SheetStage from '@/sheet/SheetStage.vue'
import BusyBand from './BusyBand.vue'
import ChannelsBand from './ChannelsBand.vue'
import DrillBand from './DrillBand.vue'
import MeasuredBand from './MeasuredBand.vue'
import MeshBand from './MeshBand.vue'
import RayBand from './RayBand.vue'
import SitesBand from './SitesBand.vue'
import StoreysBand from './StoreysBand.vue'
import WalkBand from './WalkBand.vue'

const floor = defineModel<string>('floor', { required: true })
const store = useDesign()
type Show = NonNullable<View['show']>
const wanted = reactive({ band: '5' as View['band'], rank: 1, direction: 'weaker' as View['direction'], when: 'planned' as View['when'], show: 'level' as Show, against: '' })
const BANDS = [{ value: '2.4', label: '2.4 GHz' }, { value: '5', label: '5 GHz' }, { value: '6', label: '6 GHz' }]
const RANKS = [{ value: 1, label: 'Primary' }, { value: 2, label: 'Secondary' }, { value: 3, label: 'Third' }]
const SHOWN: { value: Show; label: string }[] = [
  { value: 'level', label: 'Level' }, { value: 'snr', label: 'Over the noise' }, { value: 'rate', label: 'Rate' },
  { value: 'chance', label: 'Chance of a call' }, { value: 'heard', label: 'How many are heard' }, { value: 'serves', label: 'Who serves' },
  { value: 'difference', label: 'Difference' },
]
/** How many are heard and who serves have no rank. */
const ranked = computed(() => wanted.show !== 'heard' && wanted.show !== 'serves')
const WHEN = [{ value: 'planned', label: 'Planned' }, { value: 'today', label: 'Today' }]
/** Today can be looked at where any of its gear was noted. */
const hasToday = computed(() => [...store.all('device'), ...store.all('switch')].some((d) => d.state !== 'new'))
const WAYS = [
  { value: 'downlink', label: 'Downlink' },
  { value: 'uplink', label: 'Uplink' },
  { value: 'weaker', label: 'Both ways' },
]

/** What lies under the sheet: one thing at a time. */
type Drawer = '' | 'sites' | 'channels' | 'busy' | 'mesh' | 'measured' | 'storeys' | 'walk' | 'drill'
const DRAWERS: { id: Drawer; label: string; what: string }[] = [
  { id: 'sites', label: 'Places', what: 'Search for places' },
  { id: 'channels', label: 'Channels', what: 'Channels' },
  { id: 'busy', label: 'Busy hour', what: 'Busy hour of the site' },
  { id: 'mesh', label: 'Mesh', what: 'Mesh: back-haul over the air' },
  { id: 'storeys', label: 'Storeys', what: 'Storeys side by side' },
  { id: 'walk', label: 'Walk', what: 'Walk with a call' },
  { id: 'drill', label: 'Drill', what: 'Failure drill' },
  { id: 'measured', label: 'Measured', what: 'Measured against planned' },
]
const drawer = ref<Drawer>('')
const { options: others } = useAgainst(() => wanted.show === 'difference')
/** Back-haul over the air, while it is looked at. */
const mesh = shallowRef<MeshLink[] | null>(null)
/** What was measured beside the plan, while it is looked at. */
const measured = shallowRef<{ rows: Residual[]; fitted: boolean } | null>(null)
/** Where the air was scanned, on this storey. */
const scanned = shallowRef<Point | null>(null)
watch(floor, () => (scanned.value = null))
/** What a search for places proposes, and its best while it runs. */
const proposed = shallowRef<Moved[] | null>(null)
const best = shallowRef<BestSoFar | null>(null)
/** What a failure that is looked at takes away, and the rooms that fall with it. */
const failure = shallowRef<{ name: string; gone: string[]; rooms: Map<string, string> } | null>(null)
const gone = computed(() => failure.value?.gone.join(',') ?? '')
/** A failure that takes access points is seen as what it takes from the level. */
const view = computed<Omit<View, 'floor'>>(() =>
  gone.value ? { ...wanted, show: 'difference', against: `without:${gone.value}`, quick: false } : { ...wanted, quick: false },
)
const said = computed(() => (failure.value ? `without ${failure.value.name}` : (others.value.find((o) => o.value === wanted.against)?.said ?? '')))
watch(() => [wanted.show, others.value] as const, ([show, list]) => {
  if (show === 'difference' && !list.some((o) => o.value === wanted.against)) wanted.against = list[0]?.value ?? ''
})
const undecided = computed(() => view.value.show === 'difference' && !view.value.against)
watch(
  () => [floor.value, JSON.stringify(view.value), store.id] as const,
  () => store.show(floor.value && !undecided.value ? { floor: floor.value, ...view.value } : null),
  { immediate: true },
)
onUnmounted(() => store.show(null))

const { at, spot, ray, device } = useSpot(() => floor.value, () => wanted.band)
const { drawn, habit, points, drawing, walk, moment, add } = useWalk(() => wanted.band, () => drawer.value === 'walk')
const walked = computed(() => (drawer.value === 'walk' ? { points: points.value, walk: walk.value, moment: moment.value } : null))

/** One of the brief's walks, from where it begins. */
function walkHabit(id: string): void {
  habit.value = id
  drawing.value = false
  moment.value = 0
  const begins = points.value[0]
  if (id && begins) floor.value = begins.floor
}
if (walkToShow.value) {
  drawer.value = 'walk'
  walkHabit(walkToShow.value)
  walkToShow.value = ''
}

function open(next: Drawer): void {
  drawer.value = drawer.value === next ? '' : next
  failure.value = null
  at.value = null
  drawing.value = drawer.value === 'walk' && points.value.length < 2
}
/** A press draws the walk on while it is drawn, else it asks why it is so loud there. */
function pressed(spot: Point): void {
  if (drawer.value === 'walk' && drawing.value) add({ floor: floor.value, at: [Number(spot[0].toFixed(2)), Number(spot[1].toFixed(2))] })
  else if (drawer.value === 'channels' || drawer.value === 'measured') scanned.value = [Number(spot[0].toFixed(2)), Number(spot[1].toFixed(2))]
  else if (drawer.value === 'sites' || drawer.value === 'mesh' || drawer.value === 'busy') return // what is worked on there is not left by a press beside it
  else {
    drawer.value = ''
    failure.value = null
    at.value = spot
  }
}
useEventListener('keydown', (event) => event.key === 'Escape' && (at.value = null))
</script>

<template>
  <SheetStage v-model:floor="floor" mode="signal" :today="wanted.when === 'today'" :spot="spot" :ray="ray" :walked="walked" :fallen="failure?.rooms ?? null" :against="said" :proposed="proposed" :best="best" :mesh="mesh" :measured="measured" :pin="drawer === 'channels' || drawer === 'measured' ? scanned : null" @spot="pressed">
    <template #bar>
      <SelectButton v-model="wanted.band" :options="BANDS" option-label="label" option-value="value" :allow-empty="false" size="small" aria-label="Band" />
      <Select v-model="wanted.show" :options="SHOWN" option-label="label" option-value="value" size="small" aria-label="What the relief shows" class="shown" />
      <Select v-if="ranked" v-model="wanted.rank" :options="RANKS" option-label="label" option-value="value" size="small" aria-label="Primary, secondary or third access point" class="rank" />
      <Select v-model="wanted.direction" :options="WAYS" option-label="label" option-value="value" size="small" aria-label="Direction" class="way" />
      <Select v-if="wanted.show === 'difference'" v-model="wanted.against" :options="others" option-label="label" option-value="value" size="small" aria-label="Beside what the plan is laid" placeholder="No other plan yet" class="against" />
      <SelectButton v-if="hasToday" v-model="wanted.when" :options="WHEN" option-label="label" option-value="value" :allow-empty="false" size="small" aria-label="As planned or as it is today" />
    </template>
    <template #below>
      <WalkBand
        v-if="drawer === 'walk'" v-model:moment="moment" :walk="walk" :points="drawn.length" :drawing="drawing" :habit="habit" @draw="habit = ''; drawing = !drawing"
        @clear="drawn = []; drawing = true" @back="drawn = drawn.slice(0, -1)" @close="drawer = ''" @floor="floor = $event" @habit="walkHabit"
      />
      <DrillBand v-else-if="drawer === 'drill'" :path="drawn" @failure="failure = $event" @floor="floor = $event" @close="open('drill')" />
      <StoreysBand v-else-if="drawer === 'storeys'" :view="view" :floor="floor" @floor="floor = $event" @close="drawer = ''" />
      <SitesBand v-else-if="drawer === 'sites'" @proposed="proposed = $event" @best="best = $event" @close="drawer = ''" />
      <ChannelsBand v-else-if="drawer === 'channels'" :band="wanted.band" :floor="floor" :spot="scanned" @close="drawer = ''" />
      <BusyBand v-else-if="drawer === 'busy'" @floor="floor = $event" @close="drawer = ''" />
      <MeshBand v-else-if="drawer === 'mesh'" @links="mesh = $event" @floor="floor = $event" @close="drawer = ''" />
      <MeasuredBand v-else-if="drawer === 'measured'" :floor="floor" :spot="scanned" @rows="measured = $event" @floor="floor = $event" @close="drawer = ''" />
      <RayBand v-else-if="spot" :spot="spot" :ray="ray" @choose="device = $event" @close="at = null" />
      <div class="drawers" role="group" aria-label="Under the sheet">
        <button v-for="d in DRAWERS" :key="d.id" class="plain drawer" :aria-pressed="drawer === d.id" :aria-label="d.what" :title="d.what" @click="open(d.id)">{{ d.label }}</button>
        <span v-if="!drawer && !spot" class="quiet">Press a spot on the sheet to see why it is so loud there.</span>
      </div>
    </template>
  </SheetStage>
</template>

<style scoped>
.shown {
  width: 126px;
}
.against {
  width: 190px;
}
.drawers {
  flex: none;
  display: flex;
  align-items: stretch;
  gap: 2px;
  height: 30px;
  padding: 0 8px;
  border-top: 1px solid var(--granite-light);
  background: var(--paper);
  overflow-x: auto;
}
.drawers .quiet {
  align-self: center;
  margin-left: auto;
  white-space: nowrap;
}
@media (max-width: 1000px) {
  .drawers .quiet {
    display: none;
  }
  .drawer {
    flex: none;
    min-height: 44px;
    padding: 0 10px;
  }
  .drawers {
    height: 45px;
  }
}
.drawer {
  padding: 0 12px;
  font: 600 12.5px var(--condensed);
  color: var(--granite);
  border-bottom: 3px solid transparent;
}
.drawer:hover {
  color: var(--ink);
}
.drawer[aria-pressed='true'] {
  color: var(--heather);
  border-bottom-color: var(--heather);
}
.rank {
  width: 102px;
}
.way {
  width: 108px;
}
.shown :deep(.p-select-dropdown),
.rank :deep(.p-select-dropdown),
.way :deep(.p-select-dropdown) {
  width: 26px;
}
</style>
