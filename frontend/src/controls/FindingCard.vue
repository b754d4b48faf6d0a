<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useProjectJob } from '@/answers/useJob'
import type { Change, Cure, Finding, Kind } from '@/api/types'
import JobProgress from '@/controls/JobProgress.vue'
import { useDesign } from '@/document/store'
import { inUnits, length, measured } from '@/document/units'
import { openedFigure } from '@/figures/useFigures'

const props = defineProps<{ finding: Finding }>()
defineEmits<{ show: [] }>()
const store = useDesign()
const route = useRoute()
const router = useRouter()
const open = ref(false)
const searched = ref<Cure[] | null>(null)
const { job, running, run, stop } = useProjectJob()

const WHOSE = { shipped: '', firm: 'the firm\'s ', profile: 'the practice profile\'s ', project: 'this project\'s ' } as const
const SEVERITY = { not_met: 'Not met', near: 'Near the limit', note: 'To know' } as const
const room = computed(() => props.finding.places[0]?.kind === 'space')
const cures = computed(() => [...props.finding.cures, ...(searched.value ?? [])])
const limits = computed(() => {
  const { figure, limit, unit } = props.finding
  if (figure === null || figure === undefined) return ''
  const said = measured(figure, unit)
  return limit === null || limit === undefined ? said : `${said}, limit ${measured(limit, unit)}`
})

/** What of it stands in the diagram, where one is not there already. */
const drawn = computed(() => {
  if (route.params['stage'] === 'diagram') return undefined
  const place = props.finding.places.find((p) => ['device', 'switch', 'equipment_room'].includes(p.kind))
  if (place?.kind !== 'equipment_room') return place
  const first = store.all('switch').find((s) => s.equipment_room === place.id)
  return first && { kind: 'switch', id: first.id }
})
async function inDiagram(): Promise<void> {
  if (!drawn.value) return
  store.selection = { kind: drawn.value.kind as Kind, id: drawn.value.id }
  await router.push(`/p/${store.id}/diagram`)
}
async function search(): Promise<void> {
  const done = await run('cures', { finding: props.finding.id })
  if (done) searched.value = done.result?.cures ?? []
}

function take(cure: Cure): void {
  searched.value = null
  store.commit(cure.label, cure.changes as Change[])
}
</script>

<template>
  <article class="card" :class="finding.severity" :data-finding="finding.id">
    <button class="plain text" @click="$emit('show')">
      <span class="severity">{{ SEVERITY[finding.severity] }}</span>
      {{ inUnits(finding.text) }}
    </button>
    <div class="cures">
      <div v-for="cure in cures" :key="cure.label" class="cure">
        <Button :label="inUnits(cure.label)" size="small" outlined data-cure @click="take(cure)" />
        <span v-if="cure.effect" class="quiet">{{ inUnits(cure.effect) }}</span>
      </div>
      <p v-if="searched && !searched.length" class="quiet">
        {{ room ? `No single move within ${length(3.5)} mends it. Try a second access point, or another model.` : 'Nothing better was found.' }}
      </p>
      <Button
        v-if="finding.searches_cures && !searched && !running" label="Find a cure"
        icon="pi pi-compass" size="small" text data-search @click="search"
      />
      <JobProgress v-if="running" :job="job" :what="room ? 'Trying moves' : 'Searching'" @stop="stop" />
      <Button v-if="drawn" label="In the diagram" size="small" text data-in-diagram @click="inDiagram" />
      <Button :label="open ? 'Less' : 'Rule'" size="small" text :aria-expanded="open" @click="open = !open" />
    </div>
    <dl v-if="open">
      <template v-if="limits"><dt>Figure</dt><dd class="figure">{{ limits }}</dd></template>
      <template v-if="finding.used.length">
        <dt>Rests on</dt>
        <dd>
          <button v-for="u in finding.used" :key="u.figure" class="plain used" :data-used="u.figure" @click="openedFigure = u.figure">
            {{ u.label }}: {{ WHOSE[u.whose] }}<span class="figure">{{ inUnits(u.value) }}</span>
          </button>
        </dd>
      </template>
      <dt>Rule</dt><dd>{{ finding.rule }}</dd>
      <dt>Source</dt><dd>{{ finding.source }}</dd>
    </dl>
  </article>
</template>

<style scoped>
.card {
  border-left: 3px solid var(--tarn);
  margin: 6px 10px 8px 12px;
  padding: 2px 0 2px 9px;
}
.card.not_met {
  border-left-color: var(--rust);
}
.card.near {
  border-left-color: var(--gorse);
}
.severity {
  display: block;
  font: 600 11px/1.3 var(--condensed);
  color: var(--tarn);
}
.not_met .severity {
  color: var(--rust);
}
.near .severity {
  color: var(--gorse-ink);
}
.text {
  overflow-wrap: anywhere;
}
.text:hover {
  text-decoration: underline;
  text-decoration-color: var(--granite-mid);
}
.cures {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 4px;
  margin-top: 3px;
}
.cure {
  width: 100%;
  display: grid;
  justify-items: start;
  gap: 1px;
  margin: 2px 0;
  font-size: 12px;
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 1px 8px;
  margin: 2px 0 0;
  font-size: 12px;
}
.used {
  display: block;
  min-height: 24px;
  color: var(--heather);
}
dt {
  color: var(--granite);
}
dd {
  margin: 0;
}
</style>
