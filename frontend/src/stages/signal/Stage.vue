<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { computed, onUnmounted, reactive, shallowRef, watch, type ComputedRef } from 'vue'
import Choices from '@/controls/Choices.vue'
import Choice from '@/controls/Choice.vue'
import type { Point, View } from '@/api/types'
import { useAgainst } from '@/answers/useAgainst'
import { useSpot } from '@/answers/useSpot'
import { useWalk, walkToShow } from '@/answers/useWalk'
import { useDesign } from '@/document/store'
import RayLayer from '@/sheet/RayLayer.vue'
import SheetStage from '@/sheet/SheetStage.vue'
import { DRAWERS, type Drawer } from './drawers'
import { provideLooking } from './looking'
import RayBand from './RayBand.vue'

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

const drawer = shallowRef<Drawer | null>(null)
const { options: others } = useAgainst(() => wanted.show === 'difference')
const { at, spot, ray, device } = useSpot(() => floor.value, () => wanted.band)
const way = useWalk(() => wanted.band, () => drawer.value?.id === 'walk')
/** A failure that takes access points is seen as what it takes from the level. */
const gone = computed(() => looking.failure.value?.gone.join(',') ?? '')
const view: ComputedRef<Omit<View, 'floor'>> = computed(() =>
  gone.value ? { ...wanted, show: 'difference', against: `without:${gone.value}`, quick: false } : { ...wanted, quick: false },
)
const looking = provideLooking(floor, view, way)
const { failure } = looking
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

if (walkToShow.value) {
  drawer.value = DRAWERS.find((d) => d.id === 'walk') ?? null
  floor.value = way.follow(walkToShow.value) ?? floor.value
  walkToShow.value = ''
}

function open(next: Drawer | null): void {
  drawer.value = drawer.value === next ? null : next
  failure.value = null
  at.value = null
  way.drawing.value = false
  drawer.value?.opened?.(looking)
}
/** A press is what lies under the sheet makes of it, else it asks why it is so loud there. */
function pressed(spot: Point): void {
  if (drawer.value?.press?.(spot, looking)) return
  drawer.value = null
  failure.value = null
  at.value = spot
}
const deaf = computed(() => drawer.value?.deaf?.(looking) ?? '')
/** What a proposal moves or takes away is named where it goes to. */
const leaving = computed(() => new Set((looking.proposed.value ?? []).filter((m) => m.what !== 'stays').map((m) => m.device)))
useEventListener('keydown', (event) => event.key === 'Escape' && (at.value = null))
</script>

<template>
  <SheetStage v-model:floor="floor" mode="signal" :today="wanted.when === 'today'" :tones="failure?.rooms ?? null" :against="said" :leaving="leaving" :deaf="deaf" @spot="pressed">
    <template #layers="drawn">
      <RayLayer v-if="spot && spot.floor === floor" :spot="spot" :ray="ray" :viewport="drawn.viewport" />
      <component :is="drawer.layer" v-if="drawer?.layer" v-bind="drawn" />
    </template>
    <template #bar>
      <Choices v-model="wanted.band" :options="BANDS" aria-label="Band" />
      <Choice v-model="wanted.show" :options="SHOWN" aria-label="What the relief shows" class="shown" />
      <Choice v-if="ranked" v-model="wanted.rank" :options="RANKS" aria-label="Primary, secondary or third access point" class="rank" />
      <Choice v-model="wanted.direction" :options="WAYS" aria-label="Direction" class="way" />
      <Choice v-if="wanted.show === 'difference'" v-model="wanted.against" :options="others" aria-label="Beside what the plan is laid" placeholder="No other plan yet" class="against" />
      <Choices v-if="hasToday" v-model="wanted.when" :options="WHEN" aria-label="As planned or as it is today" />
    </template>
    <template #below>
      <component :is="drawer.band" v-if="drawer" @close="open(null)" />
      <RayBand v-else-if="spot" :spot="spot" :ray="ray" @choose="device = $event" @close="at = null" />
      <div class="drawers" role="group" aria-label="Under the sheet">
        <button v-for="d in DRAWERS" :key="d.id" class="plain drawer" :aria-pressed="drawer === d" :aria-label="d.what" :title="d.what" @click="open(d)">{{ d.label }}</button>
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
