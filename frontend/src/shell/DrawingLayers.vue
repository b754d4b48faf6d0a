<script setup lang="ts">
import Button from 'primevue/button'
import { computed, onMounted, reactive, ref } from 'vue'
import Choice from '@/controls/Choice.vue'
import { api, taken } from '@/api/client'
import type { Inspection } from '@/api/types'
import { useDesign } from '@/document/store'
import { length } from '@/document/units'
import { constructionsOf } from '@/sheet/pens'
import NumberField from '@/controls/NumberField.vue'

const props = defineProps<{ inspection: Inspection; busy: boolean }>()
const emit = defineEmits<{
  draw: [choice: { units: string | null; layers: Record<string, string>; ceiling_height_m: number }]
  back: []
}>()
const store = useDesign()
const units = ref<string | null>(props.inspection.units)
const ceiling = ref(2.7)
/** Layers of a drawing of our own say what they are; of one with several storeys the first is taken. */
const first = props.inspection.layers.find((l) => l.likely)
const storeyOf = (layer: string) => layer.split(' ').slice(0, -2).join(' ')
const chosen = reactive<Record<string, string>>(Object.fromEntries(
  props.inspection.layers.filter((l) => l.likely && storeyOf(l.name) === storeyOf(first!.name)).map((l) => [l.name, l.likely]),
))

onMounted(async () => {
  store.catalogue ??= await taken(api.GET('/api/catalogue'))
})

const METRES: Record<string, number> = { mm: 0.001, cm: 0.01, m: 1, in: 0.0254, ft: 0.3048 }
const UNITS = [
  { value: 'mm', label: 'millimetres' },
  { value: 'cm', label: 'centimetres' },
  { value: 'm', label: 'metres' },
  { value: 'in', label: 'inches' },
  { value: 'ft', label: 'feet' },
]
const options = computed(() => [
  { id: '', label: 'Leave out' },
  ...constructionsOf(store.catalogue, ['wall', 'door', 'window', 'gap']),
])
const picked = computed(() => Object.fromEntries(Object.entries(chosen).filter(([, c]) => c)))
const size = computed(() => {
  const scale = METRES[units.value ?? '']
  if (!scale) return 'The drawing does not say its units: choose them.'
  const { width, height } = props.inspection
  return `${length(width * scale)} × ${length(height * scale)} across`
})
</script>

<template>
  <div class="form">
    <label>Drawing units <Choice v-model="units" :options="UNITS" placeholder="Choose" fluid aria-label="Drawing units" /></label>
    <NumberField label="Ceiling height" :value="ceiling" :min="1.6" :max="30" @change="ceiling = $event" />
    <p class="figure">{{ size }}</p>
  </div>
  <div class="scroll">
    <table class="ledger">
      <thead><tr><th>Layer</th><th class="number">Lines</th><th>Drawn as</th></tr></thead>
      <tbody>
        <tr v-for="layer in inspection.layers" :key="layer.name">
          <td>{{ layer.name }}</td>
          <td class="number">{{ layer.segments }}</td>
          <td>
            <Choice by="id"
              v-model="chosen[layer.name]" :options="options"
              placeholder="Leave out" fluid :aria-label="`Construction of layer ${layer.name}`"
            />
          </td>
        </tr>
      </tbody>
    </table>
  </div>
  <div class="actions">
    <Button label="Back" text @click="emit('back')" />
    <Button
      label="Draw these layers" :disabled="!units || !Object.keys(picked).length || busy"
      @click="emit('draw', { units, layers: picked, ceiling_height_m: ceiling })"
    />
  </div>
</template>

<style scoped>
.form {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px 12px;
  margin-bottom: 10px;
}
.form :deep(label) {
  display: grid;
  gap: 2px;
}
.form p {
  grid-column: 1 / -1;
}
.scroll {
  max-height: 300px;
  overflow: auto;
}
.actions {
  display: flex;
  justify-content: space-between;
  margin-top: 12px;
}
</style>
