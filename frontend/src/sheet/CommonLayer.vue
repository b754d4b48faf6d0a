<script setup lang="ts">
import { computed } from 'vue'
import { common } from './common'
import type { Viewport } from './useViewport'

/** Points that two storeys have in common, in the order they were pressed; those of the other storey paler. */
const props = defineProps<{ floor: string; viewport: Viewport }>()
const points = computed(() => common.value.map((p, k) => ({ spot: props.viewport.toScreen(p.at), number: (k % 2) + 1, other: p.floor !== props.floor })))
</script>

<template>
  <g class="common">
    <g v-for="(p, k) in points" :key="k" :transform="`translate(${p.spot[0]} ${p.spot[1]})`" :class="{ other: p.other }" data-common>
      <path d="M-12 0H12M0 -12V12" /><circle r="8" /><text y="4" text-anchor="middle">{{ p.number }}</text>
    </g>
  </g>
</template>

<style scoped>
.common {
  pointer-events: none;
}
.other {
  opacity: 0.45;
}
path {
  stroke: var(--heather);
}
circle {
  fill: var(--paper);
  stroke: var(--heather);
  stroke-width: 1.5;
}
text {
  font: 600 11px var(--condensed);
  fill: var(--heather);
}
</style>
