<script setup lang="ts">
import Button from 'primevue/button'
import { computed, onUnmounted, ref, useTemplateRef, watch } from 'vue'
import Choices from '@/controls/Choices.vue'
import Choice from '@/controls/Choice.vue'
import type { Change, Residual } from '@/api/types'
import { useMeasured } from '@/answers/useMeasured'
import { hasAir } from '@/document/kinds'
import { useDesign } from '@/document/store'
import { inUnits } from '@/document/units'
import BandFrame from './BandFrame.vue'
import { useLooking } from './looking'

/** Measured against planned: the deviation before and after, what was fitted, what stands out. */
const emit = defineEmits<{ close: [] }>()
const { floor, scanned, measured } = useLooking()
const store = useDesign()
const { view, waiting, faults, send, count } = useMeasured(() => floor.value, () => scanned.value)
const file = useTemplateRef<HTMLInputElement>('file')
const names = ref<Record<string, string>>({})
const beside = ref<'planned' | 'fitted'>('planned')
const BESIDE = [{ value: 'planned', label: 'The plan' }, { value: 'fitted', label: 'The fit' }]
const points = computed(() => store.all('device').filter((d) => hasAir(store.catalogue, d)).map((d) => ({ value: d.id, label: d.name })))
const fit = computed(() => view.value?.calibration ?? null)
const unnamed = computed(() => waiting.value?.proposed.filter((p) => !names.value[p.who]) ?? [])

watch(waiting, (w) => {
  names.value = Object.fromEntries((w?.proposed ?? []).flatMap((p) => (p.device ? [[p.who, p.device]] : [])))
})
watch(
  () => [fit.value, beside.value] as const,
  ([f, b]) => (measured.value = f?.residuals.length ? { rows: f.residuals as Residual[], fitted: b === 'fitted' && f.fitted.length > 0 } : null),
  { immediate: true },
)
onUnmounted(() => (measured.value = null))

function choose(event: Event): void {
  const chosen = (event.target as HTMLInputElement).files?.[0]
  if (chosen) void send(chosen, null)
  if (file.value) file.value.value = ''
}
function swap(): void {
  if (!view.value) return
  if (view.value.in_force) store.commit('By the figures as listed', view.value.back as Change[])
  else store.commit('By what was measured', view.value.changes as Change[])
}
function look(s: { kind: string; element: string; floor: string }): void {
  floor.value = s.floor
  store.selection = { kind: s.kind === 'device' ? 'device' : store.find('wall', s.element) ? 'wall' : 'opening', id: s.element }
}
const plain = (v: number) => v.toFixed(2).replace('-', '−')
</script>

