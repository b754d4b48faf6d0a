<script setup lang="ts">
/** The sheet's own marks: trig point, lookout, stile, hut and well. */
defineProps<{ shape: string; turn?: number | null }>()
</script>

<template>
  <g class="shape">
    <template v-if="shape === 'access_point'">
      <path d="M0 -9L8.5 6H-8.5Z" class="body" />
      <circle r="2" cy="1" class="dot" />
      <path v-if="turn !== null && turn !== undefined" d="M0 -11V-17" class="aim" :transform="`rotate(${turn})`" />
    </template>
    <g v-else-if="shape === 'camera'" :transform="`rotate(${turn ?? 0})`">
      <path d="M-7 2A7 7 0 0 1 7 2Z" class="body" />
      <path d="M0 -6V-12" class="aim" />
    </g>
    <template v-else-if="shape === 'outlet'">
      <rect x="-6" y="-4" width="12" height="8" class="clear" />
      <path d="M-6 -2.5H6M-6 2.5H6" class="bars" />
    </template>
    <template v-else-if="shape === 'equipment_room'">
      <path d="M-7 8V-2L0 -9L7 -2V8Z" class="body" />
      <path d="M-9.5 0.4L0 -9.6L9.5 0.4" class="aim" />
    </template>
    <template v-else-if="shape === 'riser'">
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
