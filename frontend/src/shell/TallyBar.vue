<script setup lang="ts">
import { computed } from 'vue'
import type { Evaluation } from '@/api/types'
import { useCompared } from '@/document/compared'
import { useDesign } from '@/document/store'
import { imperial, length } from '@/document/units'
import type { Stage } from '@/stages/registry'

const emit = defineEmits<{ go: [stage: Stage] }>()
const store = useDesign()
const { compared } = useCompared(store)

type Foot = Pick<Evaluation, 'totals' | 'price'>
const now = computed<Foot | null>(() => (compared.value?.to ? compared.value.found.now : store.shown))
/** Where two states are compared: against the earlier. While dragging: against what is saved. Else: against what was before the last edit. */
const before = computed<Foot | null>(() => compared.value?.found.then ?? (store.dragged ? store.evaluation : store.previous))

interface Figure {
  key: string
  stage: Stage
  label: string
  value: string
  of?: string
  delta: string
  tone: '' | 'better' | 'worse'
}

function change(
  pick: (shown: Foot) => number | undefined, write: (n: number) => string, moreIs: 'better' | 'worse' | '',
): { delta: string; tone: Figure['tone'] } {
  if (!now.value || !before.value) return { delta: '', tone: '' }
  const [was, is] = [pick(before.value), pick(now.value)]
  if (was === undefined || is === undefined) return { delta: '', tone: '' }
  const gap = is - was
  if (Math.abs(gap) < 0.05) return { delta: '', tone: '' }
  const tone = moreIs === '' ? '' : gap > 0 === (moreIs === 'better') ? 'better' : 'worse'
  return { delta: `${gap > 0 ? '+' : '−'}${write(Math.abs(gap))}`, tone }
}

const figures = computed<Figure[]>(() => {
  if (!now.value) return []
  const { totals: t, price } = now.value
  const count = (n: number) => n.toFixed(0)
  const metres = (n: number) => length(n, n < 10 ? 1 : 0)
  const watts = (n: number) => `${n.toFixed(1)} W`
  const money = (n: number) => `${n.toLocaleString('en', { maximumFractionDigits: 0 })} ${t.currency}`
  return [
    { key: 'aps', stage: 'plan', label: 'Access points', value: count(t.access_points), ...change((x) => x.totals.access_points, count, '') },
    { key: 'first', stage: 'signal', label: 'Primary coverage', value: count(t.rooms_first), of: `of ${t.rooms_needed} rooms`, ...change((x) => x.totals.rooms_first, count, 'better') },
    { key: 'second', stage: 'signal', label: 'Secondary coverage', value: count(t.rooms_second), of: `of ${t.rooms_second_needed} rooms`, ...change((x) => x.totals.rooms_second, count, 'better') },
    { key: 'cable', stage: 'cable', label: 'Cable', value: length(t.cable_m, 0), of: `${price ? `${price.boxes} ${price.boxes === 1 ? 'box' : 'boxes'}` : ''}${t.fibre_m ? `, ${length(t.fibre_m, 0)} fibre` : ''}`, ...change((x) => x.totals.cable_m, metres, 'worse') },
    { key: 'watts', stage: 'power', label: 'PoE draw', value: watts(t.counted_w), of: `of ${t.budget_w} W`, ...change((x) => x.totals.counted_w, watts, 'worse') },
    { key: 'powered', stage: 'power', label: 'PoE ports used', value: count(t.powered_ports_used), of: `of ${t.powered_ports}`, ...change((x) => x.totals.powered_ports_used, count, '') },
    { key: 'ports', stage: 'power', label: 'Free ports', value: count(t.ports - t.ports_used), of: `of ${t.ports}`, ...change((x) => x.totals.ports - x.totals.ports_used, count, 'better') },
    { key: 'price', stage: 'order', label: 'Client pays', value: price ? money(price.total) : '', of: 'with tax', ...change((x) => x.price?.total, money, 'worse') },
    { key: 'open', stage: worstStage.value, label: 'Open findings', value: count(t.not_met + t.near), of: `${t.not_met} not met`, ...change((x) => x.totals.not_met + x.totals.near, count, 'worse') },
  ]
})

const worstStage = computed<Stage>(() => store.findings[0]?.stage ?? 'plan')
const unit = computed(() => (imperial.value ? 'ft' : 'm'))
</script>

<template>
  <footer class="tally" aria-label="Tally" :data-unit="unit" :class="{ would: !!store.dragged }">
    <button v-for="f in figures" :key="f.key" class="plain cell" :data-tally="f.key" @click="emit('go', f.stage)">
      <span class="label">{{ f.label }}</span>
      <span class="value figure">{{ f.value }} <small v-if="f.of">{{ f.of }}</small></span>
      <span class="delta figure" :class="f.tone" data-delta>{{ f.delta || '\u00a0' }}</span>
    </button>
  </footer>
</template>

<style scoped>
.tally {
  grid-area: tally;
  display: flex;
  border-top: 1px solid var(--granite-mid);
  background: var(--paper);
}
.cell {
  flex: 1 1 auto;
  display: grid;
  align-content: center;
  padding: 3px 12px;
  border-right: 1px solid var(--granite-light);
  white-space: nowrap;
}
@media (max-width: 1000px) {
  .tally {
    display: grid;
    grid-template-columns: repeat(5, auto);
  }
  .cell {
    min-height: 44px;
    grid-template-columns: auto auto;
    border-bottom: 1px solid var(--granite-light);
  }
  .value {
    grid-row: 2;
    grid-column: span 2;
  }
  .delta {
    text-align: right;
  }
}
.cell:hover {
  background: var(--paper-deep);
}
.label {
  font: 400 11px/1.3 var(--condensed);
  color: var(--granite);
}
.value {
  font-size: 15px;
  font-weight: 500;
  line-height: 1.3;
}
small {
  font-size: 11px;
  color: var(--granite);
}
.delta {
  font-size: 11px;
  line-height: 1.25;
  color: var(--granite);
}
.delta.better {
  color: var(--moss);
}
.delta.worse {
  color: var(--rust);
}
.would .delta::before {
  content: "";
  font-family: var(--condensed);
}
.would .delta:not(:empty) {
  font-style: normal;
}
</style>
