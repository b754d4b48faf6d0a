<script setup lang="ts" generic="V">
import Select from 'primevue/select'

/** One of several, from a list that opens. */
defineProps<{ modelValue?: V; options: readonly object[]; by?: 'value' | 'id'; named?: 'label' | 'name' }>()
defineEmits<{ 'update:modelValue': [value: Exclude<V, undefined>] }>()
</script>

<template>
  <Select
    :model-value="modelValue" :options="options as object[]" :option-label="named ?? 'label'" :option-value="by ?? 'value'" size="small"
    @update:model-value="$emit('update:modelValue', $event)"
  />
</template>
