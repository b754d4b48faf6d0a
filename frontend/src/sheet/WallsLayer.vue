<script setup lang="ts">
import { computed } from 'vue'
import type { Opening, Point, Wall } from '@/api/types'
import type { Viewport } from './useViewport'
import { along } from '@/document/geometry'
import { penFor } from './pens'

const props = defineProps<{
  walls: Wall[]
  openings: Opening[]
  viewport: Viewport
  chosen: string | null
  active: boolean
}>()
const emit = defineEmits<{
  choose: [kind: 'wall' | 'opening', id: string, adds: boolean]
  slide: [opening: Opening, event: PointerEvent]
  grab: [wall: Wall, end: 'a' | 'b' | undefined, event: PointerEvent]
}>()

const wallOf = computed(() => new Map(props.walls.map((w) => [w.id, w])))

const gaps = computed(() =>
  props.openings.flatMap((opening) => {
    const wall = wallOf.value.get(opening.wall)
    if (!wall) return []
    const a = along(wall, opening.offset_m)
    const b = along(wall, opening.offset_m + opening.width_m)
    return [{ opening, a, b, width: penFor(wall.construction).width, leaf: leaf(a, b) }]
  }),
)

/** A door stands open at right angles, with the arc of its swing. */
function leaf(a: Point, b: Point): string {
  const dx = b[0] - a[0]
  const dy = b[1] - a[1]
  const tip = [a[0] - dy, a[1] + dx]
  const size = Math.hypot(dx, dy)
  return `M${a.join(' ')}L${tip.join(' ')}A${size} ${size} 0 0 0 ${b.join(' ')}`
}

const chosenWall = computed(() => props.walls.find((w) => w.id === props.chosen))
</script>

<template>
  <g :class="{ active }">
    <g :transform="viewport.transform.value">
      <g v-for="wall in walls" :key="wall.id">
        <line
          :x1="wall.a[0]" :y1="wall.a[1]" :x2="wall.b[0]" :y2="wall.b[1]" class="wall"
          :stroke="penFor(wall.construction).tone" :stroke-width="penFor(wall.construction).width"
          :stroke-dasharray="penFor(wall.construction).dash"
          :stroke-linecap="penFor(wall.construction).dash ? 'butt' : 'square'" :data-wall="wall.id"
          @click.stop="active && emit('choose', 'wall', wall.id, $event.shiftKey)"
        />
        <line
          v-if="penFor(wall.construction).double" :x1="wall.a[0]" :y1="wall.a[1]" :x2="wall.b[0]"
          :y2="wall.b[1]" class="core" :stroke-width="penFor(wall.construction).width * 0.42"
        />
        <line v-if="wall.rated" :x1="wall.a[0]" :y1="wall.a[1]" :x2="wall.b[0]" :y2="wall.b[1]" class="rated" data-rated />
        <line
          v-if="wall.id === chosen" :x1="wall.a[0]" :y1="wall.a[1]" :x2="wall.b[0]" :y2="wall.b[1]"
          class="chosen" vector-effect="non-scaling-stroke"
        />
        <line
          v-if="wall.id === chosen && active" :x1="wall.a[0]" :y1="wall.a[1]" :x2="wall.b[0]" :y2="wall.b[1]" class="grip"
          vector-effect="non-scaling-stroke" data-grip @pointerdown.stop="emit('grab', wall, undefined, $event)"
        ><title>Drag it: what meets it goes along</title></line>
      </g>
      <g v-for="gap in gaps" :key="gap.opening.id" :data-opening="gap.opening.id">
        <line
          :x1="gap.a[0]" :y1="gap.a[1]" :x2="gap.b[0]" :y2="gap.b[1]" class="gap"
          :stroke-width="gap.width + 0.06" @click.stop="active && emit('choose', 'opening', gap.opening.id, $event.shiftKey)"
        />
        <path
          v-if="gap.opening.kind === 'door'" :d="gap.leaf" class="leaf" :class="{ solid: gap.opening.construction === 'door-solid' }"
          vector-effect="non-scaling-stroke"
        />
        <template v-else-if="gap.opening.kind === 'window'">
          <line
            :x1="gap.a[0]" :y1="gap.a[1]" :x2="gap.b[0]" :y2="gap.b[1]" class="pane"
            :class="{ coated: gap.opening.construction === 'glass-coated' }" :stroke-width="gap.width * 0.6"
          />
          <line :x1="gap.a[0]" :y1="gap.a[1]" :x2="gap.b[0]" :y2="gap.b[1]" class="gap thin" :stroke-width="gap.width * 0.25" />
        </template>
        <line
          v-if="gap.opening.id === chosen" :x1="gap.a[0]" :y1="gap.a[1]" :x2="gap.b[0]" :y2="gap.b[1]"
          class="chosen" vector-effect="non-scaling-stroke"
        />
        <line
          v-if="gap.opening.id === chosen && active" :x1="gap.a[0]" :y1="gap.a[1]" :x2="gap.b[0]" :y2="gap.b[1]" class="grip"
          vector-effect="non-scaling-stroke" data-grip @pointerdown.stop="emit('slide', gap.opening, $event)"
        ><title>Slide it along its wall, or over to another</title></line>
      </g>
    </g>
    <template v-if="chosenWall && active">
      <circle
        v-for="end in ['a', 'b'] as const" :key="end" :cx="viewport.toScreen(chosenWall[end])[0]"
        :cy="viewport.toScreen(chosenWall[end])[1]" r="6" class="handle"
        :data-handle="end" @pointerdown.stop="emit('grab', chosenWall, end, $event)"
      />
    </template>
  </g>
</template>

<style scoped>
g {
  pointer-events: none;
}
.active .wall,
.active .gap,
.active .handle {
  pointer-events: auto;
  cursor: pointer;
}
.core {
  stroke: var(--paper);
}
.rated {
  stroke: var(--rust);
  stroke-width: 0.07;
  stroke-dasharray: 0.3 0.2;
}
.gap {
  stroke: var(--paper);
}
.leaf {
  fill: none;
  stroke: var(--granite);
  stroke-width: 0.9;
}
.leaf.solid {
  stroke-width: 1.7;
  stroke: var(--ink);
}
.pane {
  stroke: var(--tarn);
}
.pane.coated {
  stroke-dasharray: 0.3 0.06;
}
.thin {
  pointer-events: none !important;
}
.chosen {
  stroke: var(--heather);
  stroke-width: 3;
}
.grip {
  pointer-events: stroke;
  stroke: transparent;
  stroke-width: 14px;
  cursor: grab;
}
.handle {
  fill: var(--paper);
  stroke: var(--heather);
  stroke-width: 2;
  cursor: grab !important;
}
</style>
