<script setup lang="ts">
import { computed } from 'vue'
import type { ElementOf } from '@/api/types'
import { useDesign } from '@/document/store'
import { toStraighten } from './underlays'
import type { Viewport } from './useViewport'

/** The client's plan under everything that is drawn. */
const props = defineProps<{ picture: ElementOf<'underlay'>; viewport: Viewport }>()
const store = useDesign()
const place = computed(() => {
  const { at, turn_deg, metres_per_px: m, width_px: w, height_px: h } = props.picture
  return `translate(${at[0]} ${at[1]}) rotate(${-turn_deg}) scale(${m} ${-m}) translate(${-w / 2} ${-h / 2})`
})
const kept = computed(() => {
  const { crop, width_px: w, height_px: h } = props.picture
  return { x: crop[0] * w, y: crop[1] * h, width: (1 - crop[0] - crop[2]) * w, height: (1 - crop[1] - crop[3]) * h }
})
</script>

<template>
  <g :transform="viewport.transform.value" class="under" data-layer="underlay">
    <clipPath :id="`kept-${picture.id}`"><rect v-bind="kept" /></clipPath>
    <image
      :transform="place" :href="`/api/projects/${store.id}/pictures/${picture.picture}`" :width="picture.width_px" :height="picture.height_px"
      preserveAspectRatio="none" :opacity="picture.strength" :clip-path="`url(#kept-${picture.id})`"
    />
    <polygon v-if="toStraighten" :points="toStraighten.map((p) => p.join(',')).join(' ')" class="corners" vector-effect="non-scaling-stroke" />
  </g>
</template>

<style scoped>
.under {
  pointer-events: none;
}
.corners {
  fill: none;
  stroke: var(--heather);
  stroke-width: 2;
}
</style>
