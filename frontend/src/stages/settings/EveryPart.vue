<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { computed, ref, shallowRef, watch } from 'vue'
import { ApiError, api, file, taken } from '@/api/client'
import type { Change, Setting, SettingsRead } from '@/api/types'
import { useBeside } from '@/answers/useBeside'
import { useDesign } from '@/document/store'

/** Every setting that the controller will hold, one by one: its value, the reason, whose it is. */
type By = Setting['whose']
const store = useDesign()
const { answer: held } = useBeside((project_id) => taken(api.GET('/api/projects/{project_id}/settings', { params: { path: { project_id } } })))
const query = ref('')
const by = ref<By | null>(null)
const WHOSE: Record<By, string> = { profile: 'profile', firm: 'the firm', plan: 'the plan', brief: 'the brief', person: 'a person' }
const ORDER: By[] = ['plan', 'profile', 'firm', 'brief', 'person']
const counts = computed(() => ORDER.map((k) => ({ key: k, count: held.value?.by[k] ?? 0 })).filter((c) => c.count))
const words = computed(() => query.value.toLowerCase().split(/\s+/).filter(Boolean))
const rows = computed(() => (held.value?.settings ?? []).filter((s) => (!by.value || s.whose === by.value) && words.value.every((w) => `${s.on} ${s.label} ${said(s)} ${s.reason}`.toLowerCase().includes(w))))
const groups = computed(() => {
  const found = new Map<string, Setting[]>()
  for (const row of rows.value) found.set(row.target, [...(found.get(row.target) ?? []), row])
  return [...found.values()]
})
const names = computed(() => new Map([...store.all('network').map((n) => [n.id, n.name] as const), ...store.all('device').map((d) => [d.id, d.name] as const)]))
const read = shallowRef<SettingsRead | null>(null)
const wrong = ref('')
watch(() => [store.id, store.revision], () => (read.value = null))
/** Look at what a settings file would change; it is taken, or left. */
async function look(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const chosen = input.files?.[0]
  input.value = ''
  if (!chosen) return
  read.value = null
  wrong.value = ''
  try {
    read.value = await taken(api.POST('/api/projects/{project_id}/settings/read', { params: { path: { project_id: store.id } }, ...file(chosen) }))
  } catch (error) {
    if (!(error instanceof ApiError)) throw error
    wrong.value = [error.message, ...error.problems.map((p) => `${p.where}: ${p.what}`)].join(' ')
  }
}
function take(): void {
  if (read.value) store.commit('Settings read in', [...read.value.changes] as Change[])
}
function said(s: Setting): string {
  const one = (v: unknown): string => (typeof v === 'boolean' ? (v ? 'on' : 'off') : v === null || v === '' ? 'none' : (names.value.get(String(v)) ?? String(v).replaceAll('_', ' ')))
  return Array.isArray(s.value) ? s.value.map(one).join(', ') || 'none' : one(s.value)
}
</script>

<template>
  <div v-if="held">
    <div class="whose" role="group" aria-label="Whose they are">
      <button
        v-for="c in counts" :key="c.key" type="button" :class="[c.key, { only: by === c.key }]" :style="{ flexGrow: c.count }" :aria-pressed="by === c.key"
        :data-whose="c.key" @click="by = by === c.key ? null : c.key"
      ><b class="figure">{{ c.count }}</b> {{ WHOSE[c.key] }}</button>
    </div>
    <p class="quiet lead">{{ held.settings.length }} settings by the practice “{{ held.practice }}”. A press on the bar shows whose they are. <InputText v-model="query" size="small" placeholder="Look for a setting" aria-label="Look for a setting" /> <label class="choose-file">Read settings in<input type="file" accept=".json,.yaml,.yml" aria-label="Settings to read in" @change="look"></label></p>
    <p v-if="wrong" class="not_met" role="alert">{{ wrong }}</p>
    <section v-if="read" class="read" data-settings-read>
      <p v-if="!read.taken.length && !read.left.length" class="met">All {{ read.alike }} settings are as they are here.</p>
      <template v-else>
        <h3>{{ read.taken.length }} would be taken, {{ read.alike }} are alike</h3>
        <ul><li v-for="t in read.taken" :key="t">{{ t }}</li></ul>
        <template v-if="read.left.length"><h3>{{ read.left.length }} the plan works out itself, or cannot have</h3><ul class="quiet"><li v-for="t in read.left" :key="t">{{ t }}</li></ul></template>
        <Button v-if="read.changes.length" :label="`Take ${read.taken.length}`" size="small" data-take-settings @click="take" /><Button label="Leave them" text size="small" @click="read = null" />
      </template>
    </section>
    <section v-for="g in groups" :key="g[0]!.target" :data-target="g[0]!.target">
      <h3>{{ g[0]!.on }}</h3>
      <table class="ledger">
        <tbody><tr v-for="s in g" :key="s.key"><td class="label">{{ s.label }}</td><td class="value">{{ said(s) }}</td><td class="why">{{ s.reason }}</td><td class="by" :class="s.whose">{{ WHOSE[s.whose] }}</td></tr></tbody>
      </table>
    </section>
    <p v-if="!groups.length" class="quiet">No setting is called that.</p>
  </div>
</template>

<style scoped>
.whose {
  display: flex;
  gap: 2px;
}
.whose button {
  all: unset;
  box-sizing: border-box;
  min-width: 92px;
  flex-basis: 0;
  min-height: 34px;
  padding: 7px 9px;
  background: var(--paper-deep);
  border-top: 4px solid var(--granite-mid);
  font: 400 12px var(--condensed);
  cursor: pointer;
  white-space: nowrap;
}
.whose button:focus-visible {
  outline: 2px solid var(--heather);
}
.whose .plan {
  border-color: var(--tarn);
}
.whose .profile {
  border-color: var(--moss-line);
}
.whose .brief {
  border-color: var(--gorse);
}
.whose .person {
  border-color: var(--heather);
}
.whose .only {
  background: var(--heather-wash);
}
.lead {
  margin: 8px 0 4px;
}
h3 {
  margin: 12px 0 2px;
}
.read {
  padding: 4px 12px 10px;
  background: var(--paper-deep);
}
.read ul {
  margin: 0 0 6px;
  max-height: 160px;
  overflow: auto;
  font: 400 12px/1.5 var(--condensed);
}
td {
  padding-top: 2px !important;
  padding-bottom: 2px !important;
}
.label {
  width: 220px;
  color: var(--granite);
}
.value {
  font-weight: 500;
  width: 240px;
  overflow-wrap: anywhere;
}
.why {
  font: 400 12px/1.4 var(--condensed);
  color: var(--granite);
}
.by {
  width: 84px;
  font: 400 12px/1.5 var(--condensed);
}
.by.person {
  color: var(--heather);
  font-weight: 600;
}
@media (max-width: 1000px), (pointer: coarse) {
  .whose button {
    min-height: 44px;
  }
}
</style>
