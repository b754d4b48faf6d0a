<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { computed, ref } from 'vue'
import { useController } from '@/answers/useController'
import { useProjectJob } from '@/answers/useJob'
import { useBeginRound } from '@/answers/useRound'
import type { JobKinds } from '@/api/types'
import Choice from '@/controls/Choice.vue'
import JobProgress from '@/controls/JobProgress.vue'
import GearTree from './GearTree.vue'
import DriftPart from './DriftPart.vue'
import MeasuredPart from './MeasuredPart.vue'
import ScanPart from './ScanPart.vue'
import { useDesign } from '@/document/store'
import { when } from '@/document/units'
import { many } from '../words'

/** The site's controller beside the plan: its gear as it hangs, what differs, what a push would send, and how it went. */
const { view, load, said, busy, on, onEach, readBack, updateItself, match, keepBackup, restore, plugIn, takeOver, giveKeys, online } = useController()
const { job, running, run, stop } = useProjectJob()
const { beginning, wrong, begin } = useBeginRound()
const ended = ref<JobKinds['push']['result'] | null>(null)
const faults = ref(2)
const evenSo = ref(false)
const label = ref('')
const practising = ref(false)
const trainee = ref('')
const store = useDesign()
const FAULTS = [0, 1, 2, 5].map((v) => ({ value: v, label: v === 0 ? 'no faults' : `${v} with a fault` }))
const managed = computed(() => view.value?.devices.filter((d) => d.managed) ?? [])
const found = computed(() => [...managed.value.filter((d) => d.stand === 'found').map((d) => d.serial), ...(view.value?.strangers.filter((g) => g.stand === 'found').map((g) => g.serial) ?? [])])
const old = computed(() => managed.value.filter((d) => d.offers && d.stand === 'online').sort((a, b) => b.depth - a.depth).map((d) => d.serial))
const cuts = computed(() => view.value?.steps.filter((s) => s.cuts?.length) ?? [])
const keysLeft = computed(() => view.value?.keys?.filter((k) => k.stand !== 'held') ?? [])
const sendable = computed(() => keysLeft.value.filter((k) => k.stand !== 'missing'))
const scanning = computed(() => managed.value.some((d) => d.stand === 'scanning'))
const free = computed(() => managed.value.filter((d) => !d.serial).map((d) => ({ value: d.id, label: d.name })))

async function push(asked: { target?: string; key?: string; undo?: string } = {}): Promise<void> {
  ended.value = null
  const done = await run('push', { ...asked, even_so: evenSo.value })
  ended.value = done?.result ?? null
  evenSo.value = false
  await readBack()
}
const PHASES: Record<string, string> = { add: 'new or other', device: 'to the device', remove: 'goes' }
</script>

