<script setup lang="ts">
import Button from 'primevue/button'

/** What lies under the sheet: so high, with a way to put it away; a line above its rows, or a column beside. */
defineProps<{ high: number; close: string; rows?: string }>()
defineEmits<{ close: [] }>()
</script>

<template>
  <section class="band" :class="{ lined: $slots['head'] }" :style="{ height: `${high}px` }">
    <template v-if="$slots['head']">
      <div class="head"><slot name="head" /></div>
      <slot name="under" />
      <div class="rows" tabindex="0" role="region" :aria-label="rows"><slot /></div>
    </template>
    <template v-else>
      <div v-if="$slots['side']" class="side"><slot name="side" /></div>
      <slot />
    </template>
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
.lined {
  flex-direction: column;
}
.head {
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 4px 36px 4px 10px;
}
.rows {
  flex: 1;
  overflow: auto;
}
.side {
  width: 248px;
  flex: none;
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  gap: 6px;
  padding: 8px 10px;
  border-right: 1px solid var(--granite-light);
  overflow: auto;
}
.side > :deep(*) {
  flex: none;
}
.side :deep(.quiet),
.side :deep(.near) {
  font: 400 12px/1.35 var(--condensed);
}
.close {
  position: absolute;
  right: 4px;
  top: 2px;
}
</style>
