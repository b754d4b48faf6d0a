<script setup lang="ts">
import { computed } from 'vue'
import type { FarLine, FarPoint, LandView, Point, SiteView } from '@/api/types'
import { length } from '@/document/units'
import { overlaps, type Box } from '@/sheet/boxes'
import type { Viewport } from '@/sheet/useViewport'

/** Far places, and how each is reached: dotted where no way is taken yet, else what is dug or aimed. */
const props = defineProps<{ places: { p: FarPoint; line?: FarLine }[]; ways: SiteView['far']; viewport: Viewport; chosen: string | null; taken: readonly Box[]; tree: LandView['feed'] }>()
const emit = defineEmits<{ choose: [id: string] }>()
const LETTER_PX = 7
const HALF_POST_PX = 7
const POST_PX = 20
const WORDS_PX = 28
const WORDED_PX = 56 // a branch that is drawn shorter has no length beside it

const line = (a: readonly number[], b: readonly number[]) => `M${props.viewport.toScreen(a).join(' ')}L${props.viewport.toScreen(b).join(' ')}`
const ways = computed(() => props.ways.filter((w) => w.lies !== 'none').map((w) => ({ ...w, d: line(w.path[0], w.path[1]), boxes: w.joints.map((j) => props.viewport.toScreen(j)) })))
const reached = computed(() => new Set(ways.value.map((w) => w.point)))
/** One feed to several places: from what is before each, the rack for the first. */
const branches = computed(() => {
  const rows = props.chosen ? [] : (props.tree?.rows ?? [])
  const at = new Map<string, readonly number[]>(props.places.map(({ p }) => [p.id, p.at]))
  const rack = props.places.find(({ p }) => p.id === rows[0]?.point)?.line?.from_at
  return rows.flatMap((r) => {
    const [from, to] = [r.before ? at.get(r.before) : rack, at.get(r.point)]
    if (!from || !to) return []
    const [a, b] = [props.viewport.toScreen(from), props.viewport.toScreen(to)]
    return [{ key: r.point, d: line(from, to), x: (a[0] + b[0]) / 2, y: (a[1] + b[1]) / 2, said: Math.hypot(b[0] - a[0], b[1] - a[1]) > WORDED_PX ? length(r.metres, 0) : '' }]
  })
})
/** Where the words of each place stand: below it, beside it or over it, wherever nothing is; the chosen one first. */
const words = computed(() => {
  const spots = props.places.map(({ p, line: l }) => ({ p, line: l, at: props.viewport.toScreen(p.at as Point) }))
  const taken: Box[] = [...props.taken, ...spots.map(({ at: [x, y] }) => ({ left: x - HALF_POST_PX, right: x + HALF_POST_PX, top: y - POST_PX, bottom: y }))]
  const found = new Map<string, { x: number; y: number }>()
  for (const { p, at } of [...spots].sort((a, b) => Number(b.p.id === props.chosen) - Number(a.p.id === props.chosen))) {
    const half = (p.name.length * LETTER_PX) / 2
    const aside = half + HALF_POST_PX + 3
    const options = [{ x: 0, y: 16 }, { x: aside, y: -8 }, { x: -aside, y: -8 }, { x: 0, y: -POST_PX - 16 }]
    const boxOf = (o: { x: number; y: number }): Box => ({ left: at[0] + o.x - half, right: at[0] + o.x + half, top: at[1] + o.y - 11, bottom: at[1] + o.y - 11 + WORDS_PX })
    const free = options.find((o) => !taken.some((t) => overlaps(t, boxOf(o)))) ?? (p.id === props.chosen ? options[0] : undefined)
    if (!free) continue
    taken.push(boxOf(free))
    found.set(p.id, free)
  }
  return spots.map((s) => ({ ...s, words: found.get(s.p.id) }))
})
</script>

<template>
  <g>
    <g v-for="b in branches" :key="`f-${b.key}`" class="branch" data-branch><path :d="b.d" /><text :x="b.x" :y="b.y + 4" text-anchor="middle">{{ b.said }}</text></g>
    <g v-for="w in ways" :key="`w-${w.point}`" class="way" :class="[w.lies, { chosen: w.point === chosen, out: w.state === 'out' }]" :data-far-way="w.point">
      <path :d="w.d" />
      <rect v-for="([x, y], k) in w.boxes" :key="k" :x="x - 4" :y="y - 4" width="8" height="8" />
      <title>{{ w.name }}: {{ w.label }}{{ w.size ? `, ${w.size.said}` : '' }}</title>
    </g>
    <g
      v-for="s in words" :key="s.p.id" class="place" :class="{ chosen: s.p.id === chosen }" tabindex="0" role="button" :aria-label="`${s.p.name}${s.line ? `, ${length(s.line.length_m!)} from its rack` : ''}`"
      :data-far="s.p.id" @click.stop="emit('choose', s.p.id)" @keydown.enter="emit('choose', s.p.id)"
    >
      <path v-if="s.line && !reached.has(s.p.id)" :d="line(s.line.from_at!, s.line.to_at)" class="sight" />
      <g :transform="`translate(${s.at.join(' ')})`">
        <circle r="20" class="touch" /><path d="M0 0V-17M-6 0H6M-5 -17H5M-3 -13H3" class="post" />
        <template v-if="s.words"><text :x="s.words.x" :y="s.words.y" text-anchor="middle" class="name">{{ s.p.name }}</text><text v-if="s.line" :x="s.words.x" :y="s.words.y + 13" text-anchor="middle">{{ length(s.line.length_m!, 0) }}</text></template>
        <title>{{ s.p.name }}</title>
      </g>
    </g>
  </g>
</template>

<style scoped>
.place {
  cursor: pointer;
  outline: none;
  font: 500 11px var(--mono);
}
.place text {
  fill: var(--granite);
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 3px;
}
.place .name {
  font: 600 12.5px var(--condensed);
  fill: var(--ink);
}
.touch {
  fill: transparent;
}
.post {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}
.sight {
  fill: none;
  stroke: var(--granite);
  stroke-dasharray: 2 5;
  pointer-events: none;
}
.place:focus-visible .post,
.place.chosen .post,
.place.chosen .sight {
  stroke: var(--heather);
}
.branch path {
  fill: none;
  stroke: var(--gorse);
  stroke-width: 3;
}
.branch text {
  font: 600 11px var(--mono);
  fill: var(--gorse-ink);
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 4px;
}
.way path {
  fill: none;
  stroke: var(--tarn);
  stroke-width: 3;
}
.way.air path {
  stroke: var(--heather);
  stroke-width: 1.8;
  stroke-dasharray: 8 5;
}
.way rect {
  fill: var(--paper);
  stroke: var(--tarn);
  stroke-width: 1.8;
}
.way.chosen path,
.way.chosen rect {
  stroke: var(--heather);
}
.way.out path,
.way.out rect {
  stroke: var(--rust);
}
</style>
