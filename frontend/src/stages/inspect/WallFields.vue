<script setup lang="ts">
import Button from 'primevue/button'
import Checkbox from 'primevue/checkbox'
import { computed, ref, watch } from 'vue'
import Choice from '@/controls/Choice.vue'
import NumberField from '@/controls/NumberField.vue'
import type { Point, Wall } from '@/api/types'
import { put } from '@/document/edits'
import { bearing, distance } from '@/document/geometry'
import { useDesign } from '@/document/store'
import { length } from '@/document/units'
import { useMade } from '@/document/useMade'
import { constructionsOf } from '@/sheet/pens'

const SHORTEST_M = 0.1
const AT_ONE_M = 0.03

const props = defineProps<{ wall: Wall }>()
const store = useDesign()
const gestures = useMade()
const size = computed(() => distance(props.wall.a as Point, props.wall.b as Point))
const angle = computed(() => bearing(props.wall.a as Point, props.wall.b as Point))
const construction = computed(() => store.catalogue?.constructions[props.wall.construction])
const options = computed(() => constructionsOf(store.catalogue, ['wall']))
const cutAt = ref(0)
const off = ref(1)
const rise = ref(0.5)
watch(size, (now) => (cutAt.value = Number((now / 2).toFixed(2))), { immediate: true })

/** Walls that go on from this one in a straight line. */
const inLine = computed(() => {
  const { a, b } = props.wall as { a: Point; b: Point }
  const straight = (w: Wall) => {
    const turn = Math.abs(bearing(w.a as Point, w.b as Point) - angle.value) % 180
    return Math.min(turn, 180 - turn) < 1
  }
  const meets = (w: Wall) => [w.a, w.b].some((p) => Math.min(distance(p as Point, a), distance(p as Point, b)) < AT_ONE_M)
  return store.all('wall').filter((w) => w.id !== props.wall.id && w.floor === props.wall.floor && straight(w) && meets(w))
})

function setConstruction(id: string): void {
  store.commit('Construction of wall', [put('wall', { ...props.wall, construction: id })])
}

/** What keeps fire back is stopped again wherever cable goes through it. */
function rate(rated: boolean): void {
  store.commit('Fire rating of wall', [put('wall', { ...props.wall, rated })])
}

function measure(label: string, given: { length_m?: number; angle_deg?: number }): void {
  void gestures.make(label, { do: 'measure', wall: props.wall.id, hold: 'a', length_m: null, angle_deg: null, ...given })
}

const divide = () => gestures.make('Divide wall', { do: 'split', wall: props.wall.id, at_m: cutAt.value })
const curve = () => gestures.make('Curve wall', { do: 'curve', wall: props.wall.id, rise_m: rise.value })
const join = () => gestures.make('Join walls', { do: 'join', walls: [props.wall.id, ...inLine.value.map((w) => w.id)] })
const beside = (far: number) => gestures.make('Wall beside another', { do: 'beside', wall: props.wall.id, off_m: far })
</script>

<template>
  <dl v-if="construction" class="figures">
    <dt>Loss, 2.4 / 5 / 6 GHz</dt>
    <dd class="figure">{{ construction.loss_db['2.4'] }} / {{ construction.loss_db['5'] }} / {{ construction.loss_db['6'] }} dB</dd>
  </dl>
  <div class="fields">
    <label class="wide">Construction
      <Choice by="id" :model-value="construction?.id" :options="options" fluid aria-label="Construction" @update:model-value="setConstruction" />
    </label>
    <NumberField label="Length" :value="size" :min="SHORTEST_M" @change="measure('Length of wall', { length_m: $event })" />
    <NumberField label="Angle from north" :value="angle" unit="degrees" :min="-360" :max="360" @change="measure('Angle of wall', { angle_deg: $event })" />
    <label class="tick wide"><Checkbox :model-value="wall.rated ?? false" binary @update:model-value="rate($event as boolean)" /> Keeps fire back</label>
    <NumberField label="Divide it from its start at" :value="cutAt" :min="SHORTEST_M" :max="size" @change="cutAt = $event" />
    <Button label="Divide" size="small" outlined class="act" @click="divide" />
    <NumberField label="Another wall beside it, at" :value="off" :min="SHORTEST_M" :max="200" @change="off = $event" />
    <div class="act sides">
      <Button label="Left" size="small" outlined aria-label="Left of it" @click="beside(off)" />
      <Button label="Right" size="small" outlined aria-label="Right of it" @click="beside(-off)" />
    </div>
    <NumberField label="Curve it, its middle off by" :value="rise" :min="-50" :max="50" @change="rise = $event" />
    <Button label="Curve" size="small" outlined class="act" @click="curve" />
    <Button v-if="inLine.length" class="wide" :label="`Join with ${inLine.length === 1 ? 'the wall' : `${inLine.length} walls`} in line`" size="small" outlined @click="join" />
    <p v-if="gestures.why.value" class="wide why" role="alert">{{ gestures.why.value }}</p>
    <p class="wide hint">Drag it, or use the arrow keys: what meets it goes along. It runs {{ length(size, 2) }}.</p>
  </div>
</template>

<style scoped>
.fields .tick {
  display: flex;
  align-items: center;
  gap: 6px;
  font-size: 12px;
}
.act {
  align-self: end;
}
.sides {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 4px;
}
.why {
  margin: 0;
  color: var(--rust);
  font-size: 12px;
}
.hint {
  margin: 0;
  font: 400 11px/1.35 var(--condensed);
  color: var(--granite);
}
</style>
