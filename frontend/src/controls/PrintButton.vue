<script setup lang="ts">
import Button from 'primevue/button'
import { ApiError, api, taken } from '@/api/client'
import { useJob } from '@/answers/useJob'
import JobProgress from '@/controls/JobProgress.vue'
import { useDesign } from '@/document/store'

/** Prints a paper as a job and hands it over when it is done. */
const props = defineProps<{ kind: string; label: string; arguments?: Record<string, unknown> }>()
const store = useDesign()
const { job, running, follow, stop } = useJob()

async function print(): Promise<void> {
  const params = { path: { project_id: store.id } }
  try {
    const done = await follow(taken(api.POST('/api/projects/{project_id}/jobs', { params, body: { kind: props.kind, arguments: props.arguments ?? {} } })))
    if (done?.state === 'failed') store.trouble = { message: done.message, detail: [] }
    else if (done?.state === 'done') location.assign(`/api/projects/${store.id}/papers/${String(done.result?.paper)}`)
  } catch (error) {
    if (!(error instanceof ApiError)) throw error
    store.trouble = { message: error.message, detail: [] }
  }
}
</script>

<template>
  <JobProgress v-if="running" :job="job" what="Printing" @stop="stop" />
  <Button v-else :label="label" icon="pi pi-print" size="small" outlined :data-print="kind" @click="print" />
</template>
