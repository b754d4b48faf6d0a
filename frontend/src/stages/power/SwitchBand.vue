<script setup lang="ts">
import Button from 'primevue/button'
import { computed, shallowRef, watch } from 'vue'
import { useProjectJob } from '@/answers/useJob'
import type { Change, JobKinds } from '@/api/types'
import JobProgress from '@/controls/JobProgress.vue'
import SideCard from '@/controls/SideCard.vue'
import { useDesign } from '@/document/store'
import { inUnits, signed, whole } from '@/document/units'

/** Switches for all racks at least cost: as planned, for today, with what comes later, as fast as each device. */
const emit = defineEmits<{ close: [] }>()
const store = useDesign()
const { job, running, run, stop } = useProjectJob()
type Found = NonNullable<JobKinds['switches']['result']>
const found = shallowRef<Found | null>(null)
const choices = computed(() => found.value?.choices ?? [])
const dearest = computed(() => Math.max(1, ...choices.value.map((c) => c.price)))
const money = (value: number) => `${whole(value)} ${found.value?.currency ?? ''}`
const more = (value: number) => `${signed(value)} ${found.value?.currency ?? ''}`

async function look(): Promise<void> {
  const done = await run('switches', {})
  if (done?.result) found.value = done.result
}
watch(() => store.revision, () => void look(), { immediate: true })

function take(choice: Found['choices'][number]): void {
  store.commit(`Switches: ${choice.name.toLowerCase()}`, choice.changes as Change[])
  emit('close')
}
</script>

<template>
  <section class="band" aria-label="Switches for all racks" data-testid="switches">
    <header>
      <h3>Switches for all racks, at least cost</h3>
      <Button icon="pi pi-times" text size="small" aria-label="Close" @click="emit('close')" />
    </header>
    <JobProgress v-if="running" :job="job" what="Choices worked out" @stop="stop" />
    <p v-if="found?.without.length" class="not_met">No choice of switches serves {{ found.without.join(', ') }}.</p>
    <div class="side-cards">
      <SideCard v-for="(c, k) in choices" :key="c.name" class="choice" :title="c.name" :tone="c.left ? 'bad' : k ? 'good' : 'now'" :data-choice="c.name">
        <span class="bar"><i :style="{ width: `${(100 * c.price) / dearest}%` }" /></span>
        <dl>
          <dt>Switches</dt><dd class="figure price">{{ money(c.price) }}</dd>
          <dt>The job, with tax</dt><dd class="figure">{{ k ? more(c.extra) : 'as it is' }}</dd>
          <dt>Without a port</dt><dd class="figure" :class="{ not_met: c.left }">{{ c.left }}</dd>
          <dt>Free ports</dt><dd class="figure">{{ c.ports_free }}</dd>
          <dt>Watts to spare</dt><dd class="figure">{{ c.watts_free.toFixed(0) }} W</dd>
        </dl>
        <ul>
          <li v-for="r in c.racks" :key="r.room">
            <strong>{{ r.name }}</strong>
            <span v-for="s in r.switches" :key="s">{{ s }}</span>
            <span v-if="!r.switches.length" class="quiet">none</span>
            <span v-if="k" class="quiet">{{ r.links }} {{ r.links === 1 ? "link" : "links" }}{{ r.kept ? `, ${r.kept} kept` : '' }}; {{ r.proven ? 'proven cheapest' : `at least ${money(r.bound)}` }}{{ r.slower ? `; ${r.slower} slower than asked` : '' }}</span>
          </li>
        </ul>
        <p class="quiet">{{ inUnits(c.says) }}</p>
        <Button v-if="k" label="Take these" size="small" :aria-label="`Take the switches: ${c.name}`" data-take @click="take(c)" />
      </SideCard>
    </div>
  </section>
</template>

<style scoped>
.band {
  border: 1px solid var(--heather);
  border-radius: 3px;
  padding: 6px 10px 8px;
  margin: 0 0 12px;
}
header {
  display: flex;
  align-items: baseline;
}
header > :last-child {
  margin-left: auto;
}
h3 {
  font-size: 13px;
}
.bar {
  height: 5px;
  background: var(--granite-light);
}
.bar i {
  display: block;
  height: 100%;
  background: var(--heather);
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  font: 400 12px/1.35 var(--condensed);
  margin-bottom: 4px;
}
li .quiet {
  font: 400 11px/1.3 var(--condensed);
}
</style>
