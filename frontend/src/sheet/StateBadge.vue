<script setup lang="ts">
/** How a thing stands, as a sign in a ring: the same on the sheet and in its legend. */
defineProps<{ state: 'met' | 'near' | 'not_met' | 'heard' | 'unknown' }>()
const SIGNS = { met: 'M-3.4 0.4L-1 3L3.6 -3', near: 'M-3.6 1.2Q-1.8 -1.8 0 0T3.6 -1.2', not_met: 'M-3 -3L3 3M3 -3L-3 3', heard: '', unknown: '' } as const
</script>

<template>
  <g :class="state">
    <circle r="6.5" />
    <path :d="SIGNS[state]" />
  </g>
</template>

<style scoped>
circle {
  fill: var(--paper);
  stroke: currentColor;
  stroke-width: 1.5;
}
path {
  fill: none;
  stroke: currentColor;
  stroke-width: 2;
  stroke-linecap: round;
}
.unknown {
  color: var(--granite);
}
.unknown circle {
  stroke-dasharray: 2.5 2.5;
}
</style>
