<script setup lang="ts">
import Select from 'primevue/select'
import { computed } from 'vue'
import type { MeshLink, Point, Ray, Residual, SpotView } from '@/api/types'
import type { BestSoFar, Moved } from '@/answers/useSites'
import { useDesign } from '@/document/store'
import type { SheetMode } from './mode'
import SheetView from './SheetView.vue'
import type { Walked } from './walked'

/** The frame of a stage whose work is on the sheet: a bar above, what stands beside it, the drawing. */
defineProps<{ mode: SheetMode; today?: boolean; spot?: SpotView | null; ray?: Ray | null; walked?: Walked | null; fallen?: Map<string, string> | null; against?: string; proposed?: Moved[] | null; best?: BestSoFar | null; mesh?: MeshLink[] | null; measured?: { rows: Residual[]; fitted: boolean } | null; pin?: Point | null }>()
defineEmits<{ spot: [at: Point] }>()
const floor = defineModel<string>('floor', { required: true })
const store = useDesign()
const floors = computed(() => store.floors.map((f) => ({ value: f.id, label: f.name })))
</script>

<template>
  <section class="stage">
    <div class="bar">
      <Select
        v-model="floor" :options="floors" option-label="label" option-value="value" size="small" class="floor"
        aria-label="Floor"
      />
      <slot name="bar" />
    </div>
    <div class="ground">
      <slot name="beside" />
      <SheetView v-if="floor" :floor="floor" :mode="mode" :today="today" :spot="spot" :ray="ray" :walked="walked" :fallen="fallen" :against="against" :proposed="proposed" :best="best" :mesh="mesh" :measured="measured" :pin="pin" class="drawing" @spot="$emit('spot', $event)" />
    </div>
    <slot name="below" />
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
  flex-wrap: wrap;
  gap: 4px 8px;
  padding: 5px 8px;
  border-bottom: 1px solid var(--granite-light);
  min-height: 42px;
}
.bar :deep(label) {
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
}
</style>
