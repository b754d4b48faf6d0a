<script setup lang="ts">
import Button from 'primevue/button'
import { computed, reactive, ref } from 'vue'
import { ApiError } from '@/api/client'
import type { SeenSpeed } from '@/api/types'
import { useSpeeds, type Occasion } from '@/answers/useSpeeds'
import Choices from '@/controls/Choices.vue'
import ListIn from '@/controls/ListIn.vue'
import { useDesign } from '@/document/store'

/** Speeds on one scale: what the plan lets through, what was measured when the site came up, and at the hand-over. */
const store = useDesign()
const { answer, speeds, note, send } = useSpeeds()
const occasion = ref<Occasion>('baseline')
const OCCASIONS = [{ value: 'baseline' as const, label: 'Baseline, at the bring-up' }, { value: 'hand_over' as const, label: 'At the hand-over' }]
const MARK = { not_met: '✕', near: '≈', unread: '', met: '✓' } as const
const said = ref('')
const typed = reactive<Record<string, { down: string; up: string; delay: string }>>({})
const at = (where: string) => (typed[where] ??= { down: '', up: '', delay: '' })
/** Upper end of the scale, Mb/s: it is logarithmic, since a line may have a hundred times what a far room has. */
const most = computed(() => Math.max(100, ...speeds.value.flatMap((s) => [s.planned_mbps, s.baseline?.down_mbps ?? 0, s.hand_over?.down_mbps ?? 0])))
const LEAST = 1
const share = (mbps: number) => (100 * Math.max(0, Math.log(Math.max(mbps, LEAST) / LEAST))) / Math.log(most.value / LEAST)
const TICKS = computed(() => [1, 10, 100, 1000, 10_000].filter((t) => t <= most.value))
const floors = computed(() => {
  const groups = new Map<string, SeenSpeed[]>()
  for (const s of speeds.value) groups.set(s.floor, [...(groups.get(s.floor) ?? []), s])
  return [...groups]
})
const done = computed(() => speeds.value.filter((s) => s[occasion.value]).length)
const number = (text: string) => (text.trim() ? Number(text.replace(',', '.')) : null)

async function keep(row: SeenSpeed): Promise<void> {
  const { down, up, delay } = at(row.where)
  const numbers = [number(down), number(up), number(delay)] as const
  said.value = ''
  if (numbers[0] === null || numbers.some((n) => n !== null && !(n >= 0))) {
    said.value = `${row.name}: say at least how many Mb/s come down, as a number.`
    return
  }
  try {
    await note(row.where, occasion.value, numbers[0], numbers[1], numbers[2])
    typed[row.where] = { down: '', up: '', delay: '' }
  } catch (error) {
    if (!(error instanceof ApiError)) throw error
    said.value = `${row.name}: ${error.message}`
  }
}
</script>

