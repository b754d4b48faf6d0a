<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref } from 'vue'
import { useBeside } from '@/answers/useBeside'
import { api, taken } from '@/api/client'
import type { FarOffer } from '@/api/types'
import { put } from '@/document/edits'
import { useDesign } from '@/document/store'
import { inUnits, speed, whole } from '@/document/units'
import FarWayCard from './FarWayCard.vue'
import { STATES } from './farWords'

/** Every way to a place beside one another: what it gives against what is asked for, what it costs over its years. */
const props = defineProps<{ point: string }>()
const store = useDesign()
const trouble = ref('')
const { answer } = useBeside(
  (project_id) => taken(api.GET('/api/projects/{project_id}/far/ways', { params: { path: { project_id }, query: { point: props.point } } })),
  { about: () => props.point, failed: (error) => !error.isOffline && (trouble.value = error.words) },
)
const found = computed(() => (answer.value?.point === props.point ? answer.value : null))
const place = computed(() => store.find('far_point', props.point))

const ORDERS = {
  rank: { label: 'Best first', of: (w: FarOffer) => w.rank ?? 0 },
  gives: { label: 'Gives', of: (w: FarOffer) => -w.mbps },
  once: { label: 'At once', of: (w: FarOffer) => w.cost.once },
  total: { label: 'Over the years', of: (w: FarOffer) => w.cost.total },
} as const
const order = ref<keyof typeof ORDERS>('rank')
const running = computed(() => [...(found.value?.ways ?? [])].filter((w) => w.verdict !== 'out').sort((a, b) => ORDERS[order.value].of(a) - ORDERS[order.value].of(b)))
const out = computed(() => (found.value?.ways ?? []).filter((w) => w.verdict === 'out'))
const picked = ref('')
const shown = computed(() => found.value?.ways.find((w) => w.id === picked.value) ?? found.value?.ways.find((w) => w.id === place.value?.way) ?? running.value[0] ?? out.value[0])

const LEAST_MBPS = 0.5
const most = computed(() => Math.max(100, ...(found.value?.ways ?? []).map((w) => w.mbps), found.value?.demand.mbps ?? 0))
/** A rate on the scale of all rows: ten times as much is as far again. */
const along = (mbps: number) => (100 * Math.log(Math.max(mbps, LEAST_MBPS) / LEAST_MBPS)) / Math.log(most.value / LEAST_MBPS)
const dearest = computed(() => Math.max(1, ...running.value.map((w) => w.cost.total)))

function take(way: FarOffer | null): void {
  if (!place.value) return
  store.commit(way ? `${place.value.name} over ${way.label}` : `No way to ${place.value.name}`, [put('far_point', { ...place.value, way: way?.id ?? '' })])
}
function inject(): void {
  if (place.value) store.commit(`An injector for ${place.value.name}`, [put('far_point', { ...place.value, injector: true })])
}
</script>

<template>
  <p v-if="trouble" role="alert" class="trouble">{{ trouble }}</p>
  <div v-if="found" class="ways" data-testid="far-ways">
    <div class="board">
      <p class="asked">
        <strong class="figure">{{ speed(found.demand.mbps) }}</strong> {{ found.demand.counted ? 'by what is counted there' : 'as it is said' }}<template v-if="found.demand.delay_ms">, {{ found.demand.delay_ms }} ms at most</template><template v-if="found.demand.gear_w">; what stands there draws <strong class="figure">{{ found.demand.gear_w }} W</strong></template>
      </p>
      <div class="heads" role="group" aria-label="Sorted by">
        <span />
        <Button v-for="(o, k) in ORDERS" :key="k" :label="k === 'total' ? `Over ${found.years} years` : o.label" size="small" text :aria-pressed="order === k" :class="{ now: order === k }" @click="order = k" />
      </div>
      <ol>
        <li v-for="w in running" :key="w.id">
          <button type="button" class="row" :class="[w.verdict, { picked: shown?.id === w.id }]" :aria-pressed="shown?.id === w.id" :data-way="w.id" @click="picked = w.id">
            <span class="rank figure">{{ w.rank }}</span>
            <span class="name"><strong>{{ w.label }}</strong><em v-if="place?.way === w.id">taken</em><small :class="w.verdict">{{ STATES[w.verdict] }}<template v-if="w.verdict !== 'met'">: {{ inUnits(w.binds) }}</template></small></span>
            <span class="scale" :aria-label="`gives ${speed(w.mbps)}`"><i class="gives" :style="{ width: `${along(w.mbps)}%` }" /><i class="wanted" :style="{ left: `${along(found.demand.mbps)}%` }" /><b class="figure">{{ speed(w.mbps) }}</b></span>
            <span class="figure sum">{{ whole(w.cost.once) }}</span>
            <span class="scale cost" :aria-label="`${whole(w.cost.total)} over the years`"><i class="once" :style="{ width: `${(100 * w.cost.once) / dearest}%` }" /><i class="later" :style="{ left: `${(100 * w.cost.once) / dearest}%`, width: `${(100 * (w.cost.total - w.cost.once)) / dearest}%` }" /><b class="figure">{{ whole(w.cost.total) }}</b></span>
          </button>
        </li>
      </ol>
      <p class="key quiet"><span><i class="wanted" /> asked for</span><span><i class="once" /> at once</span><span><i class="later" /> over {{ found.years }} years, {{ found.currency }}</span></p>
      <details v-if="out.length">
        <summary>{{ out.length }} ruled out</summary>
        <ul>
          <li v-for="w in out" :key="w.id"><button type="button" class="plain" :data-way="w.id" @click="picked = w.id"><strong>{{ w.label }}</strong> <span class="not_met">{{ inUnits(w.binds) }}</span></button></li>
        </ul>
      </details>
    </div>
    <FarWayCard v-if="shown" :way="shown" :years="found.years" :currency="found.currency" :taken="place?.way === shown.id" :channel="shown.medium === 'radio_5' ? (found.channel ?? null) : null" @take="take(shown)" @leave="take(null)" @inject="inject" />
  </div>
  <div v-else-if="!trouble" class="ways"><p class="quiet" role="status">Every way is worked out…</p></div>
