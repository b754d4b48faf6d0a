<script setup lang="ts">
import Button from 'primevue/button'
import { useProjectJob } from '@/answers/useJob'
import JobProgress from '@/controls/JobProgress.vue'
import { useDesign } from '@/document/store'

/** Prints a paper as a job and hands it over when it is done. */
const props = defineProps<{ kind: string; label: string; arguments?: Record<string, unknown> }>()
const store = useDesign()
const { job, running, run, stop } = useProjectJob(() => props.kind)

async function print(): Promise<void> {
  const done = await run(props.arguments)
  if (done?.state === 'done') location.assign(`/api/projects/${store.id}/papers/${String(done.result?.paper)}`)
}
</script>

<template>
  <JobProgress v-if="running" :job="job" what="Printing" @stop="stop" />
  <Button v-else :label="label" icon="pi pi-print" size="small" outlined :data-print="kind" @click="print" />
</template>
