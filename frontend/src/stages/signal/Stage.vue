<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import Select from 'primevue/select'
import SelectButton from 'primevue/selectbutton'
import ToggleButton from 'primevue/togglebutton'
import { computed, onUnmounted, reactive, ref, shallowRef, watch } from 'vue'
import type { Point, View } from '@/api/types'
import { useWalk } from '@/answers/useWalk'
import { useSpot } from '@/answers/useSpot'
import { useDesign } from '@/document/store'
import SheetStage from '@/sheet/SheetStage.vue'
import DrillBand from './DrillBand.vue'
import RayBand from './RayBand.vue'
import WalkBand from './WalkBand.vue'

const floor = defineModel<string>('floor', { required: true })
const store = useDesign()
const wanted = reactive({ band: '5' as View['band'], rank: 1, direction: 'weaker' as View['direction'], when: 'planned' as View['when'], show: 'level' as NonNullable<View['show']> })
const BANDS = [{ value: '2.4', label: '2.4 GHz' }, { value: '5', label: '5 GHz' }, { value: '6', label: '6 GHz' }]
const RANKS = [{ value: 1, label: 'First' }, { value: 2, label: 'Second' }, { value: 3, label: 'Third' }]
const SHOWN: { value: NonNullable<View['show']>; label: string }[] = [
  { value: 'level', label: 'Level' }, { value: 'snr', label: 'Over the noise' }, { value: 'rate', label: 'Rate' },
  { value: 'chance', label: 'Chance of a call' }, { value: 'heard', label: 'How many are heard' }, { value: 'serves', label: 'Who serves' },
]
/** How many are heard and who serves have no rank. */
const ranked = computed(() => wanted.show !== 'heard' && wanted.show !== 'serves')
const WHEN = [{ value: 'planned', label: 'Planned' }, { value: 'today', label: 'Today' }]
/** Today can be looked at where any of its gear was noted. */
const hasToday = computed(() => [...store.all('device'), ...store.all('switch')].some((d) => d.state !== 'new'))
const WAYS = [
  { value: 'downlink', label: 'Downlink' },
  { value: 'uplink', label: 'Uplink' },
  { value: 'weaker', label: 'Weaker' },
]

watch(
  () => [floor.value, wanted.band, wanted.rank, wanted.direction, wanted.when, wanted.show, store.id] as const,
  () => store.show(floor.value ? { floor: floor.value, ...wanted } : null),
  { immediate: true },
)
onUnmounted(() => store.show(null))

const { at, spot, ray, device } = useSpot(() => floor.value, () => wanted.band)
const { points, drawing, walk, moment, add } = useWalk(() => wanted.band)
const walking = ref(false)
const walked = computed(() => (walking.value ? { points: points.value, walk: walk.value, moment: moment.value } : null))

/** Rooms that fall in the failure that is looked at. */
const fallen = shallowRef<Map<string, string> | null>(null)
const drilling = ref(false)
function drill(): void {
  drilling.value = !drilling.value
  walking.value = false
  at.value = null
  fallen.value = null
}

function walkThere(): void {
  walking.value = !walking.value
  drilling.value = false
  fallen.value = null
  drawing.value = walking.value && points.value.length < 2
  at.value = null
}
/** A press draws the walk on while it is drawn, else it asks why it is so loud there. */
function pressed(spot: Point): void {
  if (walking.value && drawing.value) add({ floor: floor.value, at: [Number(spot[0].toFixed(2)), Number(spot[1].toFixed(2))] })
  else {
    walking.value = drilling.value = false
    fallen.value = null
    at.value = spot
  }
}
useEventListener('keydown', (event) => event.key === 'Escape' && (at.value = null))
</script>

<template>
  <SheetStage v-model:floor="floor" mode="signal" :today="wanted.when === 'today'" :spot="spot" :ray="ray" :walked="walked" :fallen="fallen" @spot="pressed">
    <template #bar>
      <SelectButton v-model="wanted.band" :options="BANDS" option-label="label" option-value="value" :allow-empty="false" size="small" aria-label="Band" />
      <Select v-model="wanted.show" :options="SHOWN" option-label="label" option-value="value" size="small" aria-label="What the relief shows" class="shown" />
      <Select v-if="ranked" v-model="wanted.rank" :options="RANKS" option-label="label" option-value="value" size="small" aria-label="First, second or third access point" class="rank" />
      <Select v-model="wanted.direction" :options="WAYS" option-label="label" option-value="value" size="small" aria-label="Direction" class="way" />
      <ToggleButton :model-value="walking" on-label="Walk" off-label="Walk" size="small" aria-label="Walk with a call" @update:model-value="walkThere" />
      <ToggleButton :model-value="drilling" on-label="Drill" off-label="Drill" size="small" aria-label="Failure drill" @update:model-value="drill" />
      <SelectButton v-if="hasToday" v-model="wanted.when" :options="WHEN" option-label="label" option-value="value" :allow-empty="false" size="small" aria-label="As planned or as it is today" />
    </template>
    <template #below>
      <WalkBand
        v-if="walking" v-model:moment="moment" :walk="walk" :points="points.length" :drawing="drawing" @draw="drawing = !drawing"
        @clear="points = []; drawing = true" @back="points = points.slice(0, -1)" @close="walking = false" @floor="floor = $event"
      />
      <DrillBand v-else-if="drilling" @fallen="fallen = $event" @floor="floor = $event" @close="drill" />
      <RayBand v-else-if="spot" :spot="spot" :ray="ray" @choose="device = $event" @close="at = null" />
    </template>
  </SheetStage>
</template>

<style scoped>
.shown {
  width: 134px;
}
.rank {
  width: 100px;
}
.way {
  width: 104px;
}
</style>
