<script setup lang="ts">
import Button from 'primevue/button'
import InputNumber from 'primevue/inputnumber'
import MultiSelect from 'primevue/multiselect'
import ToggleSwitch from 'primevue/toggleswitch'
import { computed, onUnmounted, watch } from 'vue'
import Choices from '@/controls/Choices.vue'
import { useSites, type Moved } from '@/answers/useSites'
import JobProgress from '@/controls/JobProgress.vue'
import { hasAir, modelsOf } from '@/document/kinds'
import { useDesign } from '@/document/store'
import { inUnits, length } from '@/document/units'
import BandFrame from './BandFrame.vue'
import { useLooking } from './looking'

/** The search for places: what it may do on the left, what it found beside the plan on the right. */
const emit = defineEmits<{ close: [] }>()
const looking = useLooking()
const store = useDesign()
const { wishes, job, running, stop, found, cures, chosen, answer, best, search, fewer, ask, look, take, mend, leave } = useSites()

const MOUNTS: { value: ('ceiling' | 'wall')[]; label: string }[] = [{ value: ['ceiling'], label: 'Ceiling' }, { value: ['wall'], label: 'Wall' }, { value: ['ceiling', 'wall'], label: 'Both' }]
const mounts = computed({
  get: () => MOUNTS.find((m) => m.value.join() === (wishes.mounts.length ? wishes.mounts : [store.site?.mount_first ?? 'ceiling']).join())?.value,
  set: (v) => (wishes.mounts = v ?? []),
})
const mesh = computed({
  get: () => (wishes.back_haul ?? store.site?.back_haul) === 'mesh',
  set: (on) => (wishes.back_haul = on ? 'mesh' : 'wired'),
})
const points = computed(() => store.all('device').filter((d) => d.kind === 'access_point' && d.state === 'new'))
const models = computed(() => modelsOf(store.catalogue, 'access_point').filter((m) => m.air && !m.old && !m.withdrawn))
const selected = computed(() => {
  const s = store.selection
  return s?.kind === 'device' ? (points.value.find((d) => d.id === s.id) ?? null) : null
})
const count = computed(() => store.all('device').filter((d) => d.state !== 'retire' && d.state !== 'unknown' && hasAir(store.catalogue, d)).length)
const money = (n: number) => n.toLocaleString('en', { maximumFractionDigits: 0 })
const columns = computed(() => (found.value ? [{ goal: '', name: 'The plan now', proof: '', offer: found.value.now }, ...found.value.answers] : []))
const LINES = [
  { label: 'Access points', of: (o: { access_points: number }) => String(o.access_points) },
  { label: 'Primary coverage', of: (o: { rooms_first: number; rooms_needed: number }) => `${o.rooms_first} of ${o.rooms_needed}` },
  { label: 'Secondary coverage', of: (o: { rooms_second: number; rooms_second_needed: number }) => `${o.rooms_second} of ${o.rooms_second_needed}` },
  { label: 'Cable', of: (o: { cable_m: number }) => length(o.cable_m, 0) },
  { label: 'Not met, all stages', of: (o: { not_met: number }) => String(o.not_met) },
  { label: 'Installed, with tax', of: (o: { total: number }) => money(o.total) },
]
const what = computed(() => {
  const moved = answer.value?.moved ?? []
  const many = (w: Moved['what']) => moved.filter((m) => m.what === w).length
  return [`${many('stays')} stay`, `${many('moved')} moved`, many('new') ? `${many('new')} new` : '', many('gone') ? `${many('gone')} gone` : ''].filter(Boolean).join(', ')
})

watch(answer, (a) => (looking.proposed.value = a?.moved ?? null))
watch(best, (b) => (looking.best.value = b))
onUnmounted(() => {
  leave()
  looking.proposed.value = looking.best.value = null
})
</script>

