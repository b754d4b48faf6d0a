<script setup lang="ts">
import { computed } from 'vue'
import { useDesign } from '@/document/store'
import MarkShape from '@/sheet/MarkShape.vue'
import { tool, toolsOf } from '@/sheet/tools'

const store = useDesign()
const tools = computed(() => toolsOf(store.catalogue).filter((t) => !t.stage))
</script>

<template>
  <div class="tools" role="toolbar" aria-label="Tools" aria-orientation="vertical">
    <button
      v-for="info in tools" :key="info.tool" class="plain tool" :class="{ on: tool === info.tool }"
      :aria-pressed="tool === info.tool" :aria-keyshortcuts="info.key.toUpperCase()"
      :data-tool="info.tool" @click="tool = info.tool"
    >
      <svg width="20" height="20" viewBox="-11 -11 22 22" aria-hidden="true">
        <path v-if="info.lines" :d="info.lines" />
        <MarkShape v-else :shape="info.mark ?? ''" />
      </svg>
      <span class="name">{{ info.name }}</span>
      <kbd>{{ info.key.toUpperCase() }}</kbd>
    </button>
  </div>
</template>

<style scoped>
.tools {
  width: 142px;
  padding: 4px 5px;
  border-right: 1px solid var(--granite-light);
  overflow: auto;
  display: flex;
  flex-direction: column;
}
.tool {
  display: grid;
  grid-template-columns: 22px 1fr auto;
  align-items: center;
  gap: 6px;
  padding: 1.7px 6px;
  border: 1px solid transparent;
  border-radius: 3px;
  text-align: left;
}
.name {
  font: 600 12px/1.2 var(--condensed);
  white-space: nowrap;
}
kbd {
  font: 500 11px var(--mono);
  color: var(--granite);
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
@media (max-width: 1000px) {
  .tools {
    width: 58px;
  }
  .tool {
    min-height: 44px;
    grid-template-columns: 1fr;
    justify-items: center;
    gap: 0;
    padding: 2px;
  }
  .name {
    font-size: 11px;
    font-weight: 400;
    white-space: normal;
    text-align: center;
  }
  kbd {
    display: none;
  }
}
</style>