<template>
  <BandFrame :high="248" close="Close the measurements" aria-label="Measured against planned" data-testid="measured-band" @close="emit('close')">
    <template #side>
      <div class="row">
        <Button label="Read a walk (CSV)" icon="pi pi-upload" size="small" outlined @click="file?.click()" />
        <input ref="file" type="file" accept=".csv,.txt,text/csv" hidden aria-label="Measured walk" @change="choose">
      </div>
      <template v-if="fit?.readings && !waiting">
        <p class="deviation"><span class="figure">{{ fit.before_db.toFixed(1) }}</span> <i class="pi pi-arrow-right" /> <span class="figure after">{{ fit.after_db.toFixed(1) }} dB</span></p>
        <p class="quiet">Deviation of {{ fit.readings - fit.faint }} measurements, from the plan and from the fit<template v-if="fit.faint">; {{ fit.faint }} more, near the faintest that the meter hears, are left out</template>.</p>
        <Button v-if="view?.changes.length || view?.in_force" :label="view?.in_force ? 'Go by the figures as listed' : 'Go by what was measured'" size="small" data-testid="use-measured" @click="swap" />
      </template>
      <ul v-if="view?.walks.length && !waiting" class="walks" aria-label="Walks that were taken in">
        <li v-for="w in view.walks" :key="w.number" :class="{ out: !w.counts }" :data-measured="w.number">
          <span>Walk of {{ w.at.slice(0, 10) }}, {{ w.readings }} levels</span>
          <button class="plain link" @click="count(w.number, !w.counts)">{{ w.counts ? 'Leave out' : 'Count again' }}</button>
        </li>
      </ul>
      <template v-if="fit?.readings && !waiting">
        <p v-if="fit.why_not" class="near">{{ fit.why_not }}</p>
        <Choices v-model="beside" :options="BESIDE" aria-label="What the spots are beside" />
        <p class="quiet">Spots: measured over it in blue, under it in rust{{ store.selection?.kind === 'device' ? ', of the one selected' : '' }}.</p>
      </template>
      <p v-else-if="!waiting" class="quiet">Columns storey, x, y in m, or press the sheet where it was measured; access point or its address; band or channel; dBm. Walk at least eight spots, better forty, through every kind of wall.</p>
      <p v-for="f in faults.slice(0, 3)" :key="f" class="near">{{ f }}</p>
    </template>
    <div class="found" tabindex="0" role="region" aria-label="What was fitted and what stands out">
      <template v-if="waiting">
        <p><b>{{ waiting.read }} measurements of {{ waiting.proposed.length }} radios.</b> Whose is each? Proposed by what fits the plan best; confirm it.</p>
        <table class="ledger">
          <tbody>
            <tr v-for="p in waiting.proposed" :key="p.who">
              <td class="figure">{{ p.who }}</td><td class="number">{{ p.count }}</td>
              <td><Choice v-model="names[p.who]" :options="points" show-clear :placeholder="'none of ours'" :aria-label="`Whose is ${p.who}`" /></td>
              <td class="quiet">{{ p.apart_db !== null ? `${p.apart_db.toFixed(0)} dB from the plan` : p.device ? 'by its name' : '' }}</td>
            </tr>
          </tbody>
        </table>
        <div class="row">
          <Button label="Take it in" size="small" data-testid="take-walk" :disabled="unnamed.length === waiting.proposed.length" @click="send(waiting.file, names)" />
          <Button label="Leave it" size="small" text @click="waiting = null" />
          <span v-if="unnamed.length" class="quiet">{{ unnamed.length }} left out</span>
        </div>
      </template>
      <template v-else-if="fit?.readings">
        <p v-for="s in fit.stands_out" :key="s.element"><button class="plain out" :data-out="s.element" @click="look(s)"><i class="pi pi-exclamation-triangle" /> {{ inUnits(s.text) }}</button></p>
        <table v-if="fit.fitted.length" class="ledger">
          <thead><tr><th>Fitted</th><th class="number">Listed</th><th class="number">Measured</th><th class="number">Give or take</th><th class="number">Rays</th></tr></thead>
          <tbody>
            <tr v-for="f in fit.fitted" :key="f.label" :data-fitted="f.figure || 'offset'">
              <td>{{ f.label }}</td><td class="number figure">{{ plain(f.listed) }}</td><td class="number figure"><b>{{ plain(f.value) }}</b> {{ f.unit }}</td>
              <td class="number figure">± {{ (1.96 * f.error).toFixed(2) }}</td><td class="number figure">{{ f.rays }}</td>
            </tr>
          </tbody>
        </table>
        <p v-if="fit.fitted.length" class="quiet">In 95 of 100 such walks the true value lies within what is given. The meter’s own is no figure of the site and is left out of the plan.</p>
      </template>
      <p v-else class="quiet none">Nothing was measured yet. A plan rests on listed figures, good to about 6 dB; a walk with a meter shows how good it is here.</p>
    </div>
  </BandFrame>
</template>

<style scoped>
.row {
  display: flex;
  align-items: center;
  gap: 8px;
}
.walks {
  align-self: stretch;
  list-style: none;
  margin: 0;
  padding: 0;
  font: 400 12px var(--condensed);
}
.walks li {
  display: flex;
  justify-content: space-between;
  align-items: center;
  border-top: 1px solid var(--granite-light);
}
.walks .out span {
  text-decoration: line-through;
  color: var(--granite);
}
.link {
  min-height: 24px;
  color: var(--heather);
}
.deviation {
  display: flex;
  align-items: center;
  gap: 10px;
  font-size: 22px;
}
.after {
  color: var(--heather);
  font-weight: 600;
}
.found {
  flex: 1;
  min-width: 0;
  overflow: auto;
  padding: 8px 36px 8px 12px;
  font-size: 12.5px;
}
.found td {
  padding: 1px 8px;
  vertical-align: middle;
}
.out {
  color: var(--rust);
  min-height: 26px;
  text-align: left;
}
.out:hover {
  text-decoration: underline;
}
.none {
  max-width: 60ch;
}
</style>
