<script setup lang="ts">
import { computed, ref } from 'vue'
import Choices from '@/controls/Choices.vue'
import { useOrder } from '@/answers/useOrder'
import AgreedNote from '@/controls/AgreedNote.vue'
import PrintButton from '@/controls/PrintButton.vue'
import StageFrame from '@/controls/StageFrame.vue'
import { useDesign } from '@/document/store'
import FindingCard from '@/controls/FindingCard.vue'
import CuttingBand from './CuttingBand.vue'
import FirmHead from './FirmHead.vue'
import GearPart from './GearPart.vue'
import OffersTable from './OffersTable.vue'
import PartsTable from './PartsTable.vue'
import PriceBar from './PriceBar.vue'
import PriceList from './PriceList.vue'
import Savings from './Savings.vue'
import WorkTable from './WorkTable.vue'

/** What is bought and done for the plan, and what it costs; every line opens to where it comes from. */
const store = useDesign()
const { order, failed, load } = useOrder()
const part = ref<'parts' | 'cutting' | 'work' | 'offers' | 'prices' | 'gear' | 'firm'>('parts')
const PARTS = [{ value: 'parts', label: 'Parts' }, { value: 'cutting', label: 'Cutting' }, { value: 'work', label: 'Work' }, { value: 'offers', label: 'Offers' }, { value: 'prices', label: 'Prices' }, { value: 'gear', label: 'Gear' }, { value: 'firm', label: 'Firm' }]

/** Other prices: the order and what the foot says of it are asked for anew. */
async function repriced(): Promise<void> {
  await Promise.all([load(), store.evaluateFully()])
}
const empty = computed(() => order.value && !order.value.lines.length)
</script>

<template>
  <StageFrame>
    <template #bar>
      <Choices v-model="part" :options="PARTS" aria-label="Part of the order" />
      <a class="out" :href="`/api/projects/${store.id}/export/order.xlsx`" download><i class="pi pi-download" /> Workbook</a>
      <a class="out" :href="`/api/projects/${store.id}/export/parts.csv`" download><i class="pi pi-download" /> List, CSV</a>
      <AgreedNote class="print" />
      <PrintButton kind="quote_pdf" label="Print the offer" />
    </template>
    <div class="page" tabindex="0" role="region" aria-label="Order">
      <p v-if="failed" role="alert">{{ failed }}</p>
      <p v-if="!order && !failed" class="quiet">Working it out.</p>
      <p v-if="empty" class="quiet">Nothing is planned yet. Whatever is placed on the plan has its line here.</p>
      <FirmHead v-if="part === 'firm'" />
      <GearPart v-else-if="part === 'gear'" @changed="repriced" />
      <template v-else-if="order && !empty">
        <PriceBar :sum="order.sum" :currency="order.currency" :budget="store.site?.budget ?? null" />
        <FindingCard v-for="f in order.findings" :key="f.id" :finding="f" class="told" />
        <Savings v-if="order.findings.some((f) => f.id === 'order-budget')" />
        <PartsTable v-if="part === 'parts'" :order="order" />
        <CuttingBand v-else-if="part === 'cutting'" />
        <WorkTable v-else-if="part === 'work'" :order="order" />
        <OffersTable v-else-if="part === 'offers'" />
        <PriceList v-else :told="order.told" @taken="repriced" />
      </template>
    </div>
  </StageFrame>
</template>

<style scoped>
.print {
  margin-left: auto;
}
.told {
  margin-left: 0;
}
</style>
