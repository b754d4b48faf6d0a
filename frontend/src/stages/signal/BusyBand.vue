<script setup lang="ts">
import Button from 'primevue/button'
import { computed } from 'vue'
import { api, taken } from '@/api/client'
import type { BusyView, Change } from '@/api/types'
import { useBeside } from '@/answers/useBeside'
import { useDesign } from '@/document/store'
import { inUnits } from '@/document/units'
import BandFrame from './BandFrame.vue'
import { useLooking } from './looking'

/** The busiest hour: the air of each radio as a bar, who takes it, what would relieve it. */
const emit = defineEmits<{ close: [] }>()
const { floor } = useLooking()
const store = useDesign()
const ask = (project_id: string) => taken(api.GET('/api/projects/{project_id}/busy', { params: { path: { project_id } } }))
const { answer: view } = useBeside(ask, { about: () => store.shown?.signal.searching })
const LONG_PX = 210

type Load = BusyView['busy']['loads'][number]
const most = computed(() => Math.max(1, view.value?.busy.loads[0]?.total ?? 1))
const px = (share: number) => (share / most.value) * LONG_PX
const percent = (share: number) => `${(share * 100).toFixed(share < 0.1 ? 1 : 0)} %`
const shown = computed(() => view.value?.busy.loads.filter((l) => l.total >= 0.01) ?? [])
const said = computed(() => {
  const b = view.value?.busy
  if (!b) return ''
  if (!b.clients) return 'The brief names no clients over the air yet.'
  const over = b.loads.filter((l) => l.verdict === 'not_met').length
  const near = b.loads.filter((l) => l.verdict === 'near').length
  if (over) return `${over} ${over === 1 ? 'radio has' : 'radios have'} too little air for ${b.clients} clients`
  return near ? `${near} near the limit with ${b.clients} clients` : `Air enough for all ${b.clients} clients`
})
const takes = (l: Load) => l.using.slice(0, 3).map((u) => `${u.clients.toFixed(0)} × ${u.kind.toLowerCase()}, ${u.room}: ${u.mbps.toFixed(0)} Mb/s at ${u.rate_mbps.toFixed(0)}`).join('; ')
function look(l: Load): void {
  floor.value = l.floor
  store.selection = { kind: 'device', id: l.device }
}
</script>

<template>
  <BandFrame :high="236" close="Close the busiest hour" aria-label="The busiest hour" data-testid="busy-band" @close="emit('close')">
    <div class="left">
      <p class="head"><b :class="shown[0]?.verdict ?? 'met'">{{ said }}</b> <span class="key"><i class="own" /> own clients <i class="beacons" /> beacons <i class="others" /> others on the channel</span></p>
      <div class="rows" tabindex="0" role="region" aria-label="Air of each radio, the busiest first">
        <table class="ledger">
          <tbody>
            <tr v-for="l in shown" :key="`${l.device}/${l.band}`" tabindex="0" :data-load="`${l.device}/${l.band}`" :class="{ chosen: store.selection?.id === l.device }" @click="look(l)" @keydown.enter="look(l)">
              <td class="who"><b>{{ l.name }}</b> <span class="quiet">{{ l.band }} GHz, {{ l.channel }}</span></td>
              <td class="bar">
                <svg :width="LONG_PX + 2" height="16" role="img" :aria-label="`${percent(l.own)} own, ${percent(l.beacons)} beacons, ${percent(l.others)} others`">
                  <rect x="1" y="3" :width="px(l.own)" height="10" class="own" />
                  <rect :x="1 + px(l.own)" y="3" :width="px(l.beacons)" height="10" class="beacons" />
                  <rect :x="1 + px(l.own + l.beacons)" y="3" :width="px(l.others)" height="10" class="others" />
                  <path :d="`M${1 + px(view!.busy.near_share)} 0v16M${1 + px(view!.busy.most_share)} 0v16`" class="limit" />
                </svg>
              </td>
              <td class="number" :class="l.verdict">{{ percent(l.total) }}</td>
              <td class="quiet takes">{{ takes(l) }}</td>
            </tr>
          </tbody>
        </table>
      </div>
    </div>
    <div class="right">
      <p v-if="view?.busy.starved.length" class="not_met">Served by none: {{ view.busy.starved.map((s) => `${s.clients.toFixed(0)} × ${s.kind.toLowerCase()}, ${s.room} (${s.why})`).join('; ') }}</p>
      <template v-if="view?.cures.length">
        <p><b>What would relieve it</b></p>
        <div v-for="c in view.cures" :key="c.label" class="cure">
          <Button :label="inUnits(c.label)" size="small" outlined data-relief @click="store.commit(c.label, c.changes as Change[])" /><span class="quiet">{{ inUnits(c.effect) }}</span>
        </div>
      </template>
      <p v-else-if="shown[0] && shown[0].verdict !== 'met'" class="quiet">No single step that was tried relieves it.</p>
      <p class="quiet foot">Lines at {{ percent(view?.busy.near_share ?? 0.6) }} and {{ percent(view?.busy.most_share ?? 0.8) }}. What neighbours send is not known and not counted.</p>
    </div>
  </BandFrame>
</template>

<style scoped>
.left {
  flex: 1;
  min-width: 0;
  display: flex;
  flex-direction: column;
  padding: 6px 10px;
}
.rows {
  flex: 1;
  overflow: auto;
}
.head {
  display: flex;
  gap: 16px;
  align-items: baseline;
  font-size: 13px;
}
.key {
  font: 400 12px var(--condensed);
  color: var(--granite);
}
.key i {
  display: inline-block;
  width: 14px;
  height: 9px;
  margin-left: 8px;
}
.who {
  white-space: nowrap;
}
.bar {
  width: 218px;
}
.takes {
  font: 400 12px/1.3 var(--condensed);
}
.own {
  fill: var(--tint-5);
  background: var(--tint-5);
}
.beacons {
  fill: var(--gorse);
  background: var(--gorse);
}
.others {
  fill: var(--tint-2);
  background: var(--tint-2);
}
.limit {
  fill: none;
  stroke: var(--rust);
  stroke-width: 1.5;
  stroke-dasharray: 3 2;
}
.right {
  width: 250px;
  flex: none;
  padding: 8px 34px 8px 10px;
  border-left: 1px solid var(--granite-light);
  overflow: auto;
}
.cure {
  display: grid;
  justify-items: start;
  gap: 1px;
  margin: 4px 0;
  font-size: 12px;
}
.foot {
  margin-top: 8px;
  font: 400 12px/1.35 var(--condensed);
}
</style>