<template>
  <BandFrame :high="252" close="Close the search" aria-label="Search for places" data-testid="sites-band" @close="emit('close')">
    <div class="asked">
      <div class="row">
        <Choices v-model="mounts" :options="MOUNTS" aria-label="Where they are mounted" />
      </div>
      <MultiSelect v-model="wishes.models" :options="models" option-label="label" option-value="id" size="small" placeholder="Models: as in the plan" :max-selected-labels="1" selected-items-label="{0} models" aria-label="Models to place" class="wide" />
      <MultiSelect v-model="wishes.keep" :options="points" option-label="name" option-value="id" size="small" placeholder="All may be moved" :max-selected-labels="3" selected-items-label="{0} stay where they are" aria-label="Access points that stay where they are" class="wide" />
      <div class="row">
        <label class="second"><ToggleSwitch v-model="wishes.second" input-id="second-too" aria-label="Second access point too" /> Second too</label>
        <label class="second" title="A cable only to those that need one; the others hang on the air"><ToggleSwitch v-model="mesh" input-id="mesh-too" aria-label="Over the air where that is cheaper" /> Mesh</label>
      </div>
      <div class="row">
        <label class="margin">Margin <InputNumber v-model="wishes.margin_db" size="small" :min="0" :max="20" :placeholder="String(store.site?.margin_db ?? 3)" suffix=" dB" input-class="narrow" aria-label="Margin in dB" /></label>
        <Button v-if="!running" label="Search" aria-label="Search for places" icon="pi pi-compass" size="small" data-testid="search-places" @click="search()" />
      </div>
      <JobProgress v-if="running" :job="job" what="Searching" @stop="stop" />
      <div v-if="!running" class="small">
        <button class="plain link" @click="fewer(count)">Can one fewer do?</button>
        <button class="plain link" @click="ask('needless', 'Not needed')">Which is not needed?</button>
        <button v-if="selected" class="plain link" @click="ask('best_places', `Best places for ${selected.name}`, selected.id)">Best place for {{ selected.name }}</button>
        <span v-else class="quiet">Select one to find its best place.</span>
      </div>
    </div>
    <div class="found" tabindex="0" role="region" aria-label="What was found">
      <div v-if="best" class="best" role="status">
        <p class="big figure">{{ best.count }}</p>
        <p><b>{{ best.goal }}</b> so far<br><span v-if="best.least" class="quiet">at least {{ best.least }} are needed</span><br><span class="quiet">Stop takes the best there is.</span></p>
      </div>
      <template v-else-if="found">
        <p v-if="found.none" class="none"><b>{{ found.none }}</b></p>
        <table v-if="found.answers.length" class="ledger">
          <thead>
            <tr>
              <th><span class="visually-hidden">What</span></th>
              <th v-for="c in columns" :key="c.goal" class="number" :class="{ chosen: c.goal && c.goal === chosen }">
                <button v-if="c.goal" class="plain head" :aria-pressed="c.goal === chosen" :data-answer="c.goal" @click="look(c.goal)"><i v-if="c.goal === chosen" class="pi pi-eye" /> {{ c.name }}</button>
                <template v-else>{{ c.name }}</template>
              </th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="l in LINES" :key="l.label">
              <th scope="row">{{ l.label }}</th>
              <td v-for="c in columns" :key="c.goal" class="number figure" :class="{ chosen: c.goal && c.goal === chosen }">{{ l.of(c.offer) }}</td>
            </tr>
          </tbody>
        </table>
        <div v-if="answer" class="taking">
          <Button :label="`Take: ${answer.name.toLowerCase()}`" size="small" data-testid="take-answer" @click="take" />
          <span>{{ what }}. <span :class="answer.proven ? 'met' : 'near'">{{ inUnits(answer.proof) }}</span><template v-if="answer.over_air">; {{ answer.over_air }} of {{ answer.count }} hang on the air, each by a mains socket: see Mesh</template><template v-if="answer.short.length">; still short: {{ answer.short.join(', ') }}</template><template v-if="answer.fails.length">; <span class="not_met">{{ inUnits(answer.fails.join('; ')) }}</span></template></span>
        </div>
        <p class="quiet told">
          {{ found.looked_at }} places and {{ found.points }} points were looked at<template v-if="found.excluded.length">; nothing is hung in {{ found.excluded.map((e) => `${e.name} (${e.why})`).join(', ') }}</template>.
          <template v-if="found.lacking.length">No choice serves {{ found.lacking.map((l) => `${l.name} over more than ${Math.round(l.share * 100)} %`).join(', ') }}.</template>
        </p>
      </template>
      <template v-else-if="cures">
        <p><b>{{ cures.asked }}</b></p>
        <div v-for="c in cures.rows" :key="c.label" class="cure"><Button :label="inUnits(c.label)" size="small" outlined @click="mend(c)" /><span class="quiet">{{ inUnits(c.effect) }}</span></div>
        <p v-if="!cures.rows.length" class="quiet">{{ cures.asked === 'Not needed' ? 'Each one is: without it some room does worse.' : 'It hangs where it does best.' }}</p>
      </template>
      <p v-else class="quiet intro">Looks at every ceiling or wall where an access point may hang, and finds the fewest that meet every room’s first and second target with the margin, the cheapest installed, and the strongest second. What stands is moved the shortest way.</p>
    </div>
  </BandFrame>
</template>

<style scoped>
.asked {
  width: 248px;
  flex: none;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  align-content: start;
  gap: 6px;
  padding: 8px 10px;
  border-right: 1px solid var(--granite-light);
  overflow: auto;
}
.row,
.second,
.margin {
  display: flex;
  align-items: center;
  gap: 6px;
}
.row {
  justify-content: space-between;
}
.margin,
.second {
  font-size: 12px;
  color: var(--granite);
}
.margin :deep(.narrow) {
  width: 58px;
}
.wide {
  width: 100%;
}
.small {
  display: grid;
  justify-items: start;
  gap: 0;
  font-size: 12.5px;
}
.link {
  color: var(--heather);
  min-height: 24px;
}
.link:hover {
  text-decoration: underline;
}
.found {
  flex: 1;
  min-width: 0;
  overflow: auto;
  padding: 4px 10px;
}
.found .ledger {
  font-size: 12.5px;
}
.ledger td,
.ledger th {
  padding: 1px 6px;
  white-space: nowrap;
}
.found .ledger th {
  font: 600 12.5px var(--condensed);
}
.head {
  font: inherit;
  font-weight: 600;
  color: var(--heather);
  min-height: 26px;
}
.chosen {
  background: var(--heather-wash);
}
.taking {
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 6px 0 2px;
  font-size: 12.5px;
}
.taking :deep(button) {
  flex: none;
}
.told {
  font: 400 12px/1.35 var(--condensed);
}
.best {
  display: flex;
  align-items: center;
  gap: 16px;
  padding: 20px;
}
.big {
  font-size: 54px;
  line-height: 1;
  color: var(--heather);
}
.intro {
  max-width: 46ch;
  padding: 14px 4px;
}
.none {
  padding: 10px 0;
}
.cure {
  display: flex;
  align-items: center;
  gap: 10px;
  margin: 3px 0;
  font-size: 12.5px;
}
</style>
