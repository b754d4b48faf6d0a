<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref } from 'vue'
import type { Gesture, Kind, Wall } from '@/api/types'
import Choice from '@/controls/Choice.vue'
import NumberField from '@/controls/NumberField.vue'
import { boundsOf, distance } from '@/document/geometry'
import { asPicks, elementsOf, PICKED, spotsOf, type PickKind } from '@/document/picks'
import { removalOfAll } from '@/document/removal'
import { useDesign } from '@/document/store'
import { area, length } from '@/document/units'
import { useMade } from '@/document/useMade'

/** Many things that are chosen together: what they are, how large, and what can be done to all of them. */
const props = defineProps<{ floor: string }>()
const store = useDesign()
const made = useMade()
const times = ref(1)
const east = ref(1)
const north = ref(0)
const degrees = ref(90)
/** A storey is copied to at once: none stays chosen. */
const none: string | null = null

const picks = computed(() => asPicks(store.picks))
const elements = computed(() => elementsOf(store, picks.value))
const counts = computed(() =>
  (Object.keys(PICKED) as PickKind[]).flatMap((kind) => {
    const count = picks.value.filter((p) => p.kind === kind).length
    return count ? [{ kind, count, words: `${count} ${PICKED[kind][count === 1 ? 0 : 1]}` }] : []
  }),
)
const size = computed(() => {
  const spots = elements.value.flatMap(spotsOf)
  if (!spots.length) return ''
  const [west, south, far, high] = boundsOf(spots)
  const walls = elements.value.filter((e): e is Wall => 'construction' in e && 'a' in e)
  const rooms = elements.value.flatMap((e) => ('outline' in e && 'use' in e ? [e.outline] : []))
  const told = [`${length(far - west, 2)} × ${length(high - south, 2)}`]
  if (walls.length) told.push(`${length(walls.reduce((sum, w) => sum + distance(w.a, w.b), 0), 2)} of wall`)
  if (rooms.length) told.push(area(rooms.reduce((sum, o) => sum + shoelace(o), 0)))
  return told.join(', ')
})
const marks = computed(() => elements.value.filter((e) => 'at' in e).length)
const storeys = computed(() => store.floors.filter((f) => f.id !== props.floor).map((f) => ({ value: f.id, label: f.name })))

function shoelace(outline: readonly (readonly number[])[]): number {
  const twice = outline.reduce((sum, p, i) => {
    const q = outline[(i + 1) % outline.length]!
    return sum + p[0]! * q[1]! - q[0]! * p[1]!
  }, 0)
  return Math.abs(twice) / 2
}

const only = (kind: Kind) => store.pick(picks.value.filter((p) => p.kind === kind))
const make = (label: string, gesture: Gesture) => void made.make(`${label}: ${picks.value.length} things`, gesture)
const copy = () => make('Copy', { do: 'copy', picks: picks.value, by: [east.value, north.value], times: times.value, floor: null })
const turn = (by: number) => make('Turn', { do: 'turn', picks: picks.value, degrees: by })
const mirror = (across: 'east_west' | 'north_south', beside: boolean) => make('Mirror', { do: 'mirror', picks: picks.value, across, beside })
const align = (to: (typeof ALIGN)[number]['to'][number]['to']) => make('Align', { do: 'align', picks: picks.value, to })
const ALIGN = [
  { label: 'On one upright line', to: [{ to: 'west', label: 'West' }, { to: 'middle_across', label: 'Middle' }, { to: 'east', label: 'East' }] },
  { label: 'On one level line', to: [{ to: 'south', label: 'South' }, { to: 'middle_up', label: 'Middle' }, { to: 'north', label: 'North' }] },
] as const

function copyTo(floor: string): void {
  make('Copy to a storey', { do: 'copy', picks: picks.value, by: [0, 0], times: 1, floor })
}

function remove(): void {
  store.commit(`Remove ${picks.value.length} things`, removalOfAll(store.tables, store.picks))
}
</script>

