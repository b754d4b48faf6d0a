<script lang="ts">
import type { DeviceState, Difference } from '@/api/types'

/** How devices stand when a job is handed over, and what stands elsewhere than was agreed. */
export interface Standing {
  devices: DeviceState[]
  built: Difference[]
}
</script>

<script setup lang="ts">
import { computed } from 'vue'
import type { Device } from '@/api/types'
import { useDesign } from '@/document/store'
import StateBadge from './StateBadge.vue'
import type { Viewport } from './useViewport'

const props = defineProps<{ standing: Standing; devices: Device[]; floor: string; viewport: Viewport }>()
const store = useDesign()
const badges = computed(() => {
  const states = new Map(props.standing.devices.map((d) => [d.device, d]))
  return props.devices.flatMap((d) => {
    const state = states.get(d.id)
    if (!state) return []
    const [x, y] = props.viewport.toScreen(d.at)
    return [{ id: d.id, x: x + 11, y: y - 10, verdict: state.verdict, says: state.says }]
  })
})
const ghosts = computed(() =>
  props.standing.built.flatMap((d) => {
    if (!d.was_at || d.floor !== props.floor) return []
    const [x, y] = props.viewport.toScreen(d.was_at)
    const now = store.find(d.kind as 'device', d.element)
    const to = now && 'at' in now ? props.viewport.toScreen(now.at) : null
    return [{ id: d.element, x, y, to, name: d.name }]
  }),
)
</script>

<template>
  <g class="states">
    <g v-for="g in ghosts" :key="`was-${g.id}`" class="ghost" :data-was="g.id">
      <path v-if="g.to" :d="`M${g.x} ${g.y}L${g.to[0]} ${g.to[1]}`" />
      <path :d="`M${g.x - 6} ${g.y}h12M${g.x} ${g.y - 6}v12`" class="spot" />
      <text v-if="!g.to" :x="g.x" :y="g.y + 17" text-anchor="middle">{{ g.name }}, not built</text>
    </g>
    <g v-for="b in badges" :key="b.id" :transform="`translate(${b.x} ${b.y})`" :data-state="b.verdict" :data-of="b.id">
      <StateBadge :state="b.verdict" />
      <title>{{ b.says }}</title>
    </g>
  </g>
</template>

<style scoped>
.states {
  pointer-events: none;
}
.ghost path {
  fill: none;
  stroke: var(--granite);
  stroke-dasharray: 3 3;
  stroke-width: 1.5;
}
.ghost .spot {
  stroke: var(--heather);
  stroke-dasharray: none;
}
.ghost text {
  font: 400 11px var(--condensed);
  fill: var(--granite);
}
</style>
