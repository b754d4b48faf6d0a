<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { computed } from 'vue'
import Choice from '@/controls/Choice.vue'
import type { Site } from '@/api/types'
import PrintButton from '@/controls/PrintButton.vue'
import { put } from '@/document/edits'
import { useDesign } from '@/document/store'
import SheetStage from '@/sheet/SheetStage.vue'
import RemediesBand from './RemediesBand.vue'

const floor = defineModel<string>('floor', { required: true })
const store = useDesign()
const CATEGORIES = ['5e', '6', '6A'].map((c) => ({ value: c, label: `category ${c}` }))
const COUNTS = [1, 2, 3, 4].map((n) => ({ value: n, label: n === 1 ? 'one cable' : `${n} cables` }))

const sheets = computed(() => Object.values(store.catalogue?.label_sheets ?? {}))
/** The sheets that are in the printer are the same from job to job. */
const sheet = useLocalStorage('heathrise-label-sheet', 'sleeve-a4')

/** The run of what is selected, where it does not do. */
const failing = computed(() => {
  const run = store.selection?.kind === 'device' ? store.shown?.cable.runs.find((r) => r.device === store.selection?.id) : undefined
  return run && !['met', 'near'].includes(run.verdict) ? run : null
})

function set(change: Partial<Site>, label: string): void {
  if (store.site) store.commit(label, [put('site', { ...store.site, ...change })])
}
</script>

<template>
  <SheetStage v-model:floor="floor" mode="cable">
    <template v-if="store.site" #bar>
      <label>At least <Choice
        :model-value="store.site.minimum_category" :options="CATEGORIES" aria-label="Least category" @update:model-value="set({ minimum_category: $event }, 'Least category')"
      /></label>
      <label>To each access point <Choice
        :model-value="store.site.cables_per_access_point" :options="COUNTS" aria-label="Cables to each access point" @update:model-value="set({ cables_per_access_point: $event }, 'Cables per access point')"
      /></label>
      <span class="print">
        <Choice by="id" v-model="sheet" :options="sheets" aria-label="Sheet of labels" class="sheet" />
        <PrintButton kind="labels_pdf" label="Print labels" :arguments="{ sheet }" />
      </span>
    </template>
    <template #below><RemediesBand v-if="failing" :run="failing" /></template>
  </SheetStage>
</template>

<style scoped>
.print {
  display: flex;
  gap: 6px;
  margin-left: auto;
}
.sheet {
  width: 150px;
}
</style>
