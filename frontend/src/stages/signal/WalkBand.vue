<script setup lang="ts">
import { useElementSize, useIntervalFn } from '@vueuse/core'
import Button from 'primevue/button'
import { computed, useTemplateRef, watch } from 'vue'
import Choice from '@/controls/Choice.vue'
import { HELD } from '@/answers/useWalk'
import { length } from '@/document/units'
import { useDesign } from '@/document/store'
import { useLooking } from './looking'

/** Levels along the way, a line for each access point; who serves is heavy, hand-overs stand upright. */
const emit = defineEmits<{ close: [] }>()
const { floor, walk: { drawn, habit, drawing, walk, moment, follow } } = useLooking()
const points = computed(() => drawn.value.length)
const store = useDesign()
const habits = computed(() => store.evaluation?.signal.habits ?? [])
/** Four times as fast as one walks. */
const QUICKER = 4
const { pause, resume, isActive } = useIntervalFn(() => {
  if (moment.value >= seconds.value) pause()
  else look(moment.value + 0.5)
}, 500 / QUICKER, { immediate: false })
function play(): void {
  if (isActive.value) return pause()
  if (moment.value >= seconds.value) look(0)
  resume()
}
watch(walk, (w) => w ?? pause())
const walks = computed(() => [{ value: '', label: 'As drawn here' }, ...habits.value.map((h) => ({ value: h.habit, label: `${HELD[h.verdict]} ${h.name}` }))])
const said = computed(() => {
  if (walk.value) return walk.value.text
  if (habit.value) return habits.value.find((h) => h.habit === habit.value)?.text ?? ''
  return points.value ? 'Press where the way goes on.' : 'Press on the sheet where the walk begins, then where it goes; change the floor to climb.'
})
const frame = useTemplateRef<HTMLElement>('frame')
const { width } = useElementSize(frame)
const LEFT = 38
const RIGHT = 84
const TOP = 22
const HIGH = 150
const room = computed(() => Math.max(80, width.value - LEFT - RIGHT))
const seconds = computed(() => Math.max(1, walk.value?.seconds ?? 1))
const x = (t: number) => LEFT + (t / seconds.value) * room.value
const LOW_DBM = -100
const scale = computed(() => {
  const most = Math.max(-40, ...(walk.value?.lines ?? []).map((l) => Math.max(...l.dbm)))
  return { low: LOW_DBM, high: Math.ceil(most / 10) * 10 }
})
const y = (dbm: number) => TOP + HIGH * (1 - (Math.max(scale.value.low, dbm) - scale.value.low) / (scale.value.high - scale.value.low))
const lines = computed(() =>
  (walk.value?.lines ?? []).map((l) => ({ device: `${l.device} ${l.band}`, name: l.name, d: `M${l.dbm.map((v, k) => `${x(k * 0.5).toFixed(1)} ${y(v).toFixed(1)}`).join('L')}`, end: y(l.dbm.at(-1) ?? LOW_DBM) })),
)
/** Names at the ends of their lines, moved apart where they would lie on one another. */
const names = computed(() => {
  let last = -99
  return [...lines.value].sort((a, b) => a.end - b.end).map((l) => {
    last = Math.max(l.end, last + 12)
    return { ...l, y: last }
  }).filter((l) => l.y < TOP + HIGH + 6)
})
/** The line of whoever serves, piece by piece. */
const served = computed(() => {
  const w = walk.value
  if (!w) return ''
  let d = ''
  let before: string | null = null
  for (const s of w.samples) {
    const who = s.serving && `${s.serving} ${s.band}`
    if (s.serving !== null) d += `${who === before ? 'L' : 'M'}${x(s.t_s).toFixed(1)} ${y(s.dbm).toFixed(1)}`
    before = who
  }
  return d
})
const stretches = computed(() => {
  const found: { floor: string; from: number; to: number }[] = []
  for (const s of walk.value?.samples ?? []) {
    const last = found.at(-1)
    if (last && last.floor === s.floor) last.to = s.t_s
    else found.push({ floor: s.floor, from: s.t_s, to: s.t_s })
  }
  return found.map((f) => ({ ...f, name: store.find('floor', f.floor)?.name ?? '', wide: x(f.to) - x(f.from) }))
})
/** Hand-overs; a gap is written where there is room for it up to the next. */
const changes = computed(() => {
  const found = (walk.value?.events ?? []).filter((e) => e.kind === 'hand_over')
  return found.map((e, k) => ({ ...e, said: (k + 1 < found.length ? x(found[k + 1]!.t_s) : LEFT + room.value + 8) - x(e.t_s) > 44 }))
})
const ticks = computed(() => {
  const step = seconds.value > 150 ? 30 : seconds.value > 60 ? 10 : 5
  return Array.from({ length: Math.floor(seconds.value / step) + 1 }, (_, k) => k * step)
})
const now = computed(() => walk.value?.samples[Math.min((walk.value?.samples.length ?? 1) - 1, Math.round(moment.value / 0.5))])
const drop = computed(() => walk.value?.drop_dbm)

