<script setup lang="ts">
import { computed } from 'vue'
import { linePath } from '@/document/geometry'
import { laneColours } from '@/document/networks'
import { useDesign } from '@/document/store'
import type { Viewport } from './useViewport'

/** Each cable on this storey in the colour of the network at its end, what carries several in ink. */
const props = defineProps<{ floor: string; viewport: Viewport }>()
const store = useDesign()
const lanes = computed(() => laneColours(store.settings?.networks ?? []))
const sheets = computed(() => new Map((store.settings?.ports ?? []).map((p) => [`${p.switch}/${p.port}`, p])))
const SEVERAL = 'var(--ink)'
const colours = computed(() => {
  const found = new Map<string, string>()
  for (const use of store.shown?.power.ports ?? []) {
    const sheet = use.link ? sheets.value.get(`${use.switch}/${use.port}`) : undefined
    const own = sheet && (sheet.tagged_vlans.length ? SEVERAL : lanes.value.get(sheet.untagged_vlan ?? -1))
    if (!own) continue
    const run = use.link!.split('/')[0]! // of several cables of one run each has a number
    found.set(run, (found.get(run) ?? own) === own ? own : SEVERAL)
  }
  return found
})
const paths = computed(() =>
  [...(store.shown?.cable.runs ?? []), ...(store.shown?.cable.uplinks ?? [])].flatMap((link) => {
    const colour = colours.value.get(link.id)
    return colour ? link.legs.filter((leg) => leg.floor === props.floor && leg.points.length > 1 && leg.kind !== 'riser').map((leg) => ({ d: linePath(leg.points), colour })) : []
  }),
)
</script>

<template>
  <g class="lanes" data-layer="lanes" :transform="viewport.transform.value">
    <path v-for="(p, k) in paths" :key="k" :d="p.d" :style="{ stroke: p.colour }" vector-effect="non-scaling-stroke" />
  </g>
</template>

<style scoped>
.lanes {
  pointer-events: none;
}
.lanes path {
  fill: none;
  stroke-width: 3;
  stroke-linejoin: round;
  stroke-linecap: round;
}
</style>
