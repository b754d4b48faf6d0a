<script setup lang="ts">
import InputNumber from 'primevue/inputnumber'
import { computed } from 'vue'
import { fromShown, lengthUnit, toShown } from '@/document/units'

/** A figure that is typed exactly; lengths follow the switch between metres and feet. `name` where no label is shown. */
const props = withDefaults(
  defineProps<{ label: string; name?: string; value: number; unit?: 'length' | 'degrees' | 'plain'; min?: number; max?: number; digits?: number; suffix?: string }>(),
  { name: '', unit: 'length', min: undefined, max: undefined, digits: 2, suffix: '' },
)
const emit = defineEmits<{ change: [value: number] }>()
const isLength = computed(() => props.unit === 'length')
const shown = computed(() => (isLength.value ? toShown(props.value) : props.value))
const ending = computed(() => (isLength.value ? ` ${lengthUnit()}` : props.unit === 'degrees' ? '°' : props.suffix))

function changed(next: number | null): void {
  if (next === null) return
  const value = isLength.value ? fromShown(next) : next
  if (Math.abs(value - props.value) > 1e-6) emit('change', Number(value.toFixed(4)))
}
</script>

<template>
  <label>{{ label }}
    <InputNumber
      :model-value="shown" :min="min === undefined ? undefined : isLength ? toShown(min) : min"
      :max="max === undefined ? undefined : isLength ? toShown(max) : max" :max-fraction-digits="digits"
      :suffix="ending" size="small" fluid :aria-label="name || label" locale="en-GB" :use-grouping="false"
      @update:model-value="changed($event as number | null)"
    />
  </label>
</template>
