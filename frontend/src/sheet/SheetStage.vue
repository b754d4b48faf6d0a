<script setup lang="ts">
import { computed } from 'vue'
import Choice from '@/controls/Choice.vue'
import type { Device } from '@/api/types'
import { useDesign } from '@/document/store'
import type { SheetMode } from './mode'
import SheetView from './SheetView.vue'
import type { Viewport } from './useViewport'

/** The frame of a stage whose work is on the sheet: a bar above, what stands beside it, the drawing. */
defineOptions({ inheritAttrs: false })
defineSlots<{ bar?(): unknown; instead?(): unknown; beside?(): unknown; below?(): unknown; layers?(drawn: { viewport: Viewport; devices: Device[]; chosen: string | null }): unknown }>()
/** `apart`: something else than the sheet of one storey is shown. */
defineProps<{ mode: SheetMode; apart?: boolean }>()
const floor = defineModel<string>('floor', { required: true })
const store = useDesign()
const floors = computed(() => store.floors.map((f) => ({ value: f.id, label: f.name })))
</script>

<template>
  <section class="stage">
    <div class="bar">
      <Choice
        v-model="floor" :options="floors" class="floor"
        aria-label="Floor"
      />
      <slot name="bar" />
    </div>
    <div v-if="apart" class="ground"><slot name="instead" /></div>
    <div v-else class="ground">
      <slot name="beside" />
      <!-- What the stage says of the sheet goes on to it as it is. -->
      <SheetView v-if="floor" v-bind="$attrs" :floor="floor" :mode="mode" class="drawing">
        <template #default="drawn"><slot name="layers" v-bind="drawn" /></template>
      </SheetView>
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
