<script setup lang="ts">
import { computed } from 'vue'
import type { Point } from '@/api/types'
import type { Viewport } from './useViewport'

/** A cross where something was measured. */
const props = defineProps<{ at: Point; viewport: Viewport }>()
const spot = computed(() => props.viewport.toScreen(props.at))
</script>

<template>
  <path :d="`M${spot[0] - 9} ${spot[1]}h18m-9 -9v18`" class="pin" data-pin />
</template>

<style scoped>
.pin {
  fill: none;
  stroke: var(--heather);
  stroke-width: 2.5;
}
</style>
