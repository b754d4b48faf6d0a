<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { useBringUp } from '@/answers/useBringUp'
import { useRound } from '@/answers/useRound'
import type { BringItem, BringStep } from '@/api/types'
import Choices from '@/controls/Choices.vue'
import JobProgress from '@/controls/JobProgress.vue'
import ListIn from '@/controls/ListIn.vue'
import { doneTogether, openFirst, standingOn } from '@/document/bringing'
import { useDesign } from '@/document/store'
import DebriefPart from './DebriefPart.vue'
import RoundBar from './RoundBar.vue'

/** The site on its way up, in fourteen steps: a ladder to climb, each rung told by the controller itself. */
const store = useDesign()
const router = useRouter()
defineEmits<{ speeds: [] }>()
const { view, said, job, running, stop, act, actOnAll, asking, blink, match, stage, sendSerials } = useBringUp()
const { round, used_s, said: roundSaid, end, measure } = useRound()
const WHERE = [{ value: 'site', label: 'On site' }, { value: 'bench', label: 'At the bench' }]
const opened = ref<number | null>(null)
const lit = ref('')
const here = computed(() => standingOn(view.value?.steps ?? []))
const shown = computed(() => opened.value ?? here.value)
const step = computed(() => view.value?.steps.find((s) => s.number === shown.value) ?? null)
const items = computed(() => openFirst(step.value?.items ?? []))
const ready = computed(() => doneTogether(step.value?.items ?? []))
const DOES: Record<string, string> = { update_itself: 'Update it', release: 'It is released and reset', adopt: 'Adopt', update: 'Update', push: 'Push', keys: 'Send', backup: 'Keep a backup' }
const STATES: Record<string, string> = { done: 'done', ready: 'can be done now', waits: 'waits', blocked: 'stands still' }
const count = (s: BringStep) => `${s.items.filter((i) => i.state === 'done').length} of ${s.items.length}`

function light(item: BringItem): void {
  lit.value = lit.value === item.serial ? '' : (item.serial ?? '')
  void blink(item.serial ?? '', lit.value === item.serial)
}
function named(item: BringItem, event: Event): void {
  const serial = (event.target as HTMLInputElement).value.trim()
  if (item.device && serial) void match(item.device, serial)
}
</script>

<template>
  <DebriefPart v-if="round?.debrief" :round="round" />
  <RoundBar v-else-if="round" :round="round" :used="used_s" :said="roundSaid" @end="end()" />
  <div v-if="!round?.debrief" class="bring" data-testid="bring-up">
    <p v-if="said" class="not_met" role="alert" data-said>{{ said }}</p>
    <div v-if="!view" class="none"><p class="quiet">The controller of this site does not answer yet.</p><Button label="To the controller" size="small" outlined @click="router.push(`/p/${store.id}/settings?part=controller`)" /></div>
    <template v-else>
      <div class="where">
        <Choices :model-value="view.bench == null ? 'site' : 'bench'" :options="WHERE" aria-label="Where it is set up" @update:model-value="stage($event === 'bench', view.bench ?? store.site?.upstream_subnet ?? '')" />
        <label v-if="view.bench != null">behind <InputText :model-value="view.bench" size="small" maxlength="43" class="serial" aria-label="Subnet of the bench’s network" @change="stage(true, ($event.target as HTMLInputElement).value)" /></label>
        <span v-if="view.bench != null" class="quiet">Set up, update, name and label here. Line, speeds, leases and the walk wait for the site.</span>
      </div>
      <ol class="ladder" :aria-label="`${view.done} of ${view.of} done`">
        <li v-for="s in view.steps" :key="s.number" :class="[s.state, { here: s.number === shown }]">
          <button type="button" :aria-current="s.number === shown ? 'step' : undefined" :data-rung="s.number" @click="opened = s.number"><span class="no figure">{{ s.state === 'done' ? '✓' : s.number }}</span><span class="title">{{ s.title }}</span><span class="many figure">{{ count(s) }}</span></button>
        </li>
      </ol>
      <section v-if="step" class="rung" :aria-label="step.title">
        <h2>{{ step.number }}. {{ step.title }} <span :class="step.state === 'blocked' ? 'not_met' : step.state === 'done' ? 'met' : 'quiet'">{{ STATES[step.state] }}</span></h2>
        <p class="quiet">{{ step.why }}.</p>
        <p v-if="step.caution" class="caution"><i class="pi pi-exclamation-triangle" aria-hidden="true" /> {{ step.caution }}</p>
        <JobProgress v-if="running" :job="job" what="Sending step by step" @stop="stop" />
        <Button v-else-if="ready.length > 1 || (ready.length && ready[0]!.does === 'push')" :label="ready[0]!.does === 'push' ? 'Push all that differs, in a safe order' : `${DOES[ready[0]!.does!]} all ${ready.length}`" size="small" :disabled="asking" data-all @click="actOnAll(ready)" />
        <ListIn v-if="step.number === 6" label="Take a list of serials in" what="serials" :send="sendSerials" />
        <Button v-if="step.number === 12 && round && step.state !== 'done'" label="Go round with the meter" icon="pi pi-gauge" size="small" :disabled="asking" data-measure @click="measure()" />
        <Button v-if="step.number === 12" label="To the speeds, one by one or as a file" size="small" outlined @click="$emit('speeds')" />
        <ul class="items">
          <li v-for="i in items" :key="i.id" :class="i.state" :data-item="i.id">
            <label v-if="i.does === 'tick'"><input type="checkbox" :checked="i.state === 'done'" @change="act(i)"><span>{{ i.name }}</span></label>
            <template v-else>
              <span class="mark" aria-hidden="true">{{ i.state === 'done' ? '✓' : i.state === 'blocked' ? '✕' : i.state === 'ready' ? '●' : '…' }}</span><b>{{ i.name }}</b>
              <span class="words" :class="i.state === 'blocked' ? 'not_met' : 'quiet'">{{ i.words }}</span>
              <Button v-if="i.does === 'match' && i.device && round?.labels[i.device]" label="Read its label" text size="small" :aria-label="`Read its label: ${i.name}`" @click="match(i.device, round.labels[i.device]!)" />
              <InputText v-else-if="i.does === 'match'" size="small" placeholder="serial on its label" class="serial" :aria-label="`Serial of ${i.name}`" @change="named(i, $event)" />
              <Button v-else-if="i.id.startsWith('key-') && i.state === 'blocked'" :label="i.id.startsWith('key-vouchers') ? 'To the vouchers' : 'To the keys'" text size="small" :aria-label="`${i.id.startsWith('key-vouchers') ? 'To the vouchers' : 'To the keys'}: ${i.name}`" @click="router.push(`/p/${store.id}/settings?part=${i.id.startsWith('key-vouchers') ? 'guests' : 'keys'}`)" />
              <Button v-else-if="i.does === 'speed'" label="Note it" text size="small" :aria-label="`Note it: speed at ${i.name}`" @click="$emit('speeds')" />
              <Button v-else-if="i.does && DOES[i.does]" :label="DOES[i.does]" text size="small" :disabled="running" :aria-label="`${DOES[i.does]}: ${i.name}`" @click="act(i)" />
              <Button v-if="step.number === 8 && i.serial" icon="pi pi-lightbulb" text size="small" :aria-label="`Let ${i.name} blink`" :aria-pressed="lit === i.serial" @click="light(i)" />
            </template>
          </li>
        </ul>
      </section>
    </template>
  </div>
