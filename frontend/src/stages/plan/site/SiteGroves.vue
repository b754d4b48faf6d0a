<script setup lang="ts">
import { computed } from 'vue'
import type { Point, SiteView } from '@/api/types'
import { linePath } from '@/document/geometry'
import { length } from '@/document/units'
import type { Viewport } from '@/sheet/useViewport'

/** Trees on the land, from above: where they stand, how high they are. */
const props = defineProps<{ groves: SiteView['groves']; viewport: Viewport; chosen: string | null }>()
const emit = defineEmits<{ choose: [id: string] }>()
const LETTER_PX = 7
const rows = computed(() =>
  props.groves.map((g) => {
    const ring = g.outline.map((p) => props.viewport.toScreen(p as Point))
    const xs = ring.map((p) => p[0])
    const wide = Math.max(...xs) - Math.min(...xs)
    return { ...g, path: `${linePath(ring as Point[])}Z`, spot: props.viewport.toScreen(g.at), named: wide > g.name.length * LETTER_PX || g.grove === props.chosen }
  }),
)
</script>

<template>
  <g>
    <defs>
      <pattern id="grove-leaves" width="18" height="16" patternUnits="userSpaceOnUse">
        <path d="M2 7a3.5 3.5 0 0 1 7 0M11 15a3.5 3.5 0 0 1 7 0" class="crown" />
      </pattern>
    </defs>
    <g
      v-for="g in rows" :key="g.grove" class="grove" :class="{ chosen: g.grove === chosen }" tabindex="0" role="button" :aria-label="`${g.name}, ${length(g.height_m)} high`" :data-grove="g.grove"
      @click.stop="emit('choose', g.grove)" @keydown.enter="emit('choose', g.grove)"
    >
      <path :d="g.path" class="under" /><path :d="g.path" class="leaves" />
      <template v-if="g.named">
        <text :x="g.spot[0]" :y="g.spot[1] - 2" text-anchor="middle" class="name">{{ g.name }}</text>
        <text :x="g.spot[0]" :y="g.spot[1] + 11" text-anchor="middle">{{ length(g.height_m) }} high</text>
      </template>
      <title>{{ g.name }}, {{ length(g.height_m) }} high</title>
    </g>
  </g>
</template>

<style scoped>
.grove {
  cursor: pointer;
  outline: none;
  font: 500 11px var(--mono);
}
.under {
  fill: var(--moss);
  fill-opacity: 0.14;
}
.leaves {
  fill: url(#grove-leaves);
  stroke: var(--moss);
  stroke-width: 1.4;
  stroke-dasharray: 6 3;
}
.crown {
  fill: none;
  stroke: var(--moss);
  stroke-width: 1;
  stroke-opacity: 0.55;
}
text {
  fill: var(--granite);
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 3px;
}
.name {
  font: 600 12.5px var(--condensed);
  fill: var(--ink);
}
.grove:focus-visible .leaves,
.grove.chosen .leaves {
  stroke: var(--heather);
  stroke-width: 2;
}
</style>
