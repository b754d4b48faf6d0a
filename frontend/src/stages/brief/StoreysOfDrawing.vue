<script setup lang="ts">
import Dialog from 'primevue/dialog'
import { computed, ref } from 'vue'
import { useJob } from '@/answers/useJob'
import type { Building, Change } from '@/api/types'
import { useAttempt } from '@/api/useAttempt'
import JobProgress from '@/controls/JobProgress.vue'
import { useDesign } from '@/document/store'
import DrawingLayers from '@/shell/DrawingLayers.vue'
import { chosenFile, useDrawing, type DrawingChoice } from '@/shell/useDrawing'

/** Storeys of a drawing, put on a building that is there: floors often come in files of their own. */
const props = defineProps<{ building: Building }>()
const store = useDesign()
const { job, running, follow, stop } = useJob()
const { drawing, inspection, name, leave, look, read } = useDrawing(follow)
const { wrong, attempt } = useAttempt()
const busy = ref(false)
const open = computed({ get: () => inspection.value !== null, set: (on) => on || leave() })

async function choose(event: Event): Promise<void> {
  const chosen = chosenFile(event)
  if (chosen) await attempt(() => look(chosen))
}

async function draw(choice: DrawingChoice): Promise<void> {
  busy.value = true
  await attempt(async () => {
    await store.flush()
    const made = await read(choice, { project: store.id, building: props.building.id })
    if (!made) return
    store.commit(`Storeys of ${name()}`, made.changes as Change[])
    leave()
  })
  busy.value = false
}
</script>

<template>
  <label class="choose-file">Storeys from a drawing <input type="file" accept=".dxf" :data-testid="`storeys-${building.id}`" @change="choose"></label>
  <p v-if="wrong && !open" role="alert" class="wrong">{{ wrong }}</p>
  <Dialog v-model:visible="open" modal :header="`${drawing?.name} on ${building.name}`" :style="{ width: '560px' }">
    <p class="quiet">A storey goes where one of its name is still empty, else on top. Its lower left corner comes to lie over the building’s; Storey up on the plan lays it over by two points that both have.</p>
    <DrawingLayers v-if="inspection" :inspection="inspection" :busy="busy" ask-name @draw="draw" @back="leave" />
    <JobProgress v-if="running" :job="job" what="Reading the drawing" class="busy" @stop="stop" />
    <p v-if="wrong" role="alert" class="wrong">{{ wrong }}</p>
  </Dialog>
</template>

<style scoped>
.busy {
  margin-top: 8px;
}
.wrong {
  color: var(--rust);
  margin: 4px 0 0;
}
</style>
