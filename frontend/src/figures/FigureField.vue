<script setup lang="ts">
import Button from 'primevue/button'
import InputNumber from 'primevue/inputnumber'
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import { computed } from 'vue'
import type { Figure } from '@/api/types'
import { keyOf, said, shownIn, type FigureValue, type Standing, type Whose } from './useFigures'

const props = defineProps<{
  figure: Figure
  value: FigureValue
  whose: Standing
  /** Whose view an edit changes. */
  editing: Whose
}>()
const emit = defineEmits<{ set: [value: FigureValue | null] }>()

const shown = computed(() => shownIn(props.figure.unit))
const bound = (limit: number | null | undefined) => (typeof limit === 'number' ? shown.value.to(limit) : undefined)
const fixed = computed(() => typeof props.figure.shipped === 'string' && !props.figure.choices.length)
const WHOSE = { shipped: '', firm: 'the firm\'s', profile: 'the practice profile\'s', project: 'this project\'s' } as const

function setNumber(next: number | null): void {
  const value = next === null ? props.figure.shipped : Number(shown.value.from(next).toFixed(4))
  if (value !== props.value) emit('set', value)
}

function setList(event: Event): void {
  const parts = (event.target as HTMLInputElement).value.split(/[\s,;]+/).filter(Boolean)
  const numbers = parts.map((part) => shown.value.from(Number(part)))
  if (numbers.every(Number.isFinite)) emit('set', numbers)
}
</script>

<template>
  <div class="field" :class="{ [whose]: true, wide: Array.isArray(value) }" :data-figure="figure.path">
    <span class="key">{{ keyOf(figure) }}</span>
    <span v-if="fixed" class="figure fixed">{{ value }}</span>
    <Select v-else-if="figure.choices.length" :model-value="value as string" :options="[...figure.choices]" size="small" fluid :aria-label="figure.label" @update:model-value="emit('set', $event)" />
    <InputText v-else-if="Array.isArray(value)" :model-value="value.map((v) => shown.to(v)).join(', ')" size="small" fluid class="figure" :aria-label="figure.label" @change="setList" />
    <InputNumber
      v-else :model-value="shown.to(value as number)" :min="bound(figure.least)" :max="bound(figure.most)"
      :max-fraction-digits="3" :suffix="shown.unit ? ` ${shown.unit}` : ''" size="small" fluid locale="en-GB" :use-grouping="false"
      :aria-label="figure.label" @update:model-value="setNumber($event as number | null)"
    />
    <span v-if="whose !== 'shipped'" class="whose">
      {{ WHOSE[whose] }}; shipped {{ said(figure.shipped, figure.unit) }}
      <Button v-if="whose === editing" label="Give back" text size="small" :aria-label="`Give back ${figure.label}`" @click="emit('set', null)" />
    </span>
  </div>
</template>

<style scoped>
.field {
  width: 116px;
}
.wide {
  width: 100%;
}
.key {
  display: block;
  font: 400 12px/1.3 var(--condensed);
  color: var(--granite);
}
.fixed {
  display: block;
  padding: 3px 0;
}
.firm :deep(input),
.project :deep(input) {
  border-color: var(--heather);
}
.whose {
  display: block;
  font: 400 12px/1.3 var(--condensed);
  color: var(--heather);
}
.whose :deep(.p-button) {
  padding: 0;
}
</style>
