<script setup lang="ts">
/** A small count, stepped by pressing rather than typed. */
const props = withDefaults(defineProps<{ value: number; name: string; most?: number }>(), { most: 5000 })
const emit = defineEmits<{ change: [value: number] }>()

function typed(event: Event): void {
  const wanted = Math.round(Number((event.target as HTMLInputElement).value))
  const value = Number.isFinite(wanted) ? Math.min(Math.max(wanted, 0), props.most) : props.value
  ;(event.target as HTMLInputElement).value = String(value)
  if (value !== props.value) emit('change', value)
}
</script>

<template>
  <span class="stepper" role="group" :aria-label="name">
    <button class="plain step" :disabled="value <= 0" :aria-label="`${name}: one less`" @click="emit('change', value - 1)">−</button>
    <input class="figure" inputmode="numeric" :value="value" :aria-label="name" @change="typed">
    <button class="plain step" :disabled="value >= most" :aria-label="`${name}: one more`" @click="emit('change', value + 1)">+</button>
  </span>
</template>

<style scoped>
.stepper {
  display: inline-flex;
  align-items: center;
}
.step {
  width: 24px;
  height: 24px;
  text-align: center;
  border: 1px solid var(--granite-mid);
  border-radius: 3px;
  font: 600 14px/1 var(--sans);
}
.step:disabled {
  color: var(--granite-mid);
  cursor: default;
}
.step:not(:disabled):hover {
  background: var(--heather-wash);
  border-color: var(--heather);
}
input {
  width: 34px;
  border: 0;
  background: none;
  color: inherit;
  text-align: center;
  font-size: 13px;
}
@media (max-width: 1000px), (pointer: coarse) {
  .step {
    width: 44px;
    height: 44px;
  }
}
</style>
