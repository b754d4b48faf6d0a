<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import { computed, ref } from 'vue'
import Choice from '@/controls/Choice.vue'
import type { HandoverView } from '@/api/types'
import { useProjectJob } from '@/answers/useJob'
import JobProgress from '@/controls/JobProgress.vue'
import PrintButton from '@/controls/PrintButton.vue'
import { useDesign } from '@/document/store'
import SealedCopy from './SealedCopy.vue'

/** Hand-overs as they were made, and what else is printed: sheets to scale, the sealed copy. */
const props = defineProps<{ view: HandoverView; who: string; floor: string }>()
const emit = defineEmits<{ made: []; sign: [number: number, name: string] }>()
const store = useDesign()
const { job, running, run, stop } = useProjectJob()
const names = ref<Record<number, string>>({})
const paper = ref(store.site?.units === 'imperial' ? 'Letter' : 'A4')
const PAPERS = ['A4', 'A3', 'Letter', 'Tabloid']
const scale = ref(0)
const SCALES = [{ value: 0, label: 'to fit the page' }, ...[50, 100, 200].map((s) => ({ value: s, label: `1 : ${s}` }))]
const storeys = ref('all')
/** There is more to the site than one building. */
const land = computed(() => store.all('building').length > 1 || (['duct', 'buried_service', 'grove', 'far_point'] as const).some((kind) => store.all(kind).length > 0))
const STOREYS = computed(() => [{ value: 'all', label: land.value ? 'site and every storey' : 'every storey' }, ...(land.value ? [{ value: 'site', label: 'site' }] : []), { value: 'this', label: store.find('floor', props.floor)?.name ?? 'this storey' }])
const sheets = computed(() => ({
  paper: paper.value, ...(scale.value ? { scale: scale.value } : {}), ...(storeys.value === 'all' ? {} : { floors: [storeys.value === 'this' ? props.floor : 'site'] }),
}))
const paperAt = (id: string | undefined) => `/api/projects/${store.id}/papers/${id ?? ''}`

async function make(): Promise<void> {
  const done = await run('handover', { by: props.who.trim() || 'installer' })
  if (done?.state === 'done') emit('made')
}
</script>

<template>
  <div class="papers">
    <section aria-label="Hand-overs">
      <h2>Hand-over</h2>
      <p class="quiet">Two papers, one for the client and one for the next technician, from revision {{ store.revision }} and all that was noted up to now. Later edits do not change them; it can be made again at any time.</p>
      <JobProgress v-if="running" :job="job" what="Making the hand-over" @stop="stop" />
      <Button v-else :label="view.past.length ? 'Make it again' : 'Make the hand-over'" size="small" data-testid="hand-over" @click="make" />
      <article v-for="h in view.past" :key="h.number" class="past" :data-handover="h.number">
        <div>
          <b>{{ h.at.slice(0, 10) }}, revision {{ h.revision }}</b>
          <span class="quiet"> by {{ h.by }}, {{ h.still_open.length ? `${h.still_open.length} points open` : 'nothing open' }}<template v-if="h.revision < store.revision">; {{ store.revision - h.revision }} {{ store.revision - h.revision === 1 ? 'edit' : 'edits' }} since</template></span>
        </div>
        <div class="links">
          <a class="out" :href="paperAt(h.papers.client)" download><i class="pi pi-download" /> For the client</a>
          <a class="out" :href="paperAt(h.papers.technician)" download><i class="pi pi-download" /> For the technician</a>
        </div>
        <p v-if="h.signed_by" class="met">Received by {{ h.signed_by }}, {{ h.signed_at?.slice(0, 10) }}</p>
        <form v-else class="sign" @submit.prevent="names[h.number]?.trim() && $emit('sign', h.number, names[h.number]!.trim())">
          <InputText v-model="names[h.number]" size="small" maxlength="120" placeholder="Name of who receives it" aria-label="Name of who receives it" />
          <Button type="submit" label="Received" size="small" outlined :disabled="!names[h.number]?.trim()" />
        </form>
      </article>
    </section>
    <section aria-label="Sheets to scale">
      <h2>Sheets to scale</h2>
      <div class="row">
        <Choice v-model="storeys" :options="STOREYS" aria-label="Which storeys" />
        <Select v-model="paper" :options="PAPERS" size="small" aria-label="Paper" />
        <Choice v-model="scale" :options="SCALES" aria-label="Scale" />
        <PrintButton kind="sheets_pdf" label="Print" :arguments="sheets" />
        <a class="out" :href="`/api/projects/${store.id}/sheets/${floor}.svg?scale=${scale || 100}`" download><i class="pi pi-download" /> {{ store.find('floor', floor)?.name }} as SVG, 1 : {{ scale || 100 }}</a>
      </div>
      <p class="quiet">What does not fit one page at its scale goes over several, with 5 mm to glue.</p>
    </section>
    <SealedCopy />
  </div>
</template>

<style scoped>
.papers {
  display: grid;
  gap: 10px;
  align-content: start;
}
h2 {
  margin: 4px 0;
}
section {
  display: grid;
  gap: 6px;
  justify-items: start;
}
.past {
  width: 100%;
  display: grid;
  gap: 4px;
  padding: 8px 0;
  border-top: 1px solid var(--granite-light);
}
.links,
.row,
.sign {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 12px;
}
.met {
  color: var(--moss);
  font-weight: 600;
}
</style>
