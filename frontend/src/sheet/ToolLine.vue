<script setup lang="ts">
import InputText from 'primevue/inputtext'
import { computed, nextTick, useTemplateRef, watch } from 'vue'
import { useOneMore } from './useOneMore'
import { commonTold } from './common'
import { tool } from './tools'
import type { useGestures } from './useGestures'

/** What the tool in hand expects next, and a field for what is typed exactly. */
const props = defineProps<{ gestures: ReturnType<typeof useGestures> }>()
const info = computed(() => props.gestures.inHand.value)
const expects = computed(() => info.value?.expects?.(props.gestures.hand) || info.value?.hint)
const told = computed(() => props.gestures.wallHand.told.value || props.gestures.openingHand.told.value || props.gestures.picksHand.told.value || (tool.value === 'select' ? commonTold.value : ''))
watch(tool, (now) => now !== 'select' && (commonTold.value = ''))
const refused = computed(() => !!(props.gestures.wallHand.why.value || props.gestures.picksHand.why.value))
const oneMore = useOneMore()
const exact = props.gestures.exact
const field = useTemplateRef<{ $el: HTMLInputElement }>('field')

watch(exact, async (text, before) => {
  if (text === null || before !== null) return
  await nextTick()
  field.value?.$el.focus()
})

function back(): void {
  exact.value = null
  document.querySelector<SVGSVGElement>('svg.sheet')?.focus({ preventScroll: true })
}

function take(): void {
  if (info.value?.typed?.(props.gestures.hand, exact.value ?? '')) back()
}
</script>

<template>
  <p v-if="info" class="line" role="status" data-testid="tool-line">
    <b>{{ info.name }}</b>
    <InputText
      v-if="exact !== null" ref="field" v-model="exact" size="small" class="figure exact" maxlength="24"
      :aria-label="tool === 'room' ? 'Both lengths' : 'Length and angle'" @keydown.enter.prevent="take" @keydown.esc.stop.prevent="back"
    />
    <span v-if="exact !== null">{{ info.typing }}</span>
    <span v-else-if="told" :class="{ refused }">{{ told }}</span>
    <span v-else>{{ expects }}<template v-if="oneMore">; {{ oneMore }}</template><template v-if="tool !== 'select'">; Escape lets go</template></span>
  </p>
</template>

<style scoped>
.line {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 26px;
  padding: 2px 12px;
  border-top: 1px solid var(--granite-light);
  background: var(--paper);
  font: 400 12px/1.4 var(--condensed);
  white-space: nowrap;
  overflow: hidden;
  color: var(--granite);
}
span {
  overflow: hidden;
  text-overflow: ellipsis;
}
.refused {
  color: var(--rust);
}
b {
  color: var(--ink);
  font-weight: 600;
}
.exact {
  width: 96px;
}
</style>
