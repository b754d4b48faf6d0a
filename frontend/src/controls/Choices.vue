<script setup lang="ts" generic="V">
import SelectButton from 'primevue/selectbutton'

/** One of a few, all of them in sight. */
defineProps<{ modelValue?: V; options: readonly object[] }>()
defineEmits<{ 'update:modelValue': [value: Exclude<V, undefined>] }>()
</script>

<template>
  <SelectButton
    :model-value="modelValue" :options="options as object[]" option-label="label" option-value="value" :allow-empty="false" size="small"
    @update:model-value="$emit('update:modelValue', $event)"
  />
</template>
