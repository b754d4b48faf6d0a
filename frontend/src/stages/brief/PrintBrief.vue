<script setup lang="ts">
import Button from 'primevue/button'
import { api, taken } from '@/api/client'
import { useJob } from '@/answers/useJob'
import JobProgress from '@/controls/JobProgress.vue'
import { useDesign } from '@/document/store'

/** The brief on two pages, to agree with the client. */
const store = useDesign()
const { job, running, follow, stop } = useJob()

async function print(): Promise<void> {
  const params = { path: { project_id: store.id } }
  const done = await follow(taken(api.POST('/api/projects/{project_id}/jobs', { params, body: { kind: 'brief_pdf', arguments: {} } })))
  if (done?.state === 'failed') store.trouble = { message: done.message, detail: [] }
  else if (done?.result) location.assign(`/api/projects/${store.id}/papers/${String(done.result.paper)}`)
}
</script>

<template>
  <JobProgress v-if="running" :job="job" what="Printing the brief" @stop="stop" />
  <Button v-else label="Print the brief" icon="pi pi-print" size="small" outlined data-testid="print-brief" @click="print" />
</template>
