<script setup lang="ts">
import { computed } from 'vue'
import { useBeside } from '@/answers/useBeside'
import { api, taken } from '@/api/client'
import { useDesign } from '@/document/store'
import { speed } from '@/document/units'

/** From the line to a device as links of one chain: as thick as each passes; the one that binds stands out. */
const props = defineProps<{ device?: string; space?: { id: string; name: string } }>()
const store = useDesign()
const { answer: toRoom } = useBeside(
  (project_id) => taken(api.GET('/api/projects/{project_id}/room_chain', { params: { path: { project_id }, query: { space: props.space!.id } } })),
  { wanted: () => !!props.space, about: () => props.space?.id },
)
const chain = computed(() => (props.space ? toRoom.value?.chain : store.shown?.chains.chains.find((c) => c.device === props.device)))
const to = computed(() => props.space?.name ?? chain.value?.name)
const wired = computed(() => store.shown?.cable.runs.some((r) => r.device === props.device && r.verdict !== 'no_way'))
const THINNEST = 3
const THICKEST = 16
/** Thickness by the logarithm: from 10 Mb/s to 10 Gb/s are three decades. */
const thick = (mbps: number) => (mbps > 0 ? Math.min(THICKEST, Math.max(THINNEST, THINNEST + (Math.log10(mbps) - 1) * 4.3)) : 1)
const said = (mbps: number) => (mbps > 0 ? speed(mbps) : 'nothing sure')
const ROW_PX = 26
</script>

<template>
  <section v-if="chain" class="chain" :aria-label="`From the line to ${to}`" data-testid="chain">
    <h3>From the line to {{ to }}</h3>
    <svg :height="chain.links.length * ROW_PX" width="100%" role="list">
      <g v-for="(link, k) in chain.links" :key="k" :transform="`translate(0 ${k * ROW_PX})`" role="listitem" :class="{ binds: k === chain.binds, inside: k === chain.inside && k !== chain.binds }" :data-link="link.kind">
        <path :d="`M12 ${k ? 0 : 6}V${k === chain.links.length - 1 ? ROW_PX - 6 : ROW_PX}`" :stroke-width="thick(link.mbps)" class="pipe" />
        <text x="30" y="17">{{ link.name }}</text>
        <text x="99%" y="17" text-anchor="end" class="figure">{{ said(link.mbps) }}</text>
      </g>
    </svg>
    <p data-figure="chain">{{ chain.says }}</p>
  </section>
  <p v-else-if="space && toRoom" class="quiet" data-testid="no-chain">No access point with a port is heard where it is worst, so nothing can be said of its way to the line.</p>
  <p v-else-if="wired" class="quiet" data-testid="no-chain">It has no port yet, so nothing can be said of its way to the line.</p>
</template>

<style scoped>
.chain {
  margin: 12px 0;
}
h3 {
  font: 600 12px var(--condensed);
  color: var(--granite);
}
.pipe {
  stroke: var(--tarn);
  fill: none;
}
text {
  font: 400 12px var(--condensed);
  fill: var(--ink);
}
text.figure {
  font: 400 12px var(--mono);
}
.binds .pipe {
  stroke: var(--rust);
}
.binds text {
  font-weight: 600;
  fill: var(--rust);
}
.inside .pipe {
  stroke: var(--gorse);
}
p {
  font-size: 12px;
}
</style>
