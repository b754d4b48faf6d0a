<script setup lang="ts">
import { computed } from 'vue'
import { useDesign } from '@/document/store'
import { tool, toolsOf } from '@/sheet/tools'

/** Takes a tool of the brief in hand. */
const props = defineProps<{ of: string; label?: string }>()
const store = useDesign()
const info = computed(() => toolsOf(store.catalogue).find((t) => t.tool === props.of))
</script>

<template>
  <button class="plain take" :class="{ on: tool === of }" :aria-pressed="tool === of" :data-tool="of" @click="tool = tool === of ? 'select' : of">
    {{ label ?? info?.name }}
  </button>
</template>

<style scoped>
.take {
  border: 1px solid var(--granite-mid);
  border-radius: 3px;
  padding: 3px 8px;
  font: 500 12px/1.4 var(--condensed);
}
.take:hover {
  background: var(--paper-deep);
}
.take.on {
  border-color: var(--heather);
  background: var(--heather-wash);
  color: var(--heather);
}
</style>
