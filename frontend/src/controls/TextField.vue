<script setup lang="ts">
import InputText from 'primevue/inputtext'

/** A word, a day or a time of day that is typed; handed on when it is done and different. */
const props = withDefaults(defineProps<{ label: string; value: string; type?: 'text' | 'date' | 'time'; longest?: number }>(), { type: 'text', longest: 120 })
const emit = defineEmits<{ change: [value: string] }>()

function done(event: Event): void {
  const text = (event.target as HTMLInputElement).value.trim().slice(0, props.longest)
  if (text !== props.value && (text || props.type !== 'time')) emit('change', text)
}
</script>

<template>
  <label>{{ label }} <InputText :model-value="value" :type="type" size="small" :maxlength="longest" fluid :aria-label="label" @change="done" /></label>
</template>
