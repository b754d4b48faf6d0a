<script setup lang="ts">
import { computed } from 'vue'
import { MARKS } from '@/api/drawing'

/** One of the sheet's own marks, drawn as on paper. */
const props = defineProps<{ shape: string; turn?: number | null }>()
const mark = computed(() => MARKS[props.shape])
const strokes = computed(() => (mark.value?.strokes ?? []).filter((s) => s.as !== 'aim' || (props.turn !== null && props.turn !== undefined)))
const turned = (as: string) => (as === 'aim' || mark.value?.turns ? `rotate(${props.turn ?? 0})` : undefined)
</script>

<template>
  <g class="shape">
    <path v-for="(s, i) in strokes" :key="i" :d="s.d" :class="s.as" :transform="turned(s.as)" />
  </g>
</template>

<style scoped>
.body {
  fill: var(--paper);
  stroke: currentColor;
  stroke-width: 1.8;
  stroke-linejoin: round;
}
.clear {
  fill: var(--paper);
}
.dot {
  fill: currentColor;
}
.line,
.aim {
  fill: none;
  stroke: currentColor;
  stroke-width: 1.8;
  stroke-linecap: round;
}
</style>
