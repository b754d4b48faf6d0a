<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { computed, reactive, ref, watch } from 'vue'
import { api, taken } from '@/api/client'
import { useAttempt } from '@/api/useAttempt'
import type { ProjectLine, SiteSketch as Sketch } from '@/api/types'
import Choice from '@/controls/Choice.vue'
import { KINDS, standWords } from '@/stages/words'
import SiteSketch from './SiteSketch.vue'

/** One's own jobs: found, ordered, copied, laid aside; each with a small drawing and where it stands. */
const props = defineProps<{ projects: ProjectLine[]; kept: (id: string) => string }>()
const emit = defineEmits<{ changed: [] }>()
const SORTS = [{ value: 'opened', label: 'last opened' }, { value: 'name', label: 'by name' }, { value: 'stand', label: 'by where it stands' }] as const
type Sort = (typeof SORTS)[number]['value']
const sort = useLocalStorage<Sort>('heathrise-projects-sort', 'opened')
const search = ref('')
const aside = ref(false)
const { wrong, attempt } = useAttempt()
const sketches = reactive<Record<string, Sketch>>({})

const plain = (text: string) => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase()
const found = computed(() => {
  const wanted = plain(search.value.trim())
  const rows = props.projects.filter((p) => p.archived === aside.value && (!wanted || plain(p.name).includes(wanted)))
  if (sort.value === 'name') return [...rows].sort((a, b) => a.name.localeCompare(b.name))
  if (sort.value === 'stand') return [...rows].sort((a, b) => stands(a).text.localeCompare(stands(b).text) || b.opened.localeCompare(a.opened))
  return [...rows].sort((a, b) => b.opened.localeCompare(a.opened))
})
const MOST_SKETCHES = 60
watch(found, async (rows) => {
  for (const { id } of rows.slice(0, MOST_SKETCHES)) {
    if (sketches[id]) continue
    await attempt(async () => (sketches[id] = await taken(api.GET('/api/projects/{project_id}/sketch', { params: { path: { project_id: id } } }))))
  }
}, { immediate: true })

const stands = (p: ProjectLine) => standWords(p.stand)
const when = (opened: string) => new Date(opened).toLocaleDateString(undefined, { day: 'numeric', month: 'short', year: 'numeric' })
const kindOf = (id: string) => KINDS.find((k) => k.value === sketches[id]?.kind)?.label ?? ''

function copy(p: ProjectLine): void {
  void attempt(async () => {
    await taken(api.POST('/api/projects/{project_id}/copy', { params: { path: { project_id: p.id } }, body: { name: `${p.name}, copy`.slice(0, 120), revision: null } }))
    emit('changed')
  })
}
function archive(p: ProjectLine): void {
  void attempt(async () => {
    await taken(api.PUT('/api/projects/{project_id}/archived', { params: { path: { project_id: p.id } }, body: { archived: !p.archived } }))
    emit('changed')
  })
}
const archived = computed(() => props.projects.filter((p) => p.archived).length)
</script>

<template>
  <div v-if="projects.length" class="bar">
    <InputText v-model="search" size="small" placeholder="Find a project" aria-label="Find a project" />
    <Choice v-model="sort" :options="[...SORTS]" aria-label="Order of the projects" />
    <Button v-if="archived" :label="aside ? 'Back to the others' : `Laid aside (${archived})`" size="small" text @click="aside = !aside" />
    <span v-if="wrong" role="alert" class="wrong">{{ wrong }}</span>
  </div>
  <ul v-if="found.length" class="own">
    <li v-for="p in found" :key="p.id" class="row">
      <RouterLink :to="`/p/${p.id}/plan`" class="line">
        <span class="sketch"><SiteSketch v-if="sketches[p.id]?.rooms.length" :site="sketches[p.id]!" /></span>
        <span class="words"><b>{{ p.name }}</b><b v-if="kept(p.id)" class="near">{{ kept(p.id) }}</b><span class="quiet condensed">{{ kindOf(p.id) }}<template v-if="sketches[p.id]">, {{ sketches[p.id]!.needed }} rooms to serve, {{ sketches[p.id]!.devices }} devices</template></span></span>
        <span class="stand" :class="stands(p).tone" data-stand>{{ stands(p).text }}</span>
        <span class="quiet condensed">revision {{ p.revision }}, opened {{ when(p.opened) }}</span>
      </RouterLink>
      <Button icon="pi pi-copy" size="small" text :aria-label="`Copy ${p.name}`" title="Copy" @click="copy(p)" />
      <Button :icon="p.archived ? 'pi pi-replay' : 'pi pi-inbox'" size="small" text :aria-label="`${p.archived ? 'Fetch' : 'Lay aside'} ${p.name}`" :title="p.archived ? 'Fetch it again' : 'Lay aside'" @click="archive(p)" />
    </li>
  </ul>
  <p v-else-if="projects.length" class="quiet">{{ search ? `None is called like “${search}”.` : aside ? 'None is laid aside.' : 'All are laid aside.' }}</p>
  <p v-else class="quiet">None yet. New project begins with an empty sheet, a DXF drawing or a project file.</p>
</template>

<style scoped>
.bar {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  margin-bottom: 8px;
}
.wrong {
  color: var(--rust);
}
.own {
  list-style: none;
  margin: 0;
  padding: 0;
  border-top: 1px solid var(--granite-light);
}
.row {
  display: flex;
  align-items: center;
  border-bottom: 1px solid var(--granite-light);
}
.row:hover {
  background: var(--heather-wash);
}
.line {
  flex: 1;
  display: grid;
  grid-template-columns: 92px minmax(0, 1fr) minmax(120px, auto) 210px;
  align-items: center;
  gap: 16px;
  min-height: 62px;
  padding: 3px 8px 3px 0;
  color: inherit;
  text-decoration: none;
}
.sketch {
  display: block;
  height: 54px;
  overflow: hidden;
  background: var(--paper-deep);
}
.words {
  display: grid;
  gap: 2px;
}
.words b {
  font-weight: 600;
}
.stand {
  font: 600 13px var(--condensed);
}
@media (max-width: 760px) {
  .line {
    grid-template-columns: 72px minmax(0, 1fr);
  }
}
</style>
