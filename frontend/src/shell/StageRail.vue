<script setup lang="ts">
import { computed } from 'vue'
import { useProgress } from '@/answers/useProgress'
import { useDesign } from '@/document/store'
import { STAGES, type Stage } from '@/stages/registry'

defineProps<{ stage: Stage }>()
const emit = defineEmits<{ go: [stage: Stage] }>()
const store = useDesign()
const { progress } = useProgress()

const states = computed(() =>
  STAGES.map((info) => {
    const begun = info.begun(store)
    if (begun && info.says && progress.value) return { info, ...info.says(progress.value) }
    const open = store.findings.filter((f) => f.stage === info.id && f.severity !== 'note')
    const bad = open.filter((f) => f.severity === 'not_met').length
    // Before the first figures, or without a connection, nobody knows what is open.
    if (begun && !store.evaluation) return { info, text: '', tone: 'idle' }
    const text = !begun ? 'not begun' : open.length ? `${open.length} open` : 'settled'
    return { info, text, tone: !begun ? 'idle' : bad ? 'bad' : open.length ? 'near' : 'good' }
  }),
)
</script>

<template>
  <nav class="rail" aria-label="Stages of the job">
    <button
      v-for="(row, i) in states" :key="row.info.id" class="plain stage" :class="[{ here: row.info.id === stage }, row.tone]"
      :aria-current="row.info.id === stage ? 'page' : undefined" :data-stage="row.info.id" @click="emit('go', row.info.id)"
    >
      <svg width="26" height="26" viewBox="0 0 24 24" aria-hidden="true"><path :d="row.info.icon" /></svg>
      <span class="title">{{ row.info.name }}</span>
      <span class="text">{{ row.text }}</span>
      <span class="visually-hidden">, key {{ (i + 1) % 10 }}</span>
    </button>
  </nav>
</template>

<style scoped>
.rail {
  grid-area: rail;
  border-right: 1px solid var(--granite-mid);
  padding: 8px 0;
  display: flex;
  flex-direction: column;
}
.stage {
  display: grid;
  justify-items: center;
  padding: 5px 4px;
  border-left: 3px solid transparent;
}
.stage path {
  fill: none;
  stroke: currentColor;
  stroke-width: 1.5;
  stroke-linejoin: round;
  stroke-linecap: round;
}
.stage:hover {
  background: var(--paper-deep);
}
.stage.here {
  border-left-color: var(--heather);
  background: var(--heather-wash);
  color: var(--heather);
}
@media (max-width: 1000px) {
  .rail {
    flex-direction: row;
    border-right: none;
    border-bottom: 1px solid var(--granite-mid);
    padding: 0 6px;
  }
  .stage {
    flex: 1;
    min-height: 48px;
    grid-template-columns: auto auto;
    align-content: center;
    justify-content: center;
    justify-items: start;
    column-gap: 4px;
    padding: 4px 2px;
    border-left: none;
    border-bottom: 3px solid transparent;
  }
  .stage svg {
    width: 22px;
    grid-row: span 2;
  }
  .stage.here {
    border-bottom-color: var(--heather);
  }
}
.title {
  font: 600 13px var(--sans);
}
.text {
  font: 400 11px var(--condensed);
  white-space: nowrap;
  color: var(--granite);
}
.bad .text {
  color: var(--rust);
  font-weight: 600;
}
.near .text {
  color: var(--gorse-ink);
  font-weight: 600;
}
.good .text {
  color: var(--moss);
}
</style>
