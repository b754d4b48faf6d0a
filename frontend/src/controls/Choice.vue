<script setup lang="ts" generic="V, O extends object">
import Select from 'primevue/select'

/** One of several, from a list that opens. */
defineProps<{ modelValue?: V; options: readonly O[]; by?: 'value' | 'id'; named?: 'label' | 'name' }>()
defineSlots<{ option?(row: { option: O }): unknown }>()
defineEmits<{ 'update:modelValue': [value: Exclude<V, undefined>] }>()
</script>

<template>
  <Select
    :model-value="modelValue" :options="options as O[]" :option-label="named ?? 'label'" :option-value="by ?? 'value'" size="small"
    @update:model-value="$emit('update:modelValue', $event)"
  >
    <template v-if="$slots.option" #option="row"><slot name="option" :option="row.option as O" /></template>
  </Select>
</template>