<template>
  <section class="inspector many" :aria-label="`${picks.length} chosen`" data-testid="picks">
    <header>
      <h2>{{ picks.length }} chosen</h2>
      <Button icon="pi pi-trash" text size="small" aria-label="Remove all of them" @click="remove" />
      <Button icon="pi pi-times" text size="small" aria-label="Deselect" @click="store.pick([])" />
    </header>
    <p class="kinds">
      <button v-for="c in counts" :key="c.kind" class="plain kind" :title="`Keep only the ${PICKED[c.kind][1]}`" @click="only(c.kind)">{{ c.words }}</button>
    </p>
    <p class="figure size">{{ size }}</p>
    <p v-if="made.why.value" class="why" role="alert">{{ made.why.value }}</p>
    <h3>Copy</h3>
    <div class="row three">
      <NumberField label="To the east" :value="east" :min="-500" :max="500" @change="east = $event" />
      <NumberField label="To the north" :value="north" :min="-500" :max="500" @change="north = $event" />
      <NumberField label="Times" unit="plain" :digits="0" :value="times" :min="1" :max="60" @change="times = $event" />
    </div>
    <div class="row">
      <Button :label="times > 1 ? `Copy ${times} times in a row` : 'Copy'" size="small" outlined @click="copy" />
      <Choice v-if="storeys.length" :model-value="none" :options="storeys" placeholder="On another storey" aria-label="Copy on another storey" @update:model-value="$event && copyTo($event)" />
    </div>
    <h3>Turn and mirror</h3>
    <div class="row turn">
      <NumberField label="Degrees" unit="degrees" :value="degrees" :min="-360" :max="360" @change="degrees = $event" />
      <Button label="Turn" size="small" outlined @click="turn(degrees)" />
      <Button label="Back" size="small" outlined aria-label="Turn back" @click="turn(-degrees)" />
    </div>
    <div class="row">
      <Button label="Mirror east–west" size="small" outlined @click="mirror('east_west', false)" />
      <Button label="Mirror north–south" size="small" outlined @click="mirror('north_south', false)" />
      <Button label="Image to the east" size="small" outlined @click="mirror('east_west', true)" />
      <Button label="Image to the north" size="small" outlined @click="mirror('north_south', true)" />
    </div>
    <template v-if="marks > 1">
      <h3>Bring {{ marks }} marks into line</h3>
      <template v-for="line in ALIGN" :key="line.label">
        <p class="line">{{ line.label }}</p>
        <div class="row three">
          <Button v-for="a in line.to" :key="a.to" :label="a.label" size="small" outlined :aria-label="`${a.label}, ${line.label.toLowerCase()}`" @click="align(a.to)" />
        </div>
      </template>
      <div class="row">
        <Button v-if="marks > 2" label="Equal distances" size="small" outlined @click="make('Equal distances', { do: 'spread', picks })" />
      </div>
    </template>
  </section>
</template>

<style scoped>
.kinds {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  margin: 0 0 4px;
}
.kind {
  padding: 2px 8px;
  border: 1px solid var(--granite-mid);
  border-radius: 3px;
  font: 500 12px/1.3 var(--condensed);
}
.kind:hover {
  border-color: var(--heather);
  color: var(--heather);
}
.size {
  margin: 0 0 4px;
  font-size: 12px;
}
.why {
  margin: 0 0 4px;
  color: var(--rust);
  font-size: 12px;
}
.line {
  margin: 0 0 2px;
  font: 400 11px/1.3 var(--condensed);
  color: var(--granite);
}
h3 {
  margin: 8px 0 3px;
  font: 600 12px/1.3 var(--condensed);
}
.row {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 4px;
  align-items: end;
  margin-bottom: 4px;
}
.row.three,
.row.turn {
  grid-template-columns: 1fr 1fr 1fr;
}
.row :deep(label) {
  font: 400 11px/1.3 var(--condensed);
  color: var(--granite);
  display: grid;
  gap: 2px;
  min-width: 0;
}
</style>
