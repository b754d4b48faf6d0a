<script setup lang="ts">
import { useObjectUrl } from '@vueuse/core'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { computed, reactive, ref, watchEffect } from 'vue'
import type { CableTestSaid, SnagSaid, Tick } from '@/api/types'
import type { Entry, Shot } from './entries'
import { pictures } from './pictures'
import { useOutbox } from './useOutbox'

/** One thing that is kept here: what it says, why it was refused, and its words to mend. */
const props = defineProps<{ entry: Entry }>()
const outbox = useOutbox()
const sure = ref(false)
const WORDS = { ticks: { minutes: 'Minutes taken', reason: 'Reason', note: 'Note', licensed_by: 'Done by, with licence', by: 'Said by' }, snags: { what: 'What is left to mend', owner: 'Who mends it', by: 'Said by' }, tests: { length_m: 'Length in m', note: 'Note', by: 'Said by' }, shots: {} } as const
/** Of what only names a picture there is nothing to mend. */
const fields = computed(() => ((props.entry.row as Tick).state === null ? [] : Object.entries(WORDS[props.entry.kind])) as [string, string][])
const row = computed(() => props.entry.row as unknown as Record<string, unknown>)
const typed = reactive<Record<string, string>>({})
watchEffect(() => fields.value.forEach(([name]) => (typed[name] = String(row.value[name] ?? ''))))

const at = computed(() => new Date((props.entry.row as Tick).at ?? 0).toLocaleString('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' }))
const says = computed(() => {
  if (props.entry.kind === 'shots') return 'photograph'
  if (props.entry.kind === 'tests') return (props.entry.row as CableTestSaid).result
  const said = props.entry.row as Tick | SnagSaid
  if (said.state === null) return 'photograph'
  const minutes = 'minutes' in said && said.minutes ? `, ${said.minutes} min` : ''
  return `${said.state}${minutes}`
})

const blob = ref<Blob>()
const url = useObjectUrl(blob)
if (props.entry.kind === 'shots') void pictures.get(props.entry.project, props.entry.row as Shot).then((b) => (blob.value = b ?? undefined))

function mended(): void {
  const next: Record<string, unknown> = { ...row.value }
  for (const [name] of fields.value) next[name] = ['minutes', 'length_m'].includes(name) ? Number(typed[name]!.replace(',', '.')) || null : typed[name]!.trim()
  outbox.sendAgain(props.entry, next as unknown as Entry['row'])
}
</script>

<template>
  <article class="kept" :class="{ refused: entry.refused }" :data-kept="entry.row.key">
    <img v-if="url" :src="url" alt="The photograph that waits" class="shot">
    <div class="what">
      <b>{{ entry.title || (entry.row as Tick).step || 'A snag' }}</b>
      <span class="quiet">{{ says }}, by {{ (entry.row as Tick).by || 'installer' }}, {{ at }}<template v-if="entry.site">, {{ entry.site }}</template></span>
      <span v-if="entry.why" class="not_met" role="alert">{{ entry.why }}{{ entry.refused ? '' : ' It is tried again.' }}</span>
    </div>
    <div v-if="entry.refused && fields.length" class="mend">
      <label v-for="[name, label] in fields" :key="name">{{ label }} <InputText v-model="typed[name]" size="small" fluid :aria-label="label" /></label>
    </div>
    <div v-if="entry.refused" class="acts">
      <Button label="Send again" size="small" @click="mended" />
      <Button :label="sure ? 'Yes, throw it away' : 'Throw away'" size="small" :severity="sure ? 'danger' : undefined" outlined @click="sure ? outbox.throwAway(entry) : (sure = true)" />
    </div>
  </article>
</template>

<style scoped>
.kept {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 6px 12px;
  padding: 8px 0;
  border-top: 1px solid var(--granite-light);
}
.kept.refused {
  border-left: 3px solid var(--rust);
  padding-left: 10px;
}
.shot {
  height: 64px;
  border: 1px solid var(--granite-mid);
}
.what {
  grid-column: 2;
  display: grid;
  align-content: start;
  gap: 1px;
  overflow-wrap: anywhere;
}
.kept:not(:has(.shot)) .what {
  grid-column: 1 / -1;
}
.mend {
  grid-column: 1 / -1;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(180px, 1fr));
  gap: 6px 12px;
}
.mend label {
  font: 400 12px/1.4 var(--condensed);
  color: var(--granite);
}
.acts {
  grid-column: 1 / -1;
  display: flex;
  gap: 8px;
}
</style>
