<script setup lang="ts">
import Button from 'primevue/button'
import ProgressBar from 'primevue/progressbar'
import { computed } from 'vue'
import type { Job } from '@/api/types'

/** How far a long task is, and a button that stops it. */
const props = defineProps<{ job: Job | null; what: string }>()
defineEmits<{ stop: [] }>()
const share = computed(() => (props.job?.total ? Math.round((100 * props.job.done) / props.job.total) : 0))
</script>

<template>
  <div class="job" role="status" data-testid="job">
    <ProgressBar :mode="job?.total ? 'determinate' : 'indeterminate'" :value="share" :show-value="false" aria-hidden="true" />
    <span>{{ what }}<template v-if="job?.total">, {{ job.done }} of {{ job.total }}</template></span>
    <Button label="Stop" size="small" text @click="$emit('stop')" />
  </div>
</template>

<style scoped>
.job {
  width: 100%;
  display: grid;
  grid-template-columns: 1fr auto;
  align-items: center;
  gap: 2px 8px;
  font-size: 12px;
  color: var(--granite);
}
.job :deep(.p-progressbar) {
  grid-column: 1 / -1;
  height: 3px;
}
</style>
