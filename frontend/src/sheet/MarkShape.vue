<script setup lang="ts">
/** The sheet's own marks: trig point, cairn, lookout, beacon, stile, bridge, hut and well. */
defineProps<{ shape: string; turn?: number | null }>()
</script>

<template>
  <g class="shape">
    <template v-if="shape === 'trig'">
      <path d="M0 -9L8.5 6H-8.5Z" class="body" />
      <circle r="2" cy="1" class="dot" />
      <path v-if="turn !== null && turn !== undefined" d="M0 -11V-17" class="aim" :transform="`rotate(${turn})`" />
    </template>
    <template v-else-if="shape === 'cairn'">
      <path d="M-8 7H8M0 -9L6 3H-6Z" class="body" />
      <circle r="1.7" cy="-1.5" class="dot" />
      <path v-if="turn !== null && turn !== undefined" d="M0 -11V-17" class="aim" :transform="`rotate(${turn})`" />
    </template>
    <template v-else-if="shape === 'beacon'">
      <circle r="8" class="clear" />
      <path d="M0 8V-1M-4 8H4" class="aim" />
      <circle r="2.2" cy="-3" class="dot" />
      <path d="M-5.5 -8A7 7 0 0 0 -5.5 2M5.5 -8A7 7 0 0 1 5.5 2" class="aim" />
    </template>
    <path v-else-if="shape === 'bridge'" d="M-9 6V-4H9V6H5A5 5 0 0 0 -5 6Z" class="body" />
    <g v-else-if="shape === 'lookout'" :transform="`rotate(${turn ?? 0})`">
      <path d="M-7 2A7 7 0 0 1 7 2Z" class="body" />
      <path d="M0 -6V-12" class="aim" />
    </g>
    <template v-else-if="shape === 'stile'">
      <rect x="-6" y="-4" width="12" height="8" class="clear" />
      <path d="M-6 -2.5H6M-6 2.5H6" class="bars" />
    </template>
    <template v-else-if="shape === 'hut'">
      <path d="M-7 8V-2L0 -9L7 -2V8Z" class="body" />
      <path d="M-9.5 0.4L0 -9.6L9.5 0.4" class="aim" />
    </template>
    <template v-else-if="shape === 'well'">
      <circle r="6.5" class="body" />
      <circle r="2.6" class="ring" />
    </template>
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
.ring,
.aim,
.bars {
  fill: none;
  stroke: currentColor;
  stroke-width: 1.8;
  stroke-linecap: round;
}
</style>
