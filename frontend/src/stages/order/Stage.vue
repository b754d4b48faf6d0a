<script setup lang="ts">
import SelectButton from 'primevue/selectbutton'
import { computed, ref } from 'vue'
import { useOrder } from '@/answers/useOrder'
import AgreedNote from '@/controls/AgreedNote.vue'
import PrintButton from '@/controls/PrintButton.vue'
import StageFrame from '@/controls/StageFrame.vue'
import { useDesign } from '@/document/store'
import OffersTable from './OffersTable.vue'
import PartsTable from './PartsTable.vue'
import PriceBar from './PriceBar.vue'
import PriceList from './PriceList.vue'
import WorkTable from './WorkTable.vue'

/** What is bought and done for the plan, and what it costs; every line opens to where it comes from. */
const store = useDesign()
const { order, failed, load } = useOrder()
const part = ref<'parts' | 'work' | 'offers' | 'prices'>('parts')
const PARTS = [{ value: 'parts', label: 'Parts' }, { value: 'work', label: 'Work' }, { value: 'offers', label: 'Offers' }, { value: 'prices', label: 'Prices' }]
const empty = computed(() => order.value && !order.value.lines.length)
</script>

<template>
  <StageFrame>
    <template #bar>
      <SelectButton v-model="part" :options="PARTS" option-label="label" option-value="value" :allow-empty="false" size="small" aria-label="Part of the order" />
      <a class="out" :href="`/api/projects/${store.id}/export/order.xlsx`" download><i class="pi pi-download" /> Workbook</a>
      <a class="out" :href="`/api/projects/${store.id}/export/parts.csv`" download><i class="pi pi-download" /> List, CSV</a>
      <AgreedNote class="print" />
      <PrintButton kind="quote_pdf" label="Print the offer" />
    </template>
    <div class="page" tabindex="0" role="region" aria-label="Order">
      <p v-if="failed" role="alert">{{ failed }}</p>
      <p v-if="!order && !failed" class="quiet">Working it out.</p>
      <p v-if="empty" class="quiet">Nothing is planned yet. Whatever is placed on the plan has its line here.</p>
      <template v-if="order && !empty">
        <PriceBar :sum="order.sum" :currency="order.currency" :budget="store.site?.budget ?? null" />
        <PartsTable v-if="part === 'parts'" :order="order" />
        <WorkTable v-else-if="part === 'work'" :order="order" />
        <OffersTable v-else-if="part === 'offers'" />
        <PriceList v-else :told="order.told" @taken="load" />
      </template>
    </div>
  </StageFrame>
</template>

<style scoped>
.print {
  margin-left: auto;
}
</style>
