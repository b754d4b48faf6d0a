<script setup lang="ts">
import { computed } from 'vue'
import { useDesign } from '@/document/store'
import { tool, toolsOf } from './tools'

/** What the tool in hand expects next. */
const props = defineProps<{ expects?: string }>()
const store = useDesign()
const info = computed(() => toolsOf(store.catalogue).find((t) => t.tool === tool.value))
</script>

<template>
  <p v-if="info" class="line" role="status" data-testid="tool-line">
    <b>{{ info.name }}</b> {{ props.expects || info.hint }}<template v-if="tool !== 'select'">; Escape lets go</template>
  </p>
</template>

<style scoped>
.line {
  padding: 4px 12px;
  border-top: 1px solid var(--granite-light);
  font: 400 12px/1.4 var(--condensed);
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  color: var(--granite);
}
b {
  color: var(--ink);
  font-weight: 600;
  margin-right: 4px;
}
</style>
