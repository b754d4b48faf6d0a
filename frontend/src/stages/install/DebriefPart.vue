<script setup lang="ts">
import Button from 'primevue/button'
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import { useBeginRound } from '@/answers/useRound'
import type { RoundRow } from '@/api/types'
import { gridOf, lanesOf, lasting } from '@/document/rounds'

/** A round afterwards: what was under way when, device by device, what was missed and why it matters. */
const props = defineProps<{ round: RoundRow }>()
const told = computed(() => props.round.debrief!)
const lanes = computed(() => lanesOf(told.value))
const router = useRouter()
const { beginning, wrong, begin } = useBeginRound()
const ROW = 17
const LEFT = 170
const WIDE = 1000
const used = computed(() => Math.max(told.value.used_s, told.value.par_s, 60))
/** The time that was given is drawn where it is not so far off that all else would be small. */
const given = computed(() => told.value.allowed_s < 2 * used.value)
const longest = computed(() => (given.value ? Math.max(used.value, told.value.allowed_s) : used.value) * 1.03)
const x = (s: number) => LEFT + (s / longest.value) * (WIDE - LEFT)
const high = computed(() => lanes.value.length * ROW + 26)
const grid = computed(() => gridOf(longest.value))
const DOING: Record<string, string> = { adopt: 'adopted', update: 'updates', restart: 'restarts', dark: 'without power', apply: 'takes settings', deaf: 'does not answer', itself: 'updates itself', scan: 'listens' }
const shown = computed(() => [...new Set(told.value.under.map((u) => u.doing))])
const late = computed(() => told.value.used_s > told.value.allowed_s)
</script>

<template>
  <section class="debrief" aria-label="What came of the round" data-testid="debrief">
    <h2>{{ round.trainee ? `${round.trainee}: ` : '' }}{{ told.done }} of {{ told.of }} done in {{ lasting(told.used_s) }}<span :class="late ? 'not_met' : 'met'">, {{ late ? 'late' : 'in time' }}</span>, {{ told.missed.length ? `${told.missed.length} missed` : 'nothing missed' }}</h2>
    <p class="quiet">{{ lasting(told.allowed_s) }} were given; the gear alone takes {{ lasting(told.par_s) }}. By the site’s clock.</p>
    <div class="next"><Button label="Once more, with other faults" size="small" outlined :loading="beginning" data-again @click="begin(round.project, round.trainee, round.faults)" /><Button label="Back to the plan" size="small" text @click="router.push(`/p/${round.project}/settings?part=controller`)" /></div>
    <p v-if="wrong" class="not_met" role="alert">{{ wrong }}</p>
    <svg v-if="lanes.length" :viewBox="`0 0 ${WIDE} ${high}`" class="lanes" role="img" :aria-label="`What was under way on ${lanes.length} devices in ${lasting(told.used_s)}`">
      <g v-for="t in grid" :key="t" class="grid"><line :x1="x(t)" :x2="x(t)" y1="14" :y2="high" /><text :x="x(t)" y="10" text-anchor="middle">{{ lasting(t) }}</text></g>
      <g v-for="(lane, k) in lanes" :key="lane.device" :transform="`translate(0 ${18 + k * ROW})`">
        <text :x="LEFT - 8" :y="ROW - 5" text-anchor="end" :class="{ faulty: lane.fault }">{{ lane.device.length > 26 ? `${lane.device.slice(0, 25)}…` : lane.device }}</text>
        <rect v-for="(u, n) in lane.under" :key="n" :x="x(u.begin_s)" y="2" :width="Math.max(1.5, x(u.end_s) - x(u.begin_s))" :height="ROW - 5" :class="u.doing"><title>{{ lane.device }} {{ DOING[u.doing] }}, {{ lasting(u.begin_s) }} to {{ lasting(u.end_s) }}</title></rect>
        <path v-for="c in lane.came" :key="c" :d="`M ${x(c)} 0 l 5 ${ROW / 2} l -5 ${ROW / 2} l -5 ${-ROW / 2} z`" class="came"><title>{{ lane.fault }}</title></path>
      </g>
      <line v-if="given" class="given" :x1="x(told.allowed_s)" :x2="x(told.allowed_s)" y1="12" :y2="high" />
      <line class="alone" :x1="x(told.par_s)" :x2="x(told.par_s)" y1="12" :y2="high" />
    </svg>
    <p class="key quiet"><span v-for="d in shown" :key="d"><i :class="d" />{{ DOING[d] }}</span><span><i class="came" />a fault comes about</span><span v-if="given"><i class="given" />given</span><span><i class="alone" />the gear alone</span></p>
    <div class="told">
      <div>
        <h3>What was missed, and why it matters</h3>
        <p v-if="!told.missed.length" class="met">Nothing.</p>
        <ul><li v-for="m in told.missed" :key="m.what" data-missed><b>{{ m.step ? `${m.step}. ` : '' }}{{ m.what }}</b><span class="quiet">{{ m.why }}</span></li></ul>
      </div>
      <div>
        <h3>The faults</h3>
        <p v-if="!told.faults.length" class="quiet">None were given.</p>
        <ul><li v-for="f in told.faults" :key="f.device + f.fault" :class="{ left: !f.mended }" data-fault><b>{{ f.device }} {{ f.fault }}</b><span :class="f.mended ? 'met' : 'not_met'">{{ f.mended ? 'as planned in the end' : 'not as planned in the end' }}{{ f.came_s != null ? `, came about at ${lasting(f.came_s)}` : '' }}</span><span class="quiet">{{ f.lesson }}</span></li></ul>
      </div>
    </div>
  </section>