</template>

<style scoped>
.bring {
  display: grid;
  grid-template-columns: 330px minmax(0, 1fr);
  gap: 0 26px;
}
.bring > [role='alert'],
.none {
  grid-column: 1 / -1;
}
.where {
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 14px;
  margin-bottom: 10px;
}
.where label {
  display: flex;
  align-items: center;
  gap: 6px;
}
.ladder {
  align-self: start;
  list-style: none;
  margin: 0;
  padding: 0;
  border-left: 2px solid var(--granite-mid);
}
.ladder button {
  all: unset;
  box-sizing: border-box;
  display: grid;
  grid-template-columns: 28px 1fr auto;
  align-items: center;
  width: 100%;
  min-height: 38px;
  padding: 2px 8px 2px 0;
  border-bottom: 1px solid var(--granite-light);
  cursor: pointer;
}
.ladder button:focus-visible {
  outline: 2px solid var(--heather);
  outline-offset: -2px;
}
.ladder .no {
  width: 22px;
  height: 22px;
  margin-left: -12px;
  border: 2px solid var(--granite-mid);
  border-radius: 50%;
  background: var(--paper);
  text-align: center;
  font-size: 11px;
  line-height: 18px;
}
.ladder .done .no {
  background: var(--moss-line);
  border-color: var(--moss-line);
  color: var(--paper);
}
.ladder .ready .no {
  border-color: var(--tarn);
  color: var(--tarn);
}
.ladder .blocked .no {
  border-color: var(--rust);
  color: var(--rust);
  border-radius: 3px;
}
.ladder .here button {
  background: var(--heather-wash);
}
.ladder .waits .title {
  color: var(--granite);
}
.title {
  font: 500 13px/1.25 var(--condensed);
}
.many {
  font-size: 11px;
  color: var(--granite);
}
.rung h2 {
  margin-bottom: 2px;
}
.rung h2 span {
  font-weight: 400;
  margin-left: 6px;
}
.caution {
  margin: 4px 0;
  color: var(--gorse-ink);
  font-weight: 500;
}
.items {
  list-style: none;
  margin: 8px 0 0;
  padding: 0;
}
.items li {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 2px 8px;
  min-height: 34px;
  border-bottom: 1px solid var(--granite-light);
}
.items label {
  display: flex;
  gap: 8px;
  align-items: center;
  min-height: 34px;
}
.mark {
  width: 14px;
  text-align: center;
  color: var(--granite);
}
.items .done .mark {
  color: var(--moss);
}
.items .ready .mark {
  color: var(--tarn);
}
.items .blocked .mark {
  color: var(--rust);
}
.words {
  flex: 1 1 200px;
  font: 400 12px/1.35 var(--condensed);
}
.serial {
  width: 150px;
}
@media (max-width: 1000px), (pointer: coarse) {
  .bring {
    grid-template-columns: 1fr;
  }
  .ladder button,
  .items li,
  .items label {
    min-height: 44px;
  }
}
</style>
