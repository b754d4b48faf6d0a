<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { computed, ref, shallowRef, watch } from 'vue'
import { usePractices } from '@/answers/usePractices'
import { useProjectJob } from '@/answers/useJob'
import type { Change, JobKinds, MatterRow, Practice } from '@/api/types'
import Choice from '@/controls/Choice.vue'
import JobProgress from '@/controls/JobProgress.vue'
import Stepper from '@/controls/Stepper.vue'
import { useDesign } from '@/document/store'

/** How this job goes about each matter that practitioners disagree on, and what another profile would do to it. */
type Changed = JobKinds['practice_change']['result']
const store = useDesign()
const { known, view, keep, drop, go } = usePractices()
const { job, running, run, stop } = useProjectJob()
const profiles = computed(() => [...(known.value?.shipped ?? []), ...(known.value?.own ?? [])])
const options = computed(() => profiles.value.map((p) => ({ value: p.id, label: p.name })))
const looked = ref('')
const found = shallowRef<Changed | null>(null)
const name = ref('')
const chosen = computed(() => profiles.value.find((p) => p.id === looked.value))
const isOwn = computed(() => known.value?.own.some((p) => p.id === looked.value) ?? false)
const own = computed(() => view.value?.rows.filter((r) => r.own).length ?? 0)
watch(() => [store.id, store.revision], () => (found.value = null))

async function look(key: string): Promise<void> {
  looked.value = key
  found.value = null
  const practice = profiles.value.find((p) => p.id === key)
  if (!practice) return
  const done = await run('practice_change', { practice: practice as never })
  if (looked.value === key) found.value = done?.result ?? null
}

function take(): void {
  if (!found.value) return
  store.commit(`Practice: ${found.value.name}`.slice(0, 120), found.value.changes as Change[])
  looked.value = ''
}

/** What holds here becomes a profile of the firm. */
async function keepAs(): Promise<void> {
  const called = name.value.trim()
  const id = called.toLowerCase().replace(/[^a-z0-9]+/g, '-').replace(/^-+|-+$/g, '').slice(0, 40)
  if (!id || !view.value) return
  const choices = view.value.rows.filter((r) => r.taken).map((r) => ({ matter: r.matter, school: r.taken!, value: r.value, reason: r.own ? '' : r.reason.slice(0, 200) }))
  if (await keep({ id, name: called, choices } as Practice)) name.value = ''
}
const numberOf = (row: MatterRow) => row.schools.find((s) => s.key === row.taken)
const stands = (row: MatterRow, key: string) => (row.profile === key ? `, as the profile has it` : '')
</script>

<template>
  <div v-if="view" class="practice">
    <section class="board" aria-label="Matters">
      <p class="head"><b>{{ view.name }}</b><span class="quiet"> · {{ own ? `${own} chosen for this project` : 'nothing chosen otherwise' }}. A press goes another way here; the dot shows where the profile stands.</span></p>
      <div v-for="r in view.rows" :key="r.matter" class="matter" :class="{ own: r.own }" :data-matter="r.matter">
        <span class="what">{{ r.label }}</span>
        <span class="rail" role="group" :aria-label="r.label">
          <button
            v-for="s in r.schools" :key="s.key" type="button" :class="{ taken: s.key === r.taken }" :aria-pressed="s.key === r.taken" :title="s.reason" :data-school="s.key"
            :aria-label="`${r.label}: ${s.label}${stands(r, s.key)}`" @click="s.key !== r.taken && go(r.matter, s.key, null, `${r.label}: ${s.label}`)"
          ><i v-if="r.profile === s.key" class="dot" aria-hidden="true" />{{ s.label }}</button>
        </span>
        <span class="why"><template v-if="r.value !== null && r.taken && numberOf(r)!.most > numberOf(r)!.least"><Stepper :value="r.value" :most="numberOf(r)!.most" :name="`${r.label}, ${numberOf(r)!.unit}`" @change="$event >= numberOf(r)!.least && go(r.matter, r.taken!, $event, `${r.label}: ${$event}`)" /> {{ numberOf(r)!.unit }}; </template>{{ r.reason }}</span>
      </div>
      <form class="keep" @submit.prevent="keepAs">
        <label>Keep what holds here as a profile of the firm <InputText v-model="name" size="small" maxlength="40" placeholder="its name" aria-label="Name of the profile" /></label>
        <Button type="submit" label="Keep" size="small" outlined :disabled="!name.trim()" />
      </form>
    </section>
    <section class="other" aria-label="Another profile">
      <h2>What another profile would do</h2>
      <div class="pick">
        <Choice :model-value="looked" :options="options" placeholder="Choose a profile" aria-label="Another profile" @update:model-value="look($event)" />
        <Button v-if="isOwn" icon="pi pi-trash" text size="small" :aria-label="`Take ${chosen?.name} away`" @click="(drop(looked), (looked = ''))" />
      </div>
      <p v-if="chosen && known?.about[chosen.id]" class="quiet">{{ known.about[chosen.id] }}</p>
      <JobProgress v-if="running" :job="job" what="Working the plan out both ways" @stop="stop" />
      <template v-else-if="found && looked">
        <p v-if="!found.matters.length && !found.settings" class="quiet">It goes about everything as this job does.</p>
        <template v-else>
          <div class="act"><Button :label="`Go by ${found.name}`" size="small" data-take @click="take" /><Button label="Stay" size="small" text @click="looked = ''" /></div>
          <table class="effects" data-effects>
            <tbody>
              <tr v-for="e in found.effects" :key="e.what" :class="{ same: e.before === e.after }"><th>{{ e.what }}</th><td>{{ e.before }}</td><td class="to">{{ e.before === e.after ? '' : '→' }}</td><td :class="e.better === null ? '' : e.better ? 'met' : 'not_met'">{{ e.before === e.after ? 'the same' : e.after }}<span v-if="e.better !== null" class="visually-hidden">{{ e.better ? ', better' : ', worse' }}</span></td></tr>
            </tbody>
          </table>
          <p v-if="found.spoils.length" class="not_met">Spoils: {{ found.spoils.join('; ') }}.</p>
          <p v-for="w in found.words" :key="w.matter" class="words"><b>{{ w.matter }}</b>: {{ w.after }}.</p>
          <h3>{{ found.settings }} settings would be others</h3>
          <table class="ledger altered">
            <tbody><tr v-for="a in found.altered" :key="a.key"><td>{{ a.label }}<span class="quiet"> on {{ a.on.length > 2 ? a.on.length : a.on.join(', ') }}</span></td><td class="figure">{{ a.before }}</td><td class="figure">{{ a.after }}</td></tr></tbody>
          </table>
        </template>
      </template>
      <p v-else class="quiet">Choose one: the plan is worked out both ways, with rooms, walks, air and price. What was chosen for this project stays.</p>
    </section>
  </div>
