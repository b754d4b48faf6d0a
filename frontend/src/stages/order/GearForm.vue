<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { computed, ref } from 'vue'
import { ApiError, api, taken } from '@/api/client'
import type { GearList, GearRow } from '@/api/types'
import Choice from '@/controls/Choice.vue'
import GearFace from './GearFace.vue'

/** A thing as its sheet has it, field by field; what cannot be is said at its field. */
const props = defineProps<{ row: GearRow; fields: GearList['shelves'][number]['fields']; what: string }>()
const emit = defineEmits<{ saved: [list: GearList]; close: [] }>()
const values = ref<Record<string, string>>({ ...props.row.values })
const wrong = ref<Record<string, string>>({})
const other = ref('')
const HINTS: Record<string, string> = { ports: '8 x 2500 class 6, 2 x 10000 cage', radios: '2.4: 6 to 20 dBm, 4 dBi; 5: 6 to 23 dBm, 5 dBi', packs: '3: 369, 5: 599', rates: '-90: 20, -80: 90', words: 'ceiling, wall' }
const WIDE = ['text', 'ports', 'radios', 'rates']
const FLAGS = [{ value: 'yes', label: 'yes' }, { value: 'no', label: 'no' }]
const changed = computed(() => props.fields.some((f) => (values.value[f.name] ?? '') !== (props.row.values[f.name] ?? '')))
const choicesOf = (choices: readonly string[]) => [{ value: '', label: 'not said' }, ...choices.map((c) => ({ value: c, label: c }))]

async function save(): Promise<void> {
  wrong.value = {}
  other.value = ''
  try {
    emit('saved', await taken(api.PUT('/api/firm/gear', { body: { shelf: props.row.shelf, id: props.row.id, values: values.value, withdrawn: props.row.withdrawn } })))
  } catch (error) {
    if (!(error instanceof ApiError)) throw error
    const named = new Set(props.fields.map((f) => f.name))
    const fieldOf = (where: string) => [...named].find((n) => where === n || where.startsWith(`${n}.`) || where.endsWith(`.${n}`))
    for (const p of error.problems) {
      const field = fieldOf(p.where)
      if (field) wrong.value[field] = p.what
      else other.value = p.where ? `${p.where}: ${p.what}` : p.what
    }
    if (!error.problems.length) other.value = error.message
  }
}
</script>

<template>
  <form class="form" data-testid="gear-form" @submit.prevent="save">
    <header><h2>{{ row.id ? row.values['label'] : `New ${what.toLowerCase()}` }}</h2><GearFace :values="values" /></header>
    <div class="grid">
      <label v-for="f in fields" :key="f.name" :class="{ wide: WIDE.includes(f.kind), bad: wrong[f.name] }">
        <span>{{ f.label }}<template v-if="f.unit">, {{ f.unit }}</template></span>
        <Choice v-if="f.kind === 'flag'" :model-value="values[f.name] || 'no'" :options="FLAGS" fluid :aria-label="f.label" @update:model-value="values[f.name] = $event" />
        <Choice v-else-if="f.kind === 'choice'" :model-value="values[f.name] ?? ''" :options="choicesOf(f.choices)" fluid :aria-label="f.label" @update:model-value="values[f.name] = $event" />
        <InputText v-else v-model="values[f.name]" size="small" fluid maxlength="400" :class="{ figure: f.kind === 'number' }" :inputmode="f.kind === 'number' ? 'decimal' : undefined" :placeholder="HINTS[f.kind] ?? ''" :aria-label="f.label" :invalid="!!wrong[f.name]" />
        <em v-if="wrong[f.name]" role="alert">{{ wrong[f.name] }}</em>
      </label>
    </div>
    <p v-if="other" role="alert" class="not_met">{{ other }}</p>
    <div class="acts">
      <Button type="submit" :label="row.id ? 'Save' : 'Add it'" size="small" :disabled="!changed" />
      <Button label="Leave it" size="small" text @click="emit('close')" />
      <span v-if="row.used" class="quiet">It stands in {{ row.used }} {{ row.used === 1 ? 'plan' : 'plans' }}, which are worked out anew.</span>
    </div>
  </form>
</template>

<style scoped>
header {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 16px;
  margin-bottom: 8px;
}
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(190px, 1fr));
  gap: 8px 14px;
  align-items: start;
}
.grid label {
  display: grid;
  gap: 2px;
  font: 400 12px/1.3 var(--condensed);
  color: var(--granite);
}
.grid .wide {
  grid-column: span 2;
}
em {
  color: var(--rust);
  font-style: normal;
  font-weight: 600;
}
.acts {
  display: flex;
  align-items: center;
  gap: 10px;
  margin-top: 12px;
}
</style>