</template>

<style scoped>
.debrief h2 {
  margin: 0 0 2px;
}
.next {
  display: flex;
  gap: 8px;
  margin-top: 6px;
}
.lanes {
  width: 100%;
  max-width: 1080px;
  height: auto;
  margin-top: 8px;
}
.lanes text {
  font: 400 11px var(--condensed);
  fill: currentColor;
}
.lanes .faulty {
  font-weight: 600;
  fill: var(--rust);
}
.grid line {
  stroke: var(--granite-light);
}
.grid text {
  fill: var(--granite);
}
.lanes rect,
.key i {
  fill: var(--tarn);
  background: var(--tarn);
}
.lanes .update,
.lanes .itself,
.key .update,
.key .itself {
  fill: var(--heather);
  background: var(--heather);
}
.lanes .restart,
.key .restart {
  fill: var(--granite-mid);
  background: var(--granite-mid);
}
.lanes .apply,
.key .apply {
  fill: var(--moss-line);
  background: var(--moss-line);
}
.lanes .dark,
.lanes .deaf,
.lanes .came,
.key .dark,
.key .deaf,
.key .came {
  fill: var(--rust);
  background: var(--rust);
}
.lanes .came {
  stroke: var(--paper);
}
.given {
  stroke: currentColor;
  stroke-width: 2;
}
.alone {
  stroke: currentColor;
  stroke-width: 2;
  stroke-dasharray: 2 4;
}
.key {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  margin: 6px 0 14px;
}
.key span {
  display: flex;
  align-items: center;
  gap: 5px;
  font: 400 12px var(--condensed);
}
.key i {
  width: 14px;
  height: 10px;
}
.key .came {
  width: 9px;
  transform: rotate(45deg) scale(0.9);
}
.key .given,
.key .alone {
  width: 0;
  height: 14px;
  background: none;
  border-left: 2px solid currentColor;
}
.key .alone {
  border-left-style: dotted;
}
.told {
  display: grid;
  grid-template-columns: 1.2fr 1fr;
  gap: 0 30px;
}
ul {
  list-style: none;
  margin: 4px 0 0;
  padding: 0;
}
li {
  display: grid;
  gap: 1px;
  padding: 7px 0 7px 10px;
  border-left: 3px solid var(--gorse, var(--granite-mid));
  border-bottom: 1px solid var(--granite-light);
  font: 400 13px/1.4 var(--condensed);
}
[data-fault] {
  border-left-color: var(--moss-line);
}
li.left {
  border-left-color: var(--rust);
}
@media (max-width: 900px) {
  .told {
    grid-template-columns: 1fr;
  }
}
</style>
