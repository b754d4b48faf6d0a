<script setup lang="ts">
import Button from 'primevue/button'
import { ref, shallowRef, watch } from 'vue'
import { useProjectJob } from '@/answers/useJob'
import type { Change, JobKinds } from '@/api/types'
import JobProgress from '@/controls/JobProgress.vue'
import { useDesign } from '@/document/store'
import { money } from '@/document/units'

/** What could be left out: what it saves now, what it would cost by itself later, and what it spoils. */
type Saving = JobKinds['savings']['result']['savings'][number]
const store = useDesign()
const found = shallowRef<Saving[] | null>(null)
const whole = ref(true)
const { job, running, run, stop } = useProjectJob()
watch(() => [store.id, store.revision], () => (found.value = null))

async function look(): Promise<void> {
  const done = await run('savings')
  if (!done) return
  found.value = done.result?.savings ?? []
  whole.value = done.state === 'done'
}
</script>

<template>
  <div class="savings">
    <JobProgress v-if="running" :job="job" what="Leaving out one thing after another" @stop="stop" />
    <Button v-else-if="!found" label="What could be left out" icon="pi pi-minus-circle" size="small" outlined data-savings @click="look" />
    <p v-else-if="!found.length" class="quiet">Nothing that would save anything.</p>
    <template v-else>
      <p v-if="!whole" class="quiet">Stopped before all was tried.</p>
      <table class="ledger">
        <thead><tr><th>What would save</th><th class="number">Saves now</th><th class="number">By itself later</th><th>What it spoils</th><th><span class="visually-hidden">Take</span></th></tr></thead>
        <tbody>
          <tr v-for="s in found" :key="s.label" data-saving>
            <td>{{ s.label }}</td><td class="number">{{ money(s.saves) }}</td><td class="number">{{ s.later === null ? '–' : money(s.later) }}</td>
            <td><span v-if="s.spoils.length" class="not_met">{{ s.spoils.join('; ') }}</span><span v-else class="quiet">nothing that is promised</span></td>
            <td><Button label="Do it" size="small" text @click="store.commit(s.label, s.changes as Change[])" /></td>
          </tr>
        </tbody>
      </table>
      <p class="quiet">{{ store.site?.currency }}, with tax. Cheaper ways of the whole job stand under Offers.</p>
    </template>
  </div>
</template>

<style scoped>
.savings {
  margin: 0 0 12px;
}
td {
  vertical-align: middle !important;
}
</style>
