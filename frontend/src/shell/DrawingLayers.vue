<script setup lang="ts">
import Button from 'primevue/button'
import Checkbox from 'primevue/checkbox'
import InputText from 'primevue/inputtext'
import { computed, onMounted, reactive, ref } from 'vue'
import Choice from '@/controls/Choice.vue'
import { api, taken } from '@/api/client'
import type { Inspection } from '@/api/types'
import { useDesign } from '@/document/store'
import { length } from '@/document/units'
import { constructionsOf } from '@/sheet/pens'
import NumberField from '@/controls/NumberField.vue'

interface Storey {
  name: string
  box: [number, number, number, number] | null
  layers: Record<string, string> | null
}
const props = defineProps<{ inspection: Inspection; busy: boolean; askName?: boolean }>()
const emit = defineEmits<{
  draw: [choice: { units: string | null; layers: Record<string, string>; ceiling_height_m: number; thick: string | null; faces: boolean | null; storey_name?: string; find_gear: boolean; storeys: Storey[]; left_out: string[] }]
  back: []
}>()
const store = useDesign()
const units = ref<string | null>(props.inspection.units ?? props.inspection.guess ?? null)
const ceiling = ref(2.7)
const thick = ref('')
const gear = ref(true)
const storey = ref('')
const faces = ref<'auto' | 'yes' | 'no'>('auto')
const chosen = reactive<Record<string, string>>(Object.fromEntries(props.inspection.layers.filter((l) => l.likely).map((l) => [l.name, l.likely!])))
/** Layers of a drawing of our own begin with their storey's name. */
const storeyOf = (layer: string) => layer.split(' ').slice(0, -2).join(' ')
const ours = [...new Set(props.inspection.layers.filter((l) => l.told_by === 'ours').map((l) => storeyOf(l.name)))]
const storeys = reactive(
  (props.inspection.parts?.length ? props.inspection.parts.map((p) => ({ name: p.name, box: p.box as [number, number, number, number] | null, layer: '' })) : ours.map((name) => ({ name, box: null, layer: name })))
    .map((s) => ({ ...s, taken: true })),
)

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
const FACES = [
  { value: 'auto' as const, label: 'As the drawing shows' },
  { value: 'yes' as const, label: 'Two lines are one wall' },
  { value: 'no' as const, label: 'Each line is a wall' },
]
const unitName = (unit: string | null | undefined) => UNITS.find((u) => u.value === unit)?.label ?? ''
const options = computed(() => [
  { id: '', label: 'Leave out' },
  ...constructionsOf(store.catalogue, ['wall', 'door', 'window', 'gap']),
])
const thickOptions = computed(() => [{ id: '', label: 'The same' }, ...constructionsOf(store.catalogue, ['wall'])])
const picked = computed(() => Object.fromEntries(Object.entries(chosen).filter(([, c]) => c)))
const scale = computed(() => METRES[units.value ?? ''])
const size = computed(() => {
  if (!scale.value) return 'The drawing does not say its units: choose them.'
  const { width, height, door } = props.inspection
  const whole = `${length(width * scale.value)} × ${length(height * scale.value)} across`
  return door ? `${whole}, its doors ${length(door * scale.value, 2)} wide` : whole
})
/** What is to be asked of the units, where nobody said them or the doors say something else. */
const asked = computed(() => {
  const { units: said, guess } = props.inspection
  if (!said && guess) return `It does not say its units; its size fits ${unitName(guess)}. Is a door, or a room you know, as wide as here?`
  if (said && guess && said !== guess) return `It says ${unitName(said)}, but its doors and its size fit ${unitName(guess)}. Which is it?`
  return ''
})
const told = { ours: 'ours', firm: 'as last time', name: 'by its name' } as Record<string, string>

function move(k: number, by: number): void {
  const [row] = storeys.splice(k, 1)
  storeys.splice(k + by, 0, row!)
}

