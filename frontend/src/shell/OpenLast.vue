<script setup lang="ts">
import Button from 'primevue/button'
import { onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'
import { ApiError, get } from '@/api/client'
import type { ProjectLine } from '@/api/types'
import NewProject from './NewProject.vue'

const router = useRouter()
const trouble = ref('')
const empty = ref(false)
const asking = ref(false)

async function openLast(): Promise<void> {
  trouble.value = ''
  try {
    const { projects } = await get<{ projects: ProjectLine[] }>('/api/projects')
    const first = projects[0]
    if (first) await router.replace(`/p/${first.id}/plan`)
    else empty.value = true
  } catch (error) {
    trouble.value = error instanceof ApiError ? error.message : String(error)
  }
}

onMounted(openLast)
</script>

<template>
  <main class="open">
    <template v-if="trouble">
      <h1>{{ trouble }}</h1>
      <p>Nothing was lost. Start it with ./run demo, then try again.</p>
      <Button label="Try again" @click="openLast" />
    </template>
    <template v-else-if="empty">
      <h1>No project yet</h1>
      <p>Begin with an empty sheet, a drawing or a project file.</p>
      <Button label="New project" @click="asking = true" />
    </template>
    <NewProject v-model:visible="asking" />
  </main>
</template>

<style scoped>
.open {
  display: grid;
  gap: 12px;
  justify-items: start;
  max-width: 420px;
  margin: 20vh auto 0;
}
h1 {
  font: 600 18px var(--sans);
}
</style>