</template>

<style scoped>
.practice {
  display: grid;
  grid-template-columns: minmax(430px, 1.4fr) minmax(300px, 1fr);
  gap: 0 26px;
}
.head {
  margin-bottom: 8px;
}
.matter {
  display: grid;
  grid-template-columns: 120px 1fr;
  gap: 2px 12px;
  padding: 5px 0 6px;
  border-bottom: 1px solid var(--granite-light);
}
.what {
  font: 600 12px/1.25 var(--condensed);
  padding-top: 6px;
}
.rail {
  align-self: start;
  display: flex;
  flex-wrap: wrap;
}
.rail button {
  all: unset;
  box-sizing: border-box;
  position: relative;
  padding: 4px 10px 4px 17px;
  min-height: 28px;
  border: 1px solid var(--granite-mid);
  margin-right: -1px;
  font: 400 12px/1.5 var(--condensed);
  color: var(--granite);
  cursor: pointer;
}
.rail button:focus-visible {
  outline: 2px solid var(--heather);
  outline-offset: -2px;
}
.rail .taken {
  background: var(--paper-deep);
  color: var(--ink);
  font-weight: 600;
  box-shadow: inset 0 -2px var(--granite);
}
.own .taken {
  background: var(--heather-wash);
  box-shadow: inset 0 -2px var(--heather);
}
.dot {
  position: absolute;
  left: 6px;
  top: 50%;
  width: 6px;
  height: 6px;
  margin-top: -3px;
  border-radius: 50%;
  background: var(--granite);
}
.why {
  grid-column: 2;
  font: 400 12px/1.3 var(--condensed);
  color: var(--granite);
}
.own .why {
  color: var(--heather);
}
.keep,
.pick,
.act {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  margin: 10px 0 6px;
}
.keep label {
  color: var(--granite);
}
.effects {
  width: 100%;
  border-collapse: collapse;
  margin-top: 8px;
}
.effects th {
  font: 400 12px/1.3 var(--condensed);
  text-align: left;
  color: var(--granite);
}
.effects th,
.effects td {
  padding: 3px 6px 3px 0;
  border-bottom: 1px solid var(--granite-light);
  vertical-align: top;
}
.effects td {
  font-weight: 600;
}
.effects .same td {
  font-weight: 400;
  color: var(--granite);
}
.to {
  color: var(--granite);
}
.words {
  font: 400 12px/1.4 var(--condensed);
  margin-top: 4px;
}
h3 {
  margin: 10px 0 4px;
}
.altered td {
  font-size: 12px;
}
@media (max-width: 1000px), (pointer: coarse) {
  .rail button {
    min-height: 44px;
    padding-top: 11px;
  }
}
@media (max-width: 1100px) {
  .practice {
    grid-template-columns: 1fr;
  }
}
</style>
