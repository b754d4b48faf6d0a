<script setup lang="ts">
import Checkbox from 'primevue/checkbox'
import { computed } from 'vue'
import Choice from '@/controls/Choice.vue'
import type { Opening, Point, Wall } from '@/api/types'
import { put } from '@/document/edits'
import { along, distance } from '@/document/geometry'
import { useDesign } from '@/document/store'
import { constructionsOf } from '@/sheet/pens'
import NumberField from '@/controls/NumberField.vue'

const props = defineProps<{ wall?: Wall; opening?: Opening }>()
const store = useDesign()
const size = computed(() => (props.wall ? distance(props.wall.a as Point, props.wall.b as Point) : 0))
const construction = computed(() => store.catalogue?.constructions[(props.wall ?? props.opening)?.construction ?? ''])
const options = computed(() =>
  constructionsOf(store.catalogue, props.wall ? ['wall'] : ['door', 'window', 'gap']),
)

function setConstruction(id: string): void {
  if (props.wall) store.commit('Construction of wall', [put('wall', { ...props.wall, construction: id })])
  if (props.opening) {
    const kind = store.catalogue!.constructions[id]!.kind as Opening['kind']
    store.commit('Kind of opening', [put('opening', { ...props.opening, construction: id, kind })])
  }
}

/** What keeps fire back is stopped again wherever cable goes through it. */
function rate(rated: boolean): void {
  store.commit('Fire rating of wall', [put('wall', { ...props.wall!, rated })])
}

function setLength(metres: number): void {
  const wall = props.wall!
  const b = along(wall, metres).map((v) => Number(v.toFixed(4))) as Point
  store.commit('Length of wall', [put('wall', { ...wall, b })])
}

function setOpening(change: Partial<Opening>): void {
  store.commit('Opening', [put('opening', { ...props.opening!, ...change })])
}
</script>

<template>
  <dl v-if="construction" class="figures">
    <dt>Loss, 2.4 / 5 / 6 GHz</dt>
    <dd class="figure">{{ construction.loss_db['2.4'] }} / {{ construction.loss_db['5'] }} / {{ construction.loss_db['6'] }} dB</dd>
  </dl>
  <div class="fields">
    <label class="wide">{{ wall ? 'Construction' : 'Kind' }}
      <Choice by="id" :model-value="construction?.id" :options="options" fluid aria-label="Construction" @update:model-value="setConstruction" />
    </label>
    <NumberField v-if="wall" label="Length" :value="size" :min="0.1" @change="setLength" />
    <label v-if="wall" class="tick"><Checkbox :model-value="wall.rated ?? false" binary @update:model-value="rate($event as boolean)" /> Keeps fire back</label>
    <template v-if="opening">
      <NumberField label="From the wall's start" :value="opening.offset_m" :min="0" @change="setOpening({ offset_m: $event })" />
      <NumberField label="Width" :value="opening.width_m" :min="0.1" @change="setOpening({ width_m: $event })" />
    </template>
  </div>
</template>

<style scoped>
.fields .tick {
  display: flex;
  align-items: center;
  align-self: end;
  gap: 6px;
  min-height: 32px;
  font-size: 12px;
}
</style>
