<script setup lang="ts">
import Button from 'primevue/button'

/** What lies under the sheet: so high, with a way to put it away. */
defineProps<{ high: number; close: string }>()
defineEmits<{ close: [] }>()
</script>

<template>
  <section class="band" :style="{ height: `${high}px` }">
    <slot />
    <Button icon="pi pi-times" size="small" text :aria-label="close" class="close" @click="$emit('close')" />
  </section>
</template>

<style scoped>
.band {
  position: relative;
  flex: none;
  display: flex;
  border-top: 1px solid var(--granite-mid);
  background: var(--paper);
}
.close {
  position: absolute;
  right: 4px;
  top: 2px;
}
</style>
