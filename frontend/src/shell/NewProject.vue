<script setup lang="ts">
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import InputNumber from 'primevue/inputnumber'
import InputText from 'primevue/inputtext'
import ProgressBar from 'primevue/progressbar'
import { ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import Choice from '@/controls/Choice.vue'
import { FORMATS } from '@/api/exchange'
import { ApiError, api, file, taken } from '@/api/client'
import { useJob } from '@/answers/useJob'
import type { Problem, Site } from '@/api/types'
import { DOMAINS, KINDS } from '@/stages/words'
import JobProgress from '@/controls/JobProgress.vue'
import DrawingLayers from './DrawingLayers.vue'
import { chosenFile, useDrawing, type DrawingChoice } from './useDrawing'

const aboutOf = (file: string) => FORMATS.in.find((f) => f.file === file)?.about
const visible = defineModel<boolean>('visible', { required: true })
const router = useRouter()
const name = ref('New site')
const storeys = ref(2)
const kind = ref<Site['kind']>('home')
const domain = ref<Site['domain']>('europe')
const line_mbps = ref(500)
const trouble = ref<{ message: string; problems: Problem[] } | null>(null)
const CEILING_M = 2.7
const busy = ref(false)
const { job, running, follow, stop } = useJob()
const { drawing, inspection, leave, look, read } = useDrawing(follow)

watch(visible, () => {
  trouble.value = null
  leave()
})

/** Do one thing with the server; on success go to the project, else say what was wrong. */
async function attempt(work: () => Promise<{ id: string } | null>): Promise<void> {
  busy.value = true
  trouble.value = null
  try {
    const made = await work()
    if (made) {
      visible.value = false
      await router.push(`/p/${made.id}/plan`)
    }
  } catch (error) {
    if (!(error instanceof ApiError)) throw error
    trouble.value = { message: error.message, problems: error.problems }
  } finally {
    busy.value = false
  }
}

function begin(): void {
  const body = {
    name: name.value, storeys: storeys.value, kind: kind.value, domain: domain.value, line_mbps: line_mbps.value,
    ceiling_height_m: CEILING_M,
  }
  void attempt(() => taken(api.POST('/api/projects', { body })))
}

function openFile(event: Event): void {
  const chosen = chosenFile(event)
  if (chosen) void attempt(() => taken(api.POST('/api/import/project', file(chosen))))
}

function inspect(event: Event): void {
  const chosen = chosenFile(event)
  if (!chosen) return
  void attempt(async () => {
    await look(chosen)
    return null
  })
}

function draw(choice: DrawingChoice): void {
  void attempt(async () => {
    const made = await read(choice)
    return made && { id: String(made.project) }
  })
}
</script>

<template>
  <Dialog v-model:visible="visible" modal :header="inspection ? `Layers of ${drawing?.name}` : 'New project'" :style="{ width: '560px' }">
    <DrawingLayers v-if="inspection" :inspection="inspection" :busy="busy" @draw="draw" @back="inspection = null" />
    <template v-else>
      <section>
        <h2>From an empty sheet</h2>
        <form class="row" @submit.prevent="begin">
          <label class="name">Name <InputText v-model="name" maxlength="120" fluid /></label>
          <label class="few">Storeys <InputNumber v-model="storeys" :min="1" :max="6" show-buttons fluid /></label>
          <label>Kind of site <Choice v-model="kind" :options="KINDS" fluid aria-label="Kind of the new site" /></label>
          <label>Radio domain <Choice v-model="domain" :options="DOMAINS" fluid aria-label="Radio domain of the new site" /></label>
          <label class="few">Internet line <InputNumber v-model="line_mbps" :min="1" :max="100000" suffix=" Mb/s" fluid /></label>
          <Button type="submit" label="Begin" :disabled="!name.trim() || busy" />
        </form>
      </section>
      <section>
        <h2>From a DXF drawing</h2>
        <p class="quiet">{{ aboutOf('drawing.dxf') }}</p>
        <label class="choose-file">Choose a drawing <input type="file" accept=".dxf" data-testid="dxf-file" @change="inspect" /></label>
      </section>
      <section>
        <h2>From a project file</h2>
        <p class="quiet">{{ aboutOf('project.json') }} A whole project, or a plan as GeoJSON, as well.</p>
        <label class="choose-file">Choose a project file <input type="file" accept=".json,.zip,.geojson" data-testid="project-file" @change="openFile" /></label>
      </section>
    </template>
    <JobProgress v-if="running" :job="job" what="Reading the drawing" class="busy" @stop="stop" />
    <div v-else-if="busy" class="busy" role="status">
      <ProgressBar mode="indeterminate" aria-hidden="true" /> Working. A large drawing takes some seconds.
    </div>
    <div v-if="trouble" class="trouble" role="alert">
      <p>{{ trouble.message }}</p>
      <ul v-if="trouble.problems.length > 1">
        <li v-for="(p, i) in trouble.problems.slice(1, 6)" :key="i">{{ p.where }}: {{ p.what }}</li>
      </ul>
      <p class="quiet">Nothing was loaded and nothing was lost.</p>
    </div>
  </Dialog>
</template>

<style scoped>
section {
  padding: 10px 0 14px;
  border-bottom: 1px solid var(--granite-light);
  display: grid;
  gap: 6px;
}
section:last-of-type {
  border-bottom: none;
  padding-bottom: 0;
}
.row {
  display: grid;
  grid-template-columns: 1fr 1fr 130px;
  gap: 10px;
  align-items: end;
}
.row .name {
  grid-column: span 2;
}
.row button {
  grid-column: 3;
}
.busy {
  margin-top: 12px;
  color: var(--granite);
  display: grid;
  gap: 4px;
}
.busy :deep(.p-progressbar) {
  height: 3px;
}
.trouble {
  margin-top: 12px;
  border-left: 3px solid var(--rust);
  padding: 4px 10px;
  overflow-wrap: anywhere;
}
</style>
