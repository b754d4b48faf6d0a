<script setup lang="ts">
import { computed } from 'vue'
import { hasAir } from '@/document/kinds'
import { useDesign } from '@/document/store'
import { STAGES, type Stage } from '@/router'

defineProps<{ stage: Stage }>()
const emit = defineEmits<{ go: [stage: Stage] }>()
const store = useDesign()

const ICON: Record<Stage, string> = {
  plan: 'M4 18V6l5-2 6 2 5-2v12l-5 2-6-2z',
  signal: 'M4 16c4 0 5-4 8-4s4 4 8 4M7 12c2 0 3-4 5-4s3 4 5 4M11 6l1-2 1 2z',
  cable: 'M4 18h5V9h6v6h5',
  power: 'M13 3L6 13h5l-1 8 8-11h-6z',
  settings: 'M5 7h14M5 12h14M5 17h14M9 5v4M15 10v4M8 15v4',
}
const NAME: Record<Stage, string> = {
  plan: 'Plan',
  signal: 'Signal',
  cable: 'Cable',
  power: 'Power',
  settings: 'Settings',
}

const begun = computed<Record<Stage, boolean>>(() => ({
  plan: store.all('wall').length + store.all('space').length > 0,
  signal: store.all('device').some((d) => hasAir(store.catalogue, d)),
  cable: store.all('equipment_room').length > 0,
  power: store.all('switch').length > 0,
  settings: store.all('network').length > 0,
}))

const states = computed(() =>
  STAGES.map((stage) => {
    const open = store.findings.filter((f) => f.stage === stage && f.severity !== 'note')
    const bad = open.filter((f) => f.severity === 'not_met').length
    const text = !begun.value[stage] ? 'not begun' : open.length ? `${open.length} open` : 'settled'
    return { stage, text, tone: !begun.value[stage] ? 'idle' : bad ? 'bad' : open.length ? 'near' : 'good' }
  }),
)
</script>

<template>
  <nav class="rail" aria-label="Stages of the job">
    <button
      v-for="(row, i) in states" :key="row.stage" class="plain stage" :class="[{ here: row.stage === stage }, row.tone]"
      :aria-current="row.stage === stage ? 'page' : undefined" :data-stage="row.stage" @click="emit('go', row.stage)"
    >
      <svg width="26" height="26" viewBox="0 0 24 24" aria-hidden="true"><path :d="ICON[row.stage]" /></svg>
      <span class="title">{{ NAME[row.stage] }}</span>
      <span class="text">{{ row.text }}</span>
      <span class="visually-hidden">, key {{ i + 1 }}</span>
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
  padding: 9px 4px;
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
.title {
  font: 600 13px var(--sans);
}
.text {
  font: 400 11px var(--condensed);
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
