<script setup lang="ts">
import { ref } from 'vue'
import Choices from '@/controls/Choices.vue'
import PrintButton from '@/controls/PrintButton.vue'
import StageFrame from '@/controls/StageFrame.vue'
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
      <Choices v-model="part" :options="PARTS" aria-label="Part of the brief" />
      <PrintButton kind="brief_pdf" label="Print the brief" class="print" />
    </template>
    <template #beside><Notebook :floor="floor" @floor="floor = $event" /></template>
  </SheetStage>
  <StageFrame v-else>
    <template #bar>
      <Choices v-model="part" :options="PARTS" aria-label="Part of the brief" />
      <PrintButton kind="brief_pdf" label="Print the brief" class="print" />
    </template>
    <FactsPage />
  </StageFrame>
</template>

<style scoped>
.print {
  margin-left: auto;
}
</style>
