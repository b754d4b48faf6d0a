<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { computed, ref } from 'vue'
import type { Kind } from '@/api/types'
import { useSnags, type SnagHere } from '@/answers/useSnags'
import { clockOff } from '@/outbox/clocks'
import { useDesign } from '@/document/store'

/** What is left to mend: a thing pressed on the sheet, a word, who and by when, a photograph. */
const props = defineProps<{ floor: string }>()
const store = useDesign()
const { snags, say, words, photograph } = useSnags()
const what = ref('')
const owner = ref('')
const due = ref('')
const asks = ref('')
const closed = ref(false)
const about = computed(() => {
  const chosen = store.selection && store.find(store.selection.kind, store.selection.id)
  return chosen && 'name' in chosen ? { kind: store.selection!.kind as string, id: chosen.id, name: chosen.name as string, floor: 'floor' in chosen ? (chosen.floor as string) : null } : null
})
const shown = computed(() => snags.value.filter((s) => closed.value || s.state === 'open'))
const open = computed(() => snags.value.filter((s) => s.state === 'open').length)
const nameOf = (s: SnagHere) => {
  const element = s.element && store.find(s.kind as Kind, s.element)
  return element && 'name' in element ? element.name : ''
}

function add(): void {
  asks.value = what.value.trim() ? '' : 'Say what is left to mend.'
  if (asks.value) return
  const snag = `s-${crypto.randomUUID().slice(0, 8)}`
  const kept = say({
    snag, state: 'open', what: what.value.trim(), kind: about.value?.kind ?? '', element: about.value?.id ?? null,
    floor: about.value?.floor ?? props.floor, owner: owner.value.trim(), due: due.value || null, photo: null,
  })
  if (kept) what.value = ''
}

function photographed(snag: SnagHere, event: Event): void {
  const input = event.target as HTMLInputElement
  const photo = input.files?.[0]
  input.value = ''
  if (photo) void photograph(snag, photo)
}

function choose(snag: SnagHere): void {
  if (snag.element && store.find(snag.kind as Kind, snag.element)) store.selection = { kind: snag.kind as Kind, id: snag.element }
}
</script>

<template>
  <div class="snags">
    <p class="head"><b class="figure" :class="{ not_met: open }">{{ open }}</b> open<template v-if="snags.length - open">, {{ snags.length - open }} mended <button class="plain all" :aria-pressed="closed" @click="closed = !closed">{{ closed ? 'Hide those' : 'Show those too' }}</button></template></p>
    <form class="fields" @submit.prevent="add">
      <label class="long">What is left to mend{{ about ? `, at ${about.name}` : '' }} <InputText v-model="what" size="small" maxlength="300" fluid aria-label="What is left to mend" placeholder="Cover plate missing" /></label>
      <label>Who mends it <InputText v-model="owner" size="small" maxlength="120" fluid aria-label="Who mends it" /></label>
      <label>By <InputText v-model="due" type="date" size="small" fluid aria-label="By which day" /></label>
      <Button type="submit" label="Note it" size="small" />
    </form>
    <p v-if="asks" role="alert" class="not_met">{{ asks }}</p>
    <p v-if="!snags.length" class="quiet">Nothing is left to mend. Press a thing on the sheet and note what is wrong with it.</p>
    <article v-for="s in shown" :key="s.snag" class="snag" :class="s.state" :data-snag="s.snag">
      <button class="plain what" @click="choose(s)">
        <b>{{ s.what }}</b>
        <span class="quiet">{{ [nameOf(s), s.owner || 'nobody named', s.due ? `by ${s.due}` : ''].filter(Boolean).join(', ') }}<b v-if="s.late" class="not_met"> late</b></span>
        <span class="quiet">seen by {{ s.seen_by }}, {{ s.seen_at.slice(0, 10) }}<template v-if="s.state === 'closed'">; mended, {{ s.said_by }}, {{ s.said_at.slice(0, 10) }}</template><template v-if="s.unsent">, kept here</template><template v-else-if="s.clock_ahead_s">; that device’s clock was {{ clockOff(s.clock_ahead_s) }}</template></span>
      </button>
      <div class="acts">
        <label class="choose-file">Photograph <input type="file" accept="image/png,image/jpeg" capture="environment" data-testid="snag-photo" @change="photographed(s, $event)"></label>
        <Button :label="s.state === 'open' ? 'Mended' : 'Open again'" size="small" :outlined="s.state !== 'open'" @click="say({ ...words(s), state: s.state === 'open' ? 'closed' : 'open' })" />
      </div>
      <div v-if="s.photos.length" class="photos"><img v-for="p in s.photos" :key="p" :src="`/api/projects/${store.id}/pictures/${p}`" alt="Photograph of what is to be mended"></div>
    </article>
  </div>
</template>

<style scoped>
.snags {
  display: grid;
  gap: 8px;
}
.fields {
  display: grid;
  grid-template-columns: 1fr 130px 140px auto;
  gap: 6px 8px;
  align-items: end;
}
@media (max-width: 1300px) {
  .fields {
    grid-template-columns: 1fr 1fr auto;
  }
  .long {
    grid-column: 1 / -1;
  }
}
.snag {
  display: grid;
  grid-template-columns: 1fr auto;
  align-items: center;
  gap: 4px 12px;
  border-top: 1px solid var(--granite-light);
  padding: 6px 0;
}
.what {
  display: grid;
  min-height: 44px;
}
.closed .what > b {
  font-weight: 400;
  color: var(--granite);
}
.acts {
  display: flex;
  gap: 8px;
  align-items: center;
}
.photos {
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.photos img {
  height: 96px;
  border: 1px solid var(--granite-mid);
}
.all {
  color: var(--heather);
}
</style>