function press(event: PointerEvent): void {
  const box = (event.currentTarget as Element).getBoundingClientRect()
  look(((event.clientX - box.left - LEFT) / room.value) * seconds.value)
}
function look(t: number): void {
  moment.value = Math.max(0, Math.min(seconds.value, Math.round(t * 2) / 2))
  if (now.value) floor.value = now.value.floor
}
/** One of the brief's walks, from where it begins. */
function begin(id: string): void {
  floor.value = follow(id) ?? floor.value
}
</script>

<template>
  <section class="band" aria-label="A call on a walk" data-testid="walk-band">
    <div class="head">
      <b :class="walk ? (walk.verdict === 'holds' ? 'met' : 'not_met') : ''" data-testid="walk-verdict">{{ said }}</b>
      <span v-if="walk" class="quiet">{{ length(walk.metres, 0) }}, {{ walk.seconds.toFixed(0) }} s on {{ walk.band }} GHz<template v-if="walk.name">, {{ walk.name }}</template></span>
      <span class="acts">
        <Choice v-if="habits.length" :model-value="habit" :options="walks" aria-label="Which walk" placeholder="As drawn here" class="which" @update:model-value="begin($event)" />
        <Button v-if="walk" :icon="isActive ? 'pi pi-pause' : 'pi pi-play'" :label="isActive ? 'Stand' : 'Walk'" size="small" outlined data-testid="play-walk" @click="play" />
        <Button :label="drawing ? 'Done drawing' : habit ? 'Draw one' : 'Draw on'" size="small" outlined @click="habit = ''; drawing = !drawing" />
        <Button v-if="points && !habit" label="One back" size="small" text @click="drawn = drawn.slice(0, -1)" />
        <Button v-if="points && !habit" label="Clear" size="small" text @click="drawn = []; drawing = true" />
        <Button icon="pi pi-times" size="small" text aria-label="Close the walk" @click="emit('close')" />
      </span>
    </div>
    <div ref="frame" class="frame">
      <svg
        v-if="walk" :width="width" :height="TOP + HIGH + 20" role="slider" tabindex="0" aria-label="Moment of the walk" :aria-valuenow="moment" :aria-valuemax="seconds" aria-valuemin="0" :aria-valuetext="`${moment} s`"
        @pointerdown="press" @pointermove="$event.buttons && press($event)" @keydown.left.prevent="look(moment - 0.5)" @keydown.right.prevent="look(moment + 0.5)"
      >
        <g v-for="s in stretches" :key="s.from"><rect :x="x(s.from)" y="2" :width="Math.max(1, s.wide)" height="14" class="storey" /><text v-if="s.wide > 54" :x="x(s.from) + 4" y="13" class="name">{{ s.name }}</text></g>
        <g v-for="l in [-40, -60, -80]" :key="l"><path :d="`M${LEFT} ${y(l)}H${LEFT + room}`" class="rule" /><text :x="LEFT - 5" :y="y(l) + 4" text-anchor="end" class="axis">{{ String(l).replace('-', '−') }}</text></g>
        <path v-if="drop" :d="`M${LEFT} ${y(drop)}H${LEFT + room}`" class="drop" />
        <g v-for="e in walk.events.filter((v) => v.kind === 'lost' || v.kind === 'clings')" :key="`${e.kind}${e.t_s}`"><rect :x="x(e.t_s)" :y="TOP" :width="Math.max(2, x(e.until_s) - x(e.t_s))" :height="HIGH" :class="e.kind"><title>{{ e.text }}</title></rect></g>
        <path v-for="l in lines" :key="l.device" :d="l.d" class="line" :data-line="l.device" />
        <path :d="served" class="served" />
        <g v-for="e in changes" :key="`h${e.t_s}`" :class="['change', { bad: e.bad }]" :data-change="e.to">
          <path :d="`M${x(e.t_s)} ${TOP}V${TOP + HIGH}`" /><text v-if="e.said" :x="x(e.t_s) + 3" :y="TOP + 9">{{ e.gap_ms }} ms</text><title>{{ e.text }}</title>
        </g>
        <text v-for="n in names" :key="n.device" :x="LEFT + room + 5" :y="n.y + 4" class="name" :class="{ now: n.device === `${now?.serving} ${now?.band}` }">{{ n.name }}</text>
        <g v-for="t in ticks" :key="t"><path :d="`M${x(t)} ${TOP + HIGH}v4`" class="mark" /><text :x="x(t)" :y="TOP + HIGH + 15" text-anchor="middle" class="axis">{{ t }}{{ t === 0 ? ' s' : '' }}</text></g>
        <path :d="`M${x(moment)} ${TOP}V${TOP + HIGH}`" class="moment" />
      </svg>
      <p v-if="walk && now" class="now" data-testid="walk-now"><b class="figure">{{ moment.toFixed(1) }} s</b> {{ now.serving ? `${walk.lines.find((l) => l.device === now!.serving && l.band === now!.band)?.name ?? ''} at ${now.dbm.toFixed(0).replace('-', '−')} dBm` : 'nobody serves' }}</p>
    </div>
    <ul v-if="walk" class="events"><li v-for="e in walk.events" :key="`${e.kind}${e.t_s}`"><button class="plain" @click="look(e.t_s)"><span class="figure">{{ e.t_s.toFixed(0) }} s</span> <span :class="{ not_met: e.bad }">{{ e.text }}</span></button></li></ul>
  </section>
