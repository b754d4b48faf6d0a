<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, useTemplateRef, watch } from 'vue'
import { useDesign } from '@/document/store'
import { hasAir } from '@/document/kinds'
import GroundLayer from './GroundLayer.vue'
import MarksLayer from './MarksLayer.vue'
import RunsLayer from './RunsLayer.vue'
import WallsLayer from './WallsLayer.vue'
import { placeNames } from './names'
import { spreadOn } from './spreadOn'
import { useViewport } from './useViewport'

/** The piece of a storey about one thing, to be read where it is at hand; it needs no connection. */
const props = defineProps<{ floor: string; kind: string; element: string }>()
const store = useDesign()
const frame = useTemplateRef<HTMLElement>('frame')
const { width } = useElementSize(frame)
const viewport = useViewport()
const HIGH_PX = 240
const ABOUT_M = 5

const here = <T extends { floor: string }>(rows: T[]) => rows.filter((r) => r.floor === props.floor)
const spaces = computed(() => here(store.all('space')))
const walls = computed(() => here(store.all('wall')))
const openings = computed(() => store.all('opening').filter((o) => walls.value.some((w) => w.id === o.wall)))
const devices = computed(() => here(store.all('device')).filter((d) => d.state === 'new' || d.state === 'keep'))
const rooms = computed(() => here(store.all('equipment_room')))
const element = computed(() => store.find(props.kind as 'device', props.element))
const runs = computed(() => (store.shown?.cable.runs ?? []).filter((r) => r.device === props.element))
const drawn = computed(() => spreadOn(store.catalogue, rooms.value, devices.value, [], viewport, props.element))
const names = computed(() => {
  const marks = [...rooms.value, ...devices.value].map((m) => {
    const { x, y } = drawn.value.get(m.id)!
    return { key: m.id, name: m.name, x, y, must: m.id === props.element || ('kind' in m && hasAir(store.catalogue, m)) }
  })
  return placeNames(spaces.value, marks, viewport, [], 0)
})

watch([width, element], ([wide]) => {
  viewport.width.value = wide
  viewport.height.value = HIGH_PX
  const at = element.value && 'at' in element.value ? element.value.at : null
  const points = at ? [at] : walls.value.flatMap((w) => [w.a, w.b])
  if (!wide || !points.length) return
  const xs = points.map((p) => p[0])
  const ys = points.map((p) => p[1])
  const about = at ? ABOUT_M : 0
  viewport.fit([Math.min(...xs) - about * 1.6, Math.min(...ys) - about, Math.max(...xs) + about * 1.6, Math.max(...ys) + about])
}, { immediate: true })
</script>

<template>
  <div ref="frame" class="excerpt">
    <svg :width="width" :height="HIGH_PX" role="img" :aria-label="`Where it is: ${element && 'name' in element ? element.name : 'the storey'}`">
      <GroundLayer :spaces="spaces" :viewport="viewport" :chosen="null" :verdicts="new Map()" :names="names.rooms" :plain="false" />
      <WallsLayer :walls="walls" :openings="openings" :viewport="viewport" :chosen="null" :active="false" />
      <RunsLayer :runs="runs" :uplinks="[]" :room="null" :ducts="[]" :floor="floor" :chosen="element?.id ?? null" :viewport="viewport" />
      <MarksLayer :devices="devices" :rooms="rooms" :risers="[]" :chosen="element?.id ?? null" :names="names.marks" :drawn="drawn" />
    </svg>
  </div>
</template>

<style scoped>
.excerpt {
  border: 1px solid var(--granite-light);
  background: var(--paper);
  height: 240px;
  overflow: hidden;
  margin: 6px 0;
}
svg {
  display: block;
  pointer-events: none;
}
</style>
