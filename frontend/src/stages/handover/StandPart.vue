<script setup lang="ts">
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import type { HandoverView, Kind, OpenPoint } from '@/api/types'
import AgreedNote from '@/controls/AgreedNote.vue'
import { useDesign } from '@/document/store'
import { inUnits } from '@/document/units'
import { stageOf } from '../registry'
import PromiseBands from './PromiseBands.vue'

/** What was promised and what is known of it, what is open, what is built otherwise than agreed. */
const props = defineProps<{ view: HandoverView }>()
defineEmits<{ agreed: [] }>()
const store = useDesign()
const router = useRouter()
const SIGN = { not_met: '✕', near: '≈', unknown: '○' } as const
const SAYS = { not_met: 'Not right', near: 'Look again', unknown: 'Not looked at yet' } as const
const tones = computed(() =>
  (Object.keys(SAYS) as (keyof typeof SAYS)[]).map((tone) => ({ tone, points: props.view.now.still_open.filter((p) => p.tone === tone) })).filter((t) => t.points.length),
)
const wrong = computed(() => props.view.now.still_open.filter((p) => p.tone === 'not_met').length)

function go(point: OpenPoint): void {
  if (point.element && store.find(point.kind as Kind, point.element)) store.selection = { kind: point.kind as Kind, id: point.element }
  void router.push(`/p/${store.id}/${point.stage}`)
}

function show(kind: string, id: string): void {
  if (store.find(kind as Kind, id)) store.selection = { kind: kind as Kind, id }
}
</script>

<template>
  <div class="stand">
    <p class="head">
      <template v-if="view.now.still_open.length"><b class="figure">{{ view.now.still_open.length }}</b> points are open<template v-if="wrong">, <b class="not_met">{{ wrong }} not right</b></template>. They will stand on the first page.</template>
      <b v-else class="met">Nothing is open. It can be handed over.</b>
    </p>
    <PromiseBands :promises="view.now.promises" />
    <section v-for="t in tones" :key="t.tone" :aria-label="SAYS[t.tone]">
      <h2>{{ SAYS[t.tone] }} <span class="figure quiet">{{ t.points.length }}</span></h2>
      <button v-for="(p, i) in t.points" :key="i" class="plain point" :data-open="p.group" @click="go(p)">
        <span :class="t.tone" aria-hidden="true">{{ SIGN[t.tone] }}</span><span>{{ inUnits(p.text) }}</span><span class="quiet">{{ stageOf(p.stage).name }} ›</span>
      </button>
    </section>
    <section aria-label="As built">
      <h2>As built, beside as agreed</h2>
      <p v-if="!view.now.agreed_revision" class="quiet">No revision is noted as agreed, so nothing can be compared.</p>
      <p v-else-if="!view.now.built.length" class="quiet">Built as revision {{ view.now.agreed_revision }} was agreed.</p>
      <template v-else>
        <button v-for="d in view.now.built" :key="`${d.kind}/${d.element}`" class="plain point" :data-built="d.element" @click="show(d.kind, d.element)">
          <span aria-hidden="true">{{ { added: '+', left_out: '−', moved: '→', other: '≠' }[d.change] }}</span><span><b>{{ d.name }}</b> {{ inUnits(d.what) }}</span><span class="quiet">{{ d.floor ? store.find('floor', d.floor)?.name : '' }}</span>
        </button>
      </template>
      <AgreedNote @agreed="$emit('agreed')" />
    </section>
    <section aria-label="Left in hand">
      <h2>Left in hand</h2>
      <table class="ledger">
        <thead><tr><th>Switch</th><th class="number">Ports free</th><th class="number">Powered</th><th class="number">Watts</th></tr></thead>
        <tbody><tr v-for="row in view.now.left" :key="row.switch"><td>{{ row.name }}</td><td class="number">{{ row.ports }}</td><td class="number">{{ row.powered }}</td><td class="number">{{ row.watts }}</td></tr></tbody>
      </table>
      <p class="quiet">{{ view.now.spare_cables }} labelled {{ view.now.spare_cables === 1 ? 'cable is' : 'cables are' }} in no port yet.</p>
    </section>
  </div>
</template>

<style scoped>
.stand {
  display: grid;
  gap: 6px;
}
h2 {
  margin: 10px 0 2px;
}
.point {
  display: grid;
  grid-template-columns: 18px 1fr auto;
  gap: 6px;
  width: 100%;
  padding: 5px 2px;
  border-top: 1px solid var(--granite-light);
  align-items: baseline;
}
.point:hover {
  background: var(--heather-wash);
}
</style>
