<script setup lang="ts">
import Button from 'primevue/button'
import { openedFigure } from '@/figures/useFigures'
import Elevation from './Elevation.vue'
import Facts from './Facts.vue'
import FloorTable from './FloorTable.vue'

/** Where the job begins: what kind of place it is, its line, what is promised, its storeys. */
</script>

<template>
  <div class="page" tabindex="0" role="region" aria-label="Place and storeys">
    <Facts />
    <section aria-labelledby="storeys">
      <h2 id="storeys">Buildings and storeys</h2>
      <Elevation />
      <FloorTable />
    </section>
    <Button label="Figures of the trade" icon="pi pi-book" size="small" outlined @click="openedFigure = ''" />
  </div>
</template>

<style scoped>
.page {
  display: grid;
  grid-template-columns: minmax(0, 1fr); /* a wide table below does not widen what is above */
  grid-auto-rows: max-content;
  align-content: start;
  gap: 22px;
}
.page > :deep(button) {
  justify-self: start;
}
h2 {
  margin-bottom: 6px;
}
</style>