<template>
  <div v-if="answer" class="speeds" data-testid="speeds">
    <div class="head">
      <Choices v-model="occasion" :options="OCCASIONS" aria-label="When it is measured" />
      <b class="figure">{{ done }} of {{ speeds.length }}</b><span class="quiet">places measured</span>
      <span class="key"><i class="plan" /> the plan lets through <i class="base" /> baseline <i class="now" /> hand-over</span>
    </div>
    <ListIn label="Take a file of speeds in" what="speeds" :send="(data: File, take: boolean) => send(data, take, occasion)" />
    <p class="quiet">Columns room (or line), down_mbps, up_mbps, delay_ms, storey where two rooms are called alike.</p>
    <p v-if="said" class="not_met" role="alert">{{ said }}</p>
    <div class="row top" aria-hidden="true"><span /><div class="marks"><span v-for="t in TICKS" :key="t" class="figure" :style="{ left: `${share(t)}%` }">{{ t }}</span></div><span class="figure last">Mb/s</span><span class="quiet">a room’s plan is that of its worst spot</span></div>
    <section v-for="[floor, rows] in floors" :key="floor" :aria-label="floor || 'The line'">
      <h3 v-if="floor">{{ floor }}</h3>
      <form v-for="s in rows" :key="s.where" class="row" :data-speed="s.where" @submit.prevent="keep(s)">
        <button type="button" class="plain name" @click="s.floor && (store.selection = { kind: 'space', id: s.where })">{{ s.name }}</button>
        <svg class="scale" viewBox="0 0 100 22" preserveAspectRatio="none" role="img" :aria-label="`${s.planned_mbps} Mb/s planned, ${s.baseline?.down_mbps ?? 'no'} at the bring-up, ${s.hand_over?.down_mbps ?? 'no'} at the hand-over`">
          <path v-for="t in TICKS" :key="t" :d="`M${share(t)} 0V22`" class="tick" />
          <rect v-if="s.baseline" x="0" y="4" :width="share(s.baseline.down_mbps)" height="6" class="base" />
          <rect v-if="s.hand_over" x="0" y="12" :width="share(s.hand_over.down_mbps)" height="6" class="now" />
          <path :d="`M${share(s.planned_mbps)} 1V21`" class="plan" />
        </svg>
        <span class="figure last">{{ (s[occasion] ?? s.baseline)?.down_mbps ?? '' }}</span>
        <span class="fields">
          <input v-model="at(s.where).down" inputmode="decimal" :aria-label="`Down at ${s.name}, Mb/s`" placeholder="down">
          <input v-model="at(s.where).up" inputmode="decimal" :aria-label="`Up at ${s.name}, Mb/s`" placeholder="up">
          <input v-model="at(s.where).delay" inputmode="decimal" :aria-label="`Delay at ${s.name}, ms`" placeholder="ms">
          <Button type="submit" label="Note" size="small" text :disabled="!at(s.where).down.trim()" :aria-label="`Note the speed at ${s.name}`" />
        </span>
        <span class="says" :class="s.verdict === 'unread' ? 'quiet' : s.verdict">{{ MARK[s.verdict] }} {{ s.verdict === 'unread' ? s.planned_mbps ? `plan ${s.planned_mbps} Mb/s, ${s.binds}` : `the plan lets nothing through: ${s.binds}` : s.reason }}</span>
      </form>
    </section>
  </div>
</template>

<style scoped>
.head {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 12px;
  margin-bottom: 6px;
}
.key {
  display: flex;
  align-items: center;
  gap: 6px;
  font: 400 12px/1 var(--condensed);
}
.key i {
  display: inline-block;
  width: 16px;
  height: 6px;
  margin-left: 8px;
}
.key .plan {
  width: 2px;
  height: 14px;
  background: var(--ink);
}
.key .base {
  background: var(--granite-mid);
}
.key .now {
  background: var(--tarn);
}
h3 {
  margin: 10px 0 2px;
}
.row {
  display: grid;
  grid-template-columns: 170px minmax(120px, 1fr) 56px 258px;
  align-items: center;
  gap: 0 10px;
  padding: 3px 0;
  border-bottom: 1px solid var(--granite-light);
}
.top {
  font-size: 12px;
}
.marks {
  position: relative;
  height: 16px;
}
.marks span {
  position: absolute;
  transform: translateX(-50%);
}
.marks span:first-child {
  transform: none;
}
.name {
  text-align: left;
}
.scale {
  width: 100%;
  height: 22px;
}
.tick {
  stroke: var(--granite-light);
  vector-effect: non-scaling-stroke;
}
rect.base {
  fill: var(--granite-mid);
}
rect.now {
  fill: var(--tarn);
}
path.plan {
  stroke: var(--ink);
  stroke-width: 2;
  vector-effect: non-scaling-stroke;
}
.last {
  text-align: right;
}
.fields {
  display: flex;
  gap: 4px;
}
.fields input {
  width: 62px;
  font: 400 13px/1 var(--mono);
  padding: 4px 5px;
  border: 1px solid var(--granite-mid);
  background: var(--paper);
  color: var(--ink);
}
.says {
  grid-column: 2 / -1;
  font: 400 12px/1.35 var(--condensed);
}
@media (pointer: coarse) {
  .fields input,
  .name {
    min-height: 44px;
  }
}
@media (max-width: 1000px) {
  .row {
    grid-template-columns: 1fr 60px;
  }
  .scale,
  .fields,
  .says {
    grid-column: 1 / -1;
  }
}
</style>
