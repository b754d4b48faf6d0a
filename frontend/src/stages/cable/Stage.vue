<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { computed, watch } from 'vue'
import { useBeside } from '@/answers/useBeside'
import { api, taken } from '@/api/client'
import Choice from '@/controls/Choice.vue'
import type { Site } from '@/api/types'
import PrintButton from '@/controls/PrintButton.vue'
import { put } from '@/document/edits'
import { useDesign } from '@/document/store'
import { signed } from '@/document/units'
import SheetStage from '@/sheet/SheetStage.vue'
import RemediesBand from './RemediesBand.vue'

const floor = defineModel<string>('floor', { required: true })
const store = useDesign()
/** What each category costs beside the one there is, worked out when the list opens. */
const { answer: priced, load: price } = useBeside(
  (project_id) => taken(api.GET('/api/projects/{project_id}/categories', { params: { path: { project_id } } })), { wanted: () => false },
)
watch(() => store.revision, () => (priced.value = null))
const categories = computed(() =>
  (['5e', '6', '6A'] as const).map((value) => {
    const step = priced.value?.steps.find((s) => s.category === value)
    const now = priced.value?.steps.find((s) => s.now)
    const costs = step && !step.now ? `, ${signed(step.price)} ${priced.value!.currency}` : ''
    const fails = step?.failing && step.failing !== now?.failing ? `, ${step.failing} ${step.failing > 1 ? 'runs fail' : 'run fails'}` : ''
    return { value, label: `category ${value}`, said: `category ${value}${costs}${fails}` }
  }),
)
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
        :model-value="store.site.minimum_category" :options="categories" aria-label="Least category" @show="price()" @update:model-value="set({ minimum_category: $event }, 'Least category')"
      ><template #option="{ option }"><span class="said">{{ option.said }}</span></template></Choice></label>
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