</template>

<style scoped>
.band {
  flex: none;
  display: grid;
  grid-template: auto auto / 1fr 250px;
  border-top: 1px solid var(--granite-mid);
  background: var(--paper);
  max-height: 252px;
}
.head {
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 12px;
  padding: 4px 10px 2px;
}
.which {
  width: 200px;
}
.acts {
  margin-left: auto;
  display: flex;
  gap: 4px;
}
.frame {
  position: relative;
  min-width: 0;
  overflow: hidden;
}
svg {
  display: block;
  cursor: col-resize;
  touch-action: none;
}
.storey {
  fill: var(--paper-deep);
  stroke: var(--granite-light);
}
.rule {
  stroke: var(--granite-light);
}
.drop {
  stroke: var(--rust);
  stroke-dasharray: 6 4;
}
.line {
  fill: none;
  stroke: var(--granite);
  stroke-width: 1;
  opacity: 0.6;
}
.served {
  fill: none;
  stroke: var(--heather);
  stroke-width: 3;
  stroke-linejoin: round;
}
rect.lost {
  fill: var(--rust);
  opacity: 0.22;
}
rect.clings {
  fill: var(--gorse);
  opacity: 0.3;
}
.change path {
  stroke: var(--heather);
  stroke-width: 1.5;
}
.change.bad path {
  stroke: var(--rust);
}
.change text,
.axis {
  font: 400 11px var(--mono);
  fill: var(--granite);
}
.name {
  font: 600 11px var(--condensed);
  fill: var(--ink);
}
.name.now {
  fill: var(--heather);
}
.mark,
.moment {
  stroke: var(--ink);
}
.moment {
  stroke-width: 1.5;
}
.now {
  position: absolute;
  left: 46px;
  bottom: 22px;
  background: color-mix(in srgb, var(--paper) 92%, transparent);
  padding: 0 6px;
}
.events {
  list-style: none;
  margin: 0;
  padding: 4px 10px;
  overflow: auto;
  border-left: 1px solid var(--granite-light);
  font: 400 12px/1.35 var(--condensed);
}
</style>