<template>
  <div v-if="view" class="controller" data-testid="controller">
    <section class="gear" aria-label="Gear">
      <p v-if="view.trouble" class="not_met trouble" data-trouble>{{ view.trouble }}</p>
      <div v-if="view.standin" class="standin">
        <span class="quiet">A stand-in plays controller and gear.</span>
        <Choice v-model="faults" :options="FAULTS" aria-label="Faults" />
        <Button :label="view.about ? 'Begin anew' : 'Plug the plan’s gear in'" size="small" :outlined="!!view.about" :loading="busy > 0" data-plug @click="plugIn(faults, true)" />
        <Button v-if="!practising" label="Practise on a copy" icon="pi pi-stopwatch" size="small" text data-practise @click="practising = true" />
        <form v-else class="head" @submit.prevent="begin(store.id, trainee, faults)"><InputText v-model="trainee" size="small" maxlength="60" placeholder="who practises" aria-label="Who practises" autofocus /><Button type="submit" label="Begin the round" size="small" :loading="beginning" data-begin-round /></form>
        <p v-if="wrong" class="not_met" role="alert">{{ wrong }}</p>
      </div>
      <template v-if="view.about">
        <div class="head">
          <b>{{ view.about.name }}</b><span class="quiet">firmware {{ view.about.firmware }}</span>
          <span v-if="view.about.updating" class="quiet" data-updating>updates itself …</span>
          <Button v-else-if="view.about.offers" :label="`Update it to ${view.about.offers} first`" size="small" data-update-itself @click="updateItself()" />
          <span class="gap" /><span class="quiet" data-online>{{ online }} of {{ managed.length }} online</span>
        </div>
        <p v-if="said" class="not_met" role="alert" data-said>{{ said }}</p>
        <div v-if="found.length || old.length" class="head">
          <Button v-if="found.length" :label="`Adopt ${found.length} found`" size="small" :disabled="!!view.about.offers || view.about.updating" data-adopt @click="onEach(found, 'adopt')" />
          <Button v-if="old.length" :label="`Update ${old.length}, the farthest first`" size="small" outlined data-update @click="onEach(old, 'update')" />
        </div>
        <GearTree :devices="view.devices" :standin="view.standin" @on="on" @push="push({ target: `device/${$event}` })" @match="match" />
        <div v-if="view.strangers.length" class="strangers">
          <h3>Seen, and not known as one of the plan</h3>
          <p v-for="g in view.strangers" :key="g.serial" :data-stranger="g.serial"><span class="figure">{{ g.serial }}</span> {{ g.model }}, {{ g.stand?.replace('_', ' ') }} <Choice v-if="free.length" :options="free" placeholder="is ..." :aria-label="`${g.serial} is`" @update:model-value="match(String($event), g.serial)" /> <Button label="Blink" text size="small" @click="on(g.serial, g.blinking ? 'still' : 'blink')" /></p>
        </div>
      </template>
    </section>
    <section v-if="view.about" class="push" aria-label="Push">
      <h2>{{ view.differs.length ? `${many(view.differs.length, 'setting')} not as planned` : 'Everything held is as planned' }}</h2>
      <p class="quiet">{{ view.settings }} settings in the plan<template v-if="view.read_at">, read back {{ when(view.read_at) }}</template>. <Button label="Read back" text size="small" data-read @click="readBack()" /></p>
      <JobProgress v-if="running" :job="job" what="Sending step by step" @stop="stop" />
      <template v-else-if="view.steps.length">
        <div class="head">
          <Button :label="`Push ${many(view.steps.length, 'step')}`" size="small" :disabled="cuts.length > 0 && !evenSo" data-push @click="push()" />
          <label v-if="cuts.length" class="not_met"><input v-model="evenSo" type="checkbox"> even though {{ cuts.map((s) => s.cuts!.join(', ')).join('; ') }} would be cut off</label>
        </div>
        <ol class="steps"><li v-for="s in view.steps" :key="s.number" :class="{ danger: s.cuts?.length, branch: s.branch }" :data-step="s.target"><b>{{ s.name }}</b> <span class="quiet">{{ many(s.settings, 'setting') }} · {{ s.branch ? 'last: the way to the controller' : PHASES[s.phase] }}</span><span v-if="s.cuts?.length" class="not_met"> cuts off {{ s.cuts.join(', ') }}</span></li></ol>
      </template>
      <p v-if="ended" :class="ended.wrong.length ? 'not_met' : 'met'" data-ended>{{ ended.done }} of {{ ended.of }} steps hold, read back.<template v-for="w in ended.wrong" :key="w"><br>{{ w }}</template></p>
      <div v-if="view.keys?.length" class="head" data-keys>
        <span :class="keysLeft.length ? 'quiet' : 'met'">{{ view.keys.length - keysLeft.length }} of {{ many(view.keys.length, 'key') }} at the controller</span>
        <Button v-if="sendable.length" :label="`Send ${many(sendable.length, 'key')}`" size="small" outlined data-send-keys @click="giveKeys()" />
        <span v-for="k in keysLeft" :key="k.target" :class="k.stand === 'unsent' ? 'quiet' : 'not_met'" :data-key-at="k.target"><b>{{ k.name }}</b> {{ k.words }}</span>
      </div>
      <DriftPart :rows="view.differs" @back="push" @take="takeOver" />
      <MeasuredPart v-if="online" />
      <ScanPart v-if="online || scanning" :standin="view.standin" />
      <h3>Pushed before</h3>
      <p v-if="!view.pushes.length" class="quiet">Nothing was pushed yet.</p>
      <p v-for="p in view.pushes" :key="p.push" class="past"><span class="figure">{{ when(p.at) }}</span> {{ p.done }} of {{ p.of }} hold<span v-if="p.wrong?.length" class="not_met"> · {{ p.wrong[0] }}</span> <Button label="Undo it" text size="small" :disabled="running" @click="push({ undo: p.push })" /></p>
      <h3>Backups, kept with the project</h3>
      <form class="head" @submit.prevent="keepBackup(label).then(() => (label = ''))"><InputText v-model="label" size="small" maxlength="80" placeholder="what for" aria-label="What the backup is for" /><Button type="submit" label="Keep a backup" size="small" outlined data-backup /></form>
      <p v-for="b in view.backups" :key="b.number" class="past" data-backup-row><span class="figure">{{ when(b.at) }}</span> {{ b.label || 'no word' }} <span class="quiet">{{ (b.bytes / 1000).toFixed(1) }} kB</span> <Button label="Restore" text size="small" @click="restore(b.number).then(() => load())" /></p>
    </section>
  </div>
</template>

<style scoped>
.controller {
  display: grid;
  grid-template-columns: minmax(0, 1.3fr) minmax(0, 1fr);
  gap: 0 26px;
}
.head,
.standin {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 10px;
  margin: 4px 0 8px;
}
.standin {
  padding: 5px 8px;
  background: var(--paper-deep);
}
.gap {
  flex: 1;
}
.steps {
  margin: 0 0 10px;
  padding-left: 24px;
  font: 400 12px/1.6 var(--condensed);
  max-height: 210px;
  overflow: auto;
}
.steps .branch b {
  color: var(--heather);
}
.past {
  font: 400 12px/1.5 var(--condensed);
  border-bottom: 1px solid var(--granite-light);
}
.strangers p {
  display: flex;
  align-items: center;
  gap: 8px;
}
h3 {
  margin: 14px 0 2px;
}
.trouble {
  margin-bottom: 8px;
}
label {
  font-size: 12px;
}
@media (max-width: 1100px) {
  .controller {
    grid-template-columns: 1fr;
  }
}
</style>
