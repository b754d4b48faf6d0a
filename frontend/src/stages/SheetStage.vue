<script setup lang="ts">
import Select from 'primevue/select'
import SelectButton from 'primevue/selectbutton'
import { computed, reactive, watch } from 'vue'
import type { Site, View } from '@/api/types'
import { put } from '@/document/edits'
import { useDesign } from '@/document/store'
import SheetView from '@/sheet/SheetView.vue'
import { constructionsOf } from '@/sheet/pens'
import ToolLine from '@/sheet/ToolLine.vue'
import { tool, wallConstruction } from '@/sheet/tools'
import PlanTools from './PlanTools.vue'

const props = defineProps<{ mode: 'plan' | 'signal' | 'cable' }>()
const floor = defineModel<string>('floor', { required: true })
const store = useDesign()

const walls = computed(() => constructionsOf(store.catalogue, ['wall']))
const floors = computed(() => store.floors.map((f) => ({ value: f.id, label: f.name })))
const wanted = reactive({ band: '5' as View['band'], rank: 1, direction: 'weaker' as View['direction'] })
const BANDS = [{ value: '2.4', label: '2.4 GHz' }, { value: '5', label: '5 GHz' }, { value: '6', label: '6 GHz' }]
const RANKS = [{ value: 1, label: 'First' }, { value: 2, label: 'Second' }]
const WAYS = [
  { value: 'downlink', label: 'Downlink' },
  { value: 'uplink', label: 'Uplink' },
  { value: 'weaker', label: 'Weaker' },
]
const CATEGORIES = ['5e', '6', '6A'].map((c) => ({ value: c, label: `category ${c}` }))
const COUNTS = [1, 2, 3, 4].map((n) => ({ value: n, label: n === 1 ? 'one cable' : `${n} cables` }))

watch(
  () => [props.mode, floor.value, wanted.band, wanted.rank, wanted.direction, store.id] as const,
  () => {
    const shown = props.mode === 'signal' && floor.value
    store.show(shown ? { floor: floor.value, ...wanted } : null)
    if (props.mode !== 'plan') tool.value = 'select'
  },
  { immediate: true },
)

function set(change: Partial<Site>, label: string): void {
  if (store.site) store.commit(label, [put('site', { ...store.site, ...change })])
}
</script>

<template>
  <section class="stage">
    <div class="bar">
      <Select
        v-model="floor" :options="floors" option-label="label" option-value="value" size="small" class="floor"
        aria-label="Floor"
      />
      <label v-if="mode === 'plan'">New walls <Select
        v-model="wallConstruction" :options="walls" option-label="label" option-value="id" size="small"
        class="construction" aria-label="Construction of new walls"
      /></label>
      <template v-else-if="mode === 'signal'">
        <SelectButton v-model="wanted.band" :options="BANDS" option-label="label" option-value="value" :allow-empty="false" size="small" aria-label="Band" />
        <SelectButton v-model="wanted.rank" :options="RANKS" option-label="label" option-value="value" :allow-empty="false" size="small" aria-label="First or second access point" />
        <SelectButton v-model="wanted.direction" :options="WAYS" option-label="label" option-value="value" :allow-empty="false" size="small" aria-label="Direction" />
      </template>
      <template v-else-if="store.site">
        <label>At least <Select
          :model-value="store.site.minimum_category" :options="CATEGORIES" option-label="label" option-value="value"
          size="small" aria-label="Least category" @update:model-value="set({ minimum_category: $event }, 'Least category')"
        /></label>
        <label>To each access point <Select
          :model-value="store.site.cables_per_access_point" :options="COUNTS" option-label="label" option-value="value"
          size="small" aria-label="Cables to each access point" @update:model-value="set({ cables_per_access_point: $event }, 'Cables per access point')"
        /></label>
      </template>
    </div>
    <div class="ground">
      <PlanTools v-if="mode === 'plan'" />
      <div class="drawing">
        <SheetView v-if="floor" :floor="floor" :mode="mode" class="sheet" />
        <ToolLine v-if="mode === 'plan'" />
      </div>
    </div>
  </section>
</template>

<style scoped>
.stage {
  height: 100%;
  display: flex;
  flex-direction: column;
}
.bar {
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 5px 8px;
  border-bottom: 1px solid var(--granite-light);
  min-height: 42px;
}
.bar label {
  display: flex;
  align-items: center;
  gap: 6px;
  color: var(--granite);
  font-size: 12px;
}
.floor {
  width: 132px;
}
.ground {
  flex: 1;
  min-height: 0;
  display: flex;
}
.drawing {
  flex: 1;
  min-width: 0;
  display: flex;
  flex-direction: column;
}
.construction {
  width: 210px;
}
.sheet {
  flex: 1;
  min-height: 0;
}
</style>
