<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, shallowRef, useTemplateRef, watch } from 'vue'
import { api, taken } from '@/api/client'
import type { Relief } from '@/api/types'
import { boundsOf } from '@/document/geometry'
import { hasAir } from '@/document/kinds'
import { useAttempt } from '@/answers/useAttempt'
import { useDesign } from '@/document/store'
import { tintOf } from '@/sheet/reliefs'
import BandFrame from './BandFrame.vue'
import { useLooking } from './looking'

/** Every storey as a small sheet at one scale, the lowest first, with what the large sheet shows of it. */
const emit = defineEmits<{ close: [] }>()
const { view, floor } = useLooking()
const store = useDesign()
const attempt = useAttempt()
const reliefs = shallowRef<Record<string, Relief>>({})
const HIGH_PX = 158
const EDGE_M = 0.4
const APART_PX = 30
const MOST_SMALL = 7 // px per m: smaller than this nothing is seen, and the row is moved instead
const band = useTemplateRef<HTMLElement>('row')
const { width } = useElementSize(band)

let round = 0
async function load(): Promise<void> {
  const mine = ++round
  for (const storey of store.floors) {
    const params = { path: { project_id: store.id }, query: { ...view.value, floor: storey.id, quick: true } }
    const drawn = await attempt(() => taken(api.GET('/api/projects/{project_id}/relief', { params })))
    if (!drawn || mine !== round) return
    reliefs.value = { ...reliefs.value, [storey.id]: drawn }
  }
}
watch(() => [JSON.stringify(view.value), store.revision, store.id], () => void load(), { immediate: true })

const sheets = computed(() => {
  const here = (id: string) => store.all('space').filter((s) => s.floor === id)
  // Storeys of one building lie over one another: they are seen through the same frame.
  const frames = new Map<string, readonly [number, number, number, number]>()
  for (const f of store.floors) {
    const rooms = store.floors.filter((o) => o.building === f.building).flatMap((o) => here(o.id)).filter((s) => !s.outdoor)
    frames.set(f.building, boundsOf(rooms.length ? rooms.flatMap((s) => s.outline) : [[0, 0], [10, 10]]))
  }
  const all = store.floors.map((f) => frames.get(f.building)!)
  const room = width.value - 20 - all.length * APART_PX
  const scale = Math.min(
    ...all.map(([, south, , north]) => HIGH_PX / (north - south + 2 * EDGE_M)),
    Math.max(MOST_SMALL, room / all.reduce((sum, [west, , east]) => sum + east - west + 2 * EDGE_M, 0)),
  )
  return store.floors.map((f) => {
    const rooms = here(f.id)
    const judged = (store.shown?.signal.rooms ?? []).filter((r) => r.floor === f.id && r.verdict !== 'not_needed')
    const [west, south, east, north] = frames.get(f.building)!
    const [w, h] = [east - west + 2 * EDGE_M, north - south + 2 * EDGE_M]
    return {
      id: f.id, name: f.name, box: `${(west - EDGE_M) * 100} ${-(north + EDGE_M) * 100} ${w * 100} ${h * 100}`, wide: w * scale, high: h * scale,
      outline: rooms.map((s) => `M${s.outline.map((p) => `${p[0] * 100} ${p[1] * 100}`).join('L')}Z`).join(''),
      walls: store.all('wall').filter((w) => w.floor === f.id).map((w) => `M${w.a[0] * 100} ${w.a[1] * 100}L${w.b[0] * 100} ${w.b[1] * 100}`).join(''),
      points: store.all('device').filter((d) => d.floor === f.id && d.state !== 'retire' && hasAir(store.catalogue, d)),
      short: judged.filter((r) => r.verdict !== 'met').length, needed: judged.length, relief: reliefs.value[f.id],
    }
  })
})
</script>

<template>
  <BandFrame :high="204" close="Close the storeys" aria-label="Storeys side by side" data-testid="storeys-band" @close="emit('close')">
    <div ref="row" class="row">
      <button v-for="s in sheets" :key="s.id" class="plain storey" :class="{ chosen: s.id === floor }" :aria-pressed="s.id === floor" :data-storey="s.id" @click="floor = s.id">
        <svg :viewBox="s.box" :width="s.wide" :height="s.high" aria-hidden="true">
          <defs><clipPath :id="`small-${s.id}`"><path :d="s.outline" /></clipPath></defs>
          <g transform="scale(1 -1)">
            <path :d="s.outline" class="ground" />
            <g v-if="s.relief" :clip-path="`url(#small-${s.id})`">
              <path v-for="(tint, i) in s.relief.tints" :key="i" :d="tint" :style="{ fill: tintOf(s.relief, i) }" fill-rule="evenodd" />
              <path v-for="(area, i) in s.relief.serves" :key="area.device" :d="area.path" :style="{ fill: `var(--tint-${i % 6})` }" fill-rule="evenodd" class="seam" />
            </g>
            <path :d="s.walls" class="wall" />
            <path v-for="d in s.points" :key="d.id" :d="`M${d.at[0] * 100} ${d.at[1] * 100 + 65}l56 -97h-112Z`" class="point" />
          </g>
        </svg>
        <span class="name"><b>{{ s.name }}</b> <span :class="s.short ? 'not_met' : 'met'">{{ s.needed ? (s.short ? `${s.short} of ${s.needed} ${s.needed === 1 ? 'room' : 'rooms'} short` : `✓ ${s.needed === 1 ? 'its room is met' : `all ${s.needed} rooms met`}`) : '' }}</span></span>
      </button>
    </div>
  </BandFrame>
</template>

<style scoped>
.row {
  flex: 1;
  display: flex;
  align-items: stretch;
  gap: 10px;
  overflow-x: auto;
  padding: 6px 10px 4px;
}
.storey {
  flex: none;
  display: grid;
  align-content: end;
  justify-items: start;
  min-width: 150px;
  gap: 2px;
  padding: 3px 6px;
  border: 1px solid transparent;
  border-radius: 3px;
}
.storey.chosen {
  border-color: var(--heather);
}
.name {
  font: 400 12px/1.4 var(--condensed);
  text-align: left;
}
.ground {
  fill: var(--paper-deep);
}
.wall {
  fill: none;
  stroke: var(--ink);
  stroke-width: 16;
}
.seam {
  stroke: var(--granite);
  stroke-width: 8;
}
.point {
  fill: var(--heather);
  stroke: var(--paper);
  stroke-width: 14;
}
</style>
