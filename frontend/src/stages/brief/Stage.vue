<script setup lang="ts">
import SelectButton from 'primevue/selectbutton'
import { ref } from 'vue'
import PrintButton from '@/controls/PrintButton.vue'
import SheetStage from '@/sheet/SheetStage.vue'
import FactsPage from './FactsPage.vue'
import Notebook from './Notebook.vue'

/** The visit: what kind of place it is, and what it brings home, most of it pressed on the sheet. */
const floor = defineModel<string>('floor', { required: true })
const part = ref<'facts' | 'sheet'>('facts')
const PARTS = [{ value: 'facts', label: 'Place and storeys' }, { value: 'sheet', label: 'On the sheet' }]
</script>

<template>
  <SheetStage v-if="part === 'sheet'" v-model:floor="floor" mode="brief">
    <template #bar>
      <SelectButton v-model="part" :options="PARTS" option-label="label" option-value="value" :allow-empty="false" size="small" aria-label="Part of the brief" />
      <PrintButton kind="brief_pdf" label="Print the brief" class="print" />
    </template>
    <template #beside><Notebook :floor="floor" @floor="floor = $event" /></template>
  </SheetStage>
  <section v-else class="facts-part">
    <div class="bar">
      <SelectButton v-model="part" :options="PARTS" option-label="label" option-value="value" :allow-empty="false" size="small" aria-label="Part of the brief" />
      <PrintButton kind="brief_pdf" label="Print the brief" class="print" />
    </div>
    <FactsPage />
  </section>
</template>

<style scoped>
.facts-part {
  height: 100%;
  display: flex;
  flex-direction: column;
}
.bar {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 4px 8px;
  padding: 5px 8px;
  border-bottom: 1px solid var(--granite-light);
  min-height: 42px;
}
.facts-part > :deep(.page) {
  flex: 1;
  min-height: 0;
}
.print {
  margin-left: auto;
}
</style>
