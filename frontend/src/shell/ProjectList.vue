<script setup lang="ts">
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import InputText from 'primevue/inputtext'
import { ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { api, taken } from '@/api/client'
import type { ProjectLine } from '@/api/types'
import { useDesign } from '@/document/store'

const visible = defineModel<boolean>('visible', { required: true })
defineEmits<{ new: [] }>()
const store = useDesign()
const router = useRouter()
const projects = ref<ProjectLine[]>([])
const name = ref('')

watch(visible, async (shown) => {
  if (!shown) return
  name.value = store.name
  projects.value = (await taken(api.GET('/api/projects'))).projects
})

function open(id: string): void {
  visible.value = false
  void router.push(`/p/${id}/plan`)
}
</script>

<template>
  <Dialog v-model:visible="visible" modal header="Projects" :style="{ width: '480px' }">
    <form class="rename" @submit.prevent="name.trim() && store.rename(name.trim())">
      <label for="project-name">Name of this project</label>
      <InputText id="project-name" v-model="name" maxlength="120" fluid />
      <Button type="submit" label="Rename" outlined size="small" :disabled="!name.trim() || name === store.name" />
    </form>
    <ul>
      <li v-for="p in projects" :key="p.id">
        <button class="plain line" :class="{ here: p.id === store.id }" @click="open(p.id)">
          <span>{{ p.name }}</span>
          <span class="quiet figure">revision {{ p.revision }}</span>
        </button>
      </li>
    </ul>
    <Button label="New project, drawing or file" icon="pi pi-plus" size="small" @click="$emit('new')" />
  </Dialog>
</template>

<style scoped>
.rename {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 4px 8px;
}
.rename label {
  grid-column: 1 / -1;
  font-weight: 600;
}
ul {
  list-style: none;
  margin: 14px 0;
  padding: 0;
  border-top: 1px solid var(--granite-light);
}
.line {
  display: flex;
  justify-content: space-between;
  width: 100%;
  padding: 8px 6px;
  border-bottom: 1px solid var(--granite-light);
}
.line:hover,
.line.here {
  background: var(--heather-wash);
}
</style>