</template>

<style scoped>
.ways {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(260px, 340px);
  gap: 0 16px;
  height: min(46vh, 400px);
}
.board {
  overflow: auto;
}
.asked {
  margin: 0 0 2px;
}
/* Where there is no room beside the board, the card lies below it. */
@container (max-width: 760px) {
  .ways {
    display: block;
    overflow: auto;
  }
  .board {
    overflow: visible;
  }
}
.heads {
  position: sticky;
  top: 0;
  z-index: 1;
  background: var(--paper);
  border-bottom: 1px solid var(--granite-mid);
}
.heads :deep(button) {
  justify-self: start;
  padding: 2px 0;
  color: var(--granite);
}
.heads :deep(button.now) {
  color: var(--heather);
  text-decoration: underline;
  text-underline-offset: 4px;
}
.sum {
  text-align: left;
}
ol,
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.heads,
.row {
  display: grid;
  grid-template-columns: 22px minmax(140px, 1.7fr) minmax(80px, 1fr) 62px minmax(90px, 1fr);
  align-items: center;
  gap: 0 10px;
  width: 100%;
}
.row {
  padding: 3px 4px;
  border: 0;
  border-bottom: 1px solid var(--granite-light);
  background: none;
  color: inherit;
  font: inherit;
  text-align: left;
  cursor: pointer;
}
.row.picked {
  background: var(--heather-wash);
}
.rank {
  color: var(--granite);
  text-align: right;
}
.name small {
  display: block;
}
.name em {
  margin-left: 6px;
  color: var(--heather);
}
small.met {
  color: var(--moss);
}
small.near {
  color: var(--gorse-ink);
}
.scale {
  position: relative;
  display: block;
  height: 26px;
}
.scale i {
  position: absolute;
  top: 18px;
  height: 6px;
}
.gives {
  left: 0;
  background: var(--tarn);
}
.scale .wanted {
  top: 16px;
  height: 10px;
}
.wanted {
  width: 2px;
  background: var(--heather);
}
.once {
  left: 0;
  background: var(--granite);
}
.later {
  background: var(--gorse);
}
.scale b {
  position: absolute;
  top: 0;
  left: 4px;
  font-size: 12px;
  paint-order: stroke;
}
.cost b {
  left: 0;
}
.key {
  display: flex;
  gap: 14px;
  margin: 3px 4px;
}
.key i {
  display: inline-block;
  height: 8px;
  width: 16px;
}
.key i.wanted {
  height: 12px;
  width: 2px;
}
.plain {
  display: block;
  width: 100%;
  padding: 3px 4px;
  border: 0;
  background: none;
  color: inherit;
  font: inherit;
  text-align: left;
  cursor: pointer;
}
summary {
  cursor: pointer;
  padding: 4px;
}
.trouble {
  color: var(--rust);
}
@media (pointer: coarse) {
  .row,
  .plain,
  summary {
    min-height: 44px;
  }
}
</style>