function draw(): void {
  const several = storeys.filter((s) => s.taken).map((s) => ({
    name: s.name.trim() || 'Storey', box: s.box,
    layers: s.layer ? Object.fromEntries(Object.entries(picked.value).filter(([name]) => storeyOf(name) === s.layer)) : null,
  }))
  emit('draw', {
    units: units.value, layers: picked.value, ceiling_height_m: ceiling.value, thick: thick.value || null,
    faces: faces.value === 'auto' ? null : faces.value === 'yes', storeys: several, find_gear: gear.value, ...(storey.value.trim() ? { storey_name: storey.value.trim() } : {}), left_out: props.inspection.layers.map((l) => l.name).filter((n) => !picked.value[n]).slice(0, 500),
  })
}
</script>

<template>
  <div class="form">
    <label>Drawing units <Choice v-model="units" :options="UNITS" placeholder="Choose" fluid aria-label="Drawing units" /></label>
    <label v-if="askName && storeys.length < 2">Storey <InputText v-model="storey" size="small" maxlength="120" placeholder="First floor" fluid aria-label="Name of the storey" /></label>
    <NumberField label="Ceiling height" :value="ceiling" :min="1.6" :max="30" @change="ceiling = $event" />
    <p class="figure">{{ size }}</p>
    <p v-if="asked" class="asked">{{ asked }}</p>
    <label>Walls <Choice v-model="faces" :options="FACES" fluid aria-label="How walls are drawn" /></label>
    <label>Walls of {{ length(0.2, 2) }} and more <Choice v-model="thick" by="id" :options="thickOptions" placeholder="As their layer" fluid aria-label="Construction of thick walls" /></label>
  </div>
  <label v-if="inspection.gear" class="storey"><Checkbox v-model="gear" binary /> Take along what stands on it: {{ inspection.gear }} devices, racks, risers and ducts</label>
  <div v-if="storeys.length > 1" class="storeys" role="group" aria-label="Storeys">
    <p>Several plans are on it. Which are storeys, from the lowest up?</p>
    <div v-for="(s, k) in storeys" :key="k" class="storey">
      <Checkbox v-model="s.taken" binary :input-id="`storey-${k}`" :aria-label="`Take ${s.name}`" />
      <InputText v-model="s.name" size="small" maxlength="120" :aria-label="`Name of storey ${k + 1}`" :disabled="!s.taken" />
      <span v-if="s.box && scale" class="figure quiet">{{ length((s.box[2] - s.box[0]) * scale) }} × {{ length((s.box[3] - s.box[1]) * scale) }}</span>
      <Button icon="pi pi-arrow-up" size="small" text :disabled="k === 0" :aria-label="`${s.name} is lower`" @click="move(k, -1)" />
      <Button icon="pi pi-arrow-down" size="small" text :disabled="k === storeys.length - 1" :aria-label="`${s.name} is higher`" @click="move(k, 1)" />
    </div>
  </div>
  <div class="scroll">
    <table class="ledger">
      <thead><tr><th>Layer</th><th class="number">Lines</th><th>Drawn as</th><th /></tr></thead>
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
          <td class="quiet">{{ told[layer.told_by ?? ''] }}</td>
        </tr>
      </tbody>
    </table>
  </div>
  <div class="actions">
    <Button label="Back" text @click="emit('back')" />
    <Button
      label="Draw these layers" :disabled="!units || !Object.keys(picked).length || busy || (storeys.length > 0 && !storeys.some((s) => s.taken))"
      @click="draw"
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
  margin: 0;
}
.asked {
  border-left: 3px solid var(--gorse);
  padding-left: 8px;
}
.storeys {
  margin-bottom: 10px;
}
.storeys p {
  margin: 0 0 4px;
}
.storey {
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 1px 0;
}
.storey .figure {
  margin-left: auto;
}
.scroll {
  max-height: 240px;
  overflow: auto;
}
.actions {
  display: flex;
  justify-content: space-between;
  margin-top: 12px;
}
</style>
