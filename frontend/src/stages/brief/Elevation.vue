<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, useTemplateRef } from 'vue'
import type { Floor, Point } from '@/api/types'
import { distance } from '@/document/geometry'
import { useDesign } from '@/document/store'
import { length } from '@/document/units'

/** The storeys of each building in section, to scale, side by side; where they stand is seen at once. */
const store = useDesign()
const frame = useTemplateRef<HTMLElement>('frame')
const { width } = useElementSize(frame)
const UNDRAWN_M = 8
const APART_M = 6
const HIGH_PX = 150
const EDGE_PX = { side: 58, top: 22, foot: 26 }
const ROOM_FOR_NAME_PX = 15

const roomsOf = (floors: Floor[]) => {
  const ids = new Set(floors.map((f) => f.id))
  return store.all('space').filter((s) => ids.has(s.floor) && !s.outdoor)
}

/** Which way a building runs, as a unit vector: along its walls, the way it is longer. */
function direction(floors: Floor[]): Point {
  const metres = new Map<number, number>()
  for (const { outline } of roomsOf(floors)) {
    outline.forEach((a, i) => {
      const b = outline[(i + 1) % outline.length]!
      const degrees = Math.round((Math.atan2(b[1] - a[1], b[0] - a[0]) * 180) / Math.PI + 360) % 180
      metres.set(degrees, (metres.get(degrees) ?? 0) + distance(a as Point, b as Point))
    })
  }
  const best = [...metres].sort((a, b) => b[1] - a[1])[0]?.[0] ?? 0
  const ways = [best, best + 90].map((degrees): Point => {
    // Left stays left: looked at from the south, or from the east.
    const turned = (((((degrees + 90) % 180) + 180) % 180 - 90) * Math.PI) / 180
    return [Math.cos(turned), Math.sin(turned)]
  })
  const extent = (way: Point) => {
    const spans = floors.map((f) => reach(f, way))
    return Math.max(...spans.map((s) => s[1])) - Math.min(...spans.map((s) => s[0]))
  }
  return extent(ways[1]!) > extent(ways[0]!) ? ways[1]! : ways[0]!
}

/** How far a storey reaches along its building; one that is not drawn yet has a usual length. */
function reach(floor: Floor, along: Point): [number, number] {
  const at = roomsOf([floor]).flatMap((s) => s.outline).map((p) => p[0] * along[0] + p[1] * along[1])
  return at.length ? [Math.min(...at), Math.max(...at)] : [0, UNDRAWN_M]
}

const buildings = computed(() => {
  let at = 0
  return store.all('building').map((building) => {
    const own = store.floors.filter((f) => f.building === building.id)
    const along = direction(own)
    const floors = own.map((floor) => ({ floor, reach: reach(floor, along) }))
    const west = Math.min(...floors.map((f) => f.reach[0]))
    const east = Math.max(...floors.map((f) => f.reach[1]))
    const left = at
    at += east - west + APART_M
    return { building, left, wide: east - west, storeys: floors.map((f) => ({ ...f, x: left + f.reach[0] - west, wide: f.reach[1] - f.reach[0] })) }
  })
})
const lowest = computed(() => Math.min(0, ...store.floors.map((f) => f.elevation_m)))
const highest = computed(() => Math.max(3, ...store.floors.map((f) => f.elevation_m + f.ceiling_height_m)))
const total = computed(() => buildings.value.reduce((sum, b) => sum + b.wide + APART_M, -APART_M))
const scale = computed(() =>
  Math.max(0.5, Math.min((width.value - 2 * EDGE_PX.side) / total.value, HIGH_PX / (highest.value - lowest.value))),
)
const high = computed(() => (highest.value - lowest.value) * scale.value + EDGE_PX.top + EDGE_PX.foot)
const x = (metres: number) => EDGE_PX.side + metres * scale.value
const y = (metres: number) => EDGE_PX.top + (highest.value - metres) * scale.value
</script>

<template>
  <div ref="frame" class="elevation">
    <svg v-if="width" :width="width" :height="high" role="img" aria-label="Section through the buildings; the table below says the same.">
      <path :d="`M0 ${y(0)}H${width}`" class="ground" />
      <text x="6" :y="y(0) - 4" class="level">{{ length(0) }}</text>
      <g v-for="b in buildings" :key="b.building.id">
        <g v-for="s in b.storeys" :key="s.floor.id">
          <rect
            :x="x(s.x)" :y="y(s.floor.elevation_m + s.floor.ceiling_height_m)" :width="s.wide * scale"
            :height="s.floor.ceiling_height_m * scale" class="storey"
          />
          <text
            v-if="s.floor.ceiling_height_m * scale > ROOM_FOR_NAME_PX && s.wide * scale > s.floor.name.length * 6.2"
            :x="x(s.x + s.wide / 2)" :y="y(s.floor.elevation_m + s.floor.ceiling_height_m / 2) + 4" text-anchor="middle" class="name"
          >{{ s.floor.name }}</text>
        </g>
        <text :x="x(b.left + b.wide / 2)" :y="high - 8" text-anchor="middle" class="building">{{ b.building.name }}</text>
      </g>
    </svg>
  </div>
</template>

<style scoped>
.elevation {
  background: var(--paper-deep);
  border: 1px solid var(--granite-light);
  margin-bottom: 12px;
}
svg {
  display: block;
}
.storey {
  fill: var(--paper);
  stroke: var(--ink);
  stroke-width: 1.4;
}
.ground {
  stroke: var(--granite);
  stroke-dasharray: 6 4;
}
text {
  font: 400 12px var(--condensed);
  fill: var(--ink);
}
.building {
  font-weight: 600;
}
.level {
  font: 500 11px var(--mono);
  fill: var(--granite);
}
</style>
