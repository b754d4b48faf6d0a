<script setup lang="ts">
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import InputText from 'primevue/inputtext'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { api, taken } from '@/api/client'
import { useAttempt } from '@/api/useAttempt'
import type { Change, RevisionLine } from '@/api/types'
import Choice from '@/controls/Choice.vue'
import { useCompared } from '@/document/compared'
import { useDesign } from '@/document/store'
import { when } from '@/document/units'

/** What the plan has been: a revision is named, laid beside another, gone back to, or made a project of its own. */
const visible = defineModel<boolean>('visible', { required: true })
const store = useDesign()
const router = useRouter()
const { compare } = useCompared(store)
const lines = ref<RevisionLine[]>([])
const { wrong, attempt } = useAttempt()
const named = ref(false)
const to = ref(0)
const shown = computed(() => lines.value.filter((l) => !named.value || l.name))
const later = computed(() => [{ value: 0, label: 'the plan as it is' }, ...lines.value.filter((l) => l.name).map((l) => ({ value: l.revision, label: `${l.name} (${l.revision})` }))])
const called = (l: RevisionLine) => (l.name ? `“${l.name}”` : `revision ${l.revision}`)
const path = () => ({ project_id: store.id })

watch(visible, (now) => now && void load())
async function load(): Promise<void> {
  await attempt(async () => {
    lines.value = (await taken(api.GET('/api/projects/{project_id}/revisions', { params: { path: path() } }))).revisions
  })
}
function name(line: RevisionLine, event: Event): void {
  const said = (event.target as HTMLInputElement).value.trim()
  if (said === line.name) return
  void attempt(async () => {
    await taken(api.PUT('/api/projects/{project_id}/revisions/{number}', { params: { path: { ...path(), number: line.revision } }, body: { name: said } }))
    line.name = said
  })
}
async function beside(line: RevisionLine): Promise<void> {
  const other = lines.value.find((l) => l.revision === to.value)
  const [first, second] = other && other.revision < line.revision ? [other, line] : [line, other]
  wrong.value = await compare(first.revision, second?.revision ?? null, `From ${called(first)} to ${second ? called(second) : 'the plan as it is'}:`)
  if (!wrong.value) visible.value = false
}
/** An edit like any other: what came since stays in the journal, and undo brings it back. */
function back(line: RevisionLine): void {
  void attempt(async () => {
    await store.flush()
    const { changes } = await taken(api.GET('/api/projects/{project_id}/revisions/{number}/back', { params: { path: { ...path(), number: line.revision } } }))
    store.commit(`Back to ${called(line)}`.slice(0, 120), changes as Change[], true)
    visible.value = false
  })
}
function copy(line: RevisionLine): void {
  void attempt(async () => {
    const body = { name: `${store.name}, ${line.name || `revision ${line.revision}`}`.slice(0, 120), revision: line.revision }
    const made = await taken(api.POST('/api/projects/{project_id}/copy', { params: { path: path() }, body }))
    visible.value = false
    await router.push(`/p/${made.id}/plan`)
  })
}
</script>

<template>
  <Dialog v-model:visible="visible" modal header="What the plan has been" :style="{ width: '760px' }">
    <div class="head">
      <label>Compare with <Choice v-model="to" :options="later" aria-label="Compare with" /></label>
      <label class="only"><input v-model="named" type="checkbox"> only those with a name</label>
    </div>
    <p v-if="wrong" role="alert" class="wrong">{{ wrong }}</p>
    <ul>
      <li v-for="l in shown" :key="l.revision" :data-revision="l.revision">
        <span class="figure number">{{ l.revision }}</span>
        <span class="what"><span>{{ l.label }}</span><span class="quiet">{{ when(l.made) }}, {{ l.author }}</span></span>
        <InputText :model-value="l.name" size="small" maxlength="120" placeholder="Name it" :aria-label="`Name of revision ${l.revision}`" @change="name(l, $event)" />
        <Button label="Compare" size="small" outlined :disabled="l.revision === (to || store.revision)" @click="beside(l)" />
        <Button label="Go back" size="small" text :disabled="l.revision === store.revision" @click="back(l)" />
        <Button icon="pi pi-copy" size="small" text :aria-label="`Look at a copy of revision ${l.revision}`" title="Look at it as a project of its own" @click="copy(l)" />
      </li>
    </ul>
    <p class="quiet">Going back is an edit like any other: nothing that came since is lost, and one step back brings it again.</p>
  </Dialog>
</template>

<style scoped>
.head {
  display: flex;
  align-items: center;
  gap: 18px;
  margin-bottom: 6px;
}
.head label {
  display: flex;
  align-items: center;
  gap: 8px;
}
ul {
  list-style: none;
  margin: 0 0 8px;
  padding: 0;
  max-height: 52vh;
  overflow: auto;
  border-top: 1px solid var(--granite-light);
}
li {
  display: grid;
  grid-template-columns: 40px minmax(0, 1fr) 150px auto auto auto;
  align-items: center;
  gap: 8px;
  padding: 5px 2px;
  border-bottom: 1px solid var(--granite-light);
}
.number {
  text-align: right;
  color: var(--granite);
}
.what {
  display: grid;
  line-height: 1.3;
}
.what > span:first-child {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.what .quiet {
  font-size: 12px;
}
.wrong {
  border-left: 3px solid var(--rust);
  padding-left: 8px;
}
</style>
