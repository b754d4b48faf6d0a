<script setup lang="ts">
import Button from 'primevue/button'
import { useProjectJob } from '@/answers/useJob'
import JobProgress from '@/controls/JobProgress.vue'
import { useDesign } from '@/document/store'

type Printed = 'brief_pdf' | 'quote_pdf' | 'labels_pdf' | 'sheets_pdf' | 'racks_pdf' | 'settings_pdf' | 'notice_pdf' | 'diagram_pdf'
/** Prints a paper as a job and hands it over when it is done. */
const props = defineProps<{ kind: Printed; label: string; arguments?: Record<string, unknown> }>()
const store = useDesign()
const { job, running, run, stop } = useProjectJob()

async function print(): Promise<void> {
  const done = await run(props.kind, props.arguments)
  if (done?.state === 'done') location.assign(`/api/projects/${store.id}/papers/${done.result?.paper ?? ''}`)
}
</script>

<template>
  <JobProgress v-if="running" :job="job" what="Printing" @stop="stop" />
  <Button v-else :label="label" icon="pi pi-print" size="small" outlined :data-print="kind" @click="print" />
</template>
