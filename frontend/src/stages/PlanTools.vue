<script setup lang="ts">
import Select from 'primevue/select'
import { computed } from 'vue'
import { useDesign } from '@/design/store'
import MarkShape from '@/sheet/MarkShape.vue'
import { constructionsOf } from '@/sheet/pens'
import { TOOLS, tool, wallConstruction } from '@/sheet/tools'

const store = useDesign()
const walls = computed(() => constructionsOf(store.catalogue, ['wall']))
const LINES: Record<string, string> = {
  select: 'M-5 -7L5 2L0 3L-2 8Z',
  wall: 'M-8 6L8 -6',
  room: 'M-7 -6H7V6H-7Z',
  door: 'M-6 7V-7A14 14 0 0 1 8 7Z',
  duct: 'M-9 -5H-1V5H9M-9 -8V-2M9 2V8',
  window: 'M-8 -2H8M-8 2H8M-8 -5V5M8 -5V5',
}
const draws = computed(() => tool.value === 'wall' || tool.value === 'room')
</script>

<template>
  <div class="tools" role="toolbar" aria-label="Tools">
    <button
      v-for="info in TOOLS" :key="info.tool" v-tooltip.bottom="`${info.name} (${info.key.toUpperCase()}). ${info.hint}`"
      class="plain tool" :class="{ on: tool === info.tool }" :aria-pressed="tool === info.tool" :aria-label="info.name"
      :data-tool="info.tool" @click="tool = info.tool"
    >
      <svg width="22" height="22" viewBox="-11 -11 22 22" aria-hidden="true">
        <path v-if="LINES[info.tool]" :d="LINES[info.tool]" />
        <MarkShape v-else :shape="info.tool" />
      </svg>
    </button>
  </div>
  <Select
    v-if="draws" v-model="wallConstruction" :options="walls" option-label="label" option-value="id" size="small"
    class="construction" aria-label="Construction of new walls"
  />
</template>

<style scoped>
.tools {
  display: flex;
  gap: 1px;
}
.tool {
  padding: 4px;
  border: 1px solid transparent;
  border-radius: 3px;
  line-height: 0;
}
.tool:hover {
  background: var(--paper-deep);
}
.tool.on {
  border-color: var(--heather);
  background: var(--heather-wash);
  color: var(--heather);
}
.tool > svg > path {
  fill: none;
  stroke: currentColor;
  stroke-width: 1.7;
  stroke-linejoin: round;
  stroke-linecap: round;
}
.construction {
  width: 190px;
}
</style>
