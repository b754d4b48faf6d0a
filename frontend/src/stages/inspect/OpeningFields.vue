<script setup lang="ts">
import { computed } from 'vue'
import Choice from '@/controls/Choice.vue'
import NumberField from '@/controls/NumberField.vue'
import type { Opening } from '@/api/types'
import { put } from '@/document/edits'
import { useDesign } from '@/document/store'
import { constructionsOf } from '@/sheet/pens'

const props = defineProps<{ opening: Opening }>()
const store = useDesign()
const construction = computed(() => store.catalogue?.constructions[props.opening.construction])
const options = computed(() => constructionsOf(store.catalogue, ['door', 'window', 'gap']))

function setConstruction(id: string): void {
  const kind = store.catalogue!.constructions[id]!.kind as Opening['kind']
  set({ construction: id, kind }, 'Kind of opening')
}

function set(change: Partial<Opening>, label = 'Opening'): void {
  store.commit(label, [put('opening', { ...props.opening, ...change })])
}
</script>

<template>
  <dl v-if="construction" class="figures">
    <dt>Loss, 2.4 / 5 / 6 GHz</dt>
    <dd class="figure">{{ construction.loss_db['2.4'] }} / {{ construction.loss_db['5'] }} / {{ construction.loss_db['6'] }} dB</dd>
  </dl>
  <div class="fields">
    <label class="wide">Kind
      <Choice by="id" :model-value="construction?.id" :options="options" fluid aria-label="Construction" @update:model-value="setConstruction" />
    </label>
    <NumberField label="From the wall's start" :value="opening.offset_m" :min="0" @change="set({ offset_m: $event })" />
    <NumberField label="Width" :value="opening.width_m" :min="0.1" @change="set({ width_m: $event })" />
  </div>
</template>
