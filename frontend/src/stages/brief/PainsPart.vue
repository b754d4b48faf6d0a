<script setup lang="ts">
import Button from 'primevue/button'
import Textarea from 'primevue/textarea'
import { computed } from 'vue'
import { put, removal } from '@/document/edits'
import { useDesign } from '@/document/store'
import ToolButton from './ToolButton.vue'

/** Complaints: a mark on the sheet and the client's words, with what is computed there. */
defineProps<{ floor: string }>()
const store = useDesign()
const KINDS = ['dead', 'slow', 'drops', 'lags', 'full_bars', 'clings', 'one_device', 'heap']
const OUTCOME = { mended: 'mended', better: 'better', not_addressed: 'not addressed' } as const
const TONE = { mended: 'met', better: 'near', not_addressed: 'not_met' } as const
const verdicts = computed(() => new Map((store.shown?.brief.pains ?? []).map((p) => [p.pain, p])))

function say(id: string, event: Event): void {
  const pain = store.find('pain', id)
  const words = (event.target as HTMLTextAreaElement).value.trim().slice(0, 400)
  if (pain && words !== pain.words) store.commit('Words of the client', [put('pain', { ...pain, words })])
}

function choose(id: string): void {
  store.selection = { kind: 'pain', id }
}
</script>

<template>
  <div>
    <p class="quiet">Press what the client says, then the place.</p>
    <div class="kinds"><ToolButton v-for="k in KINDS" :key="k" :of="`pain_${k}`" /></div>
    <ol>
      <li v-for="(pain, i) in store.all('pain')" :key="pain.id" :class="{ chosen: store.selection?.id === pain.id }" :data-pain-row="pain.id">
        <header>
          <button class="plain name" @click="choose(pain.id)"><b class="figure">{{ i + 1 }}</b> {{ verdicts.get(pain.id)?.name ?? pain.kind }}</button>
          <Button icon="pi pi-trash" text size="small" :aria-label="`Remove complaint ${i + 1}`" @click="store.commit('Remove a complaint', removal(store, 'pain', pain.id))" />
        </header>
        <Textarea :model-value="pain.words" rows="2" auto-resize fluid maxlength="400" size="small" placeholder="In the client’s words" :aria-label="`Words of complaint ${i + 1}`" @focus="choose(pain.id)" @change="say(pain.id, $event)" />
        <dl v-if="verdicts.get(pain.id)">
          <dt>Today</dt><dd>{{ verdicts.get(pain.id)!.today }}</dd>
          <dt>Planned</dt><dd>{{ verdicts.get(pain.id)!.planned }}</dd>
        </dl>
        <p v-if="verdicts.get(pain.id)" class="outcome" :class="TONE[verdicts.get(pain.id)!.outcome]" :data-outcome="verdicts.get(pain.id)!.outcome">{{ OUTCOME[verdicts.get(pain.id)!.outcome] }}</p>
      </li>
    </ol>
  </div>
</template>

<style scoped>
.kinds {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
  margin: 6px 0 8px;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  border-top: 1px solid var(--granite-light);
  padding: 4px 6px 8px;
}
li.chosen {
  background: var(--heather-wash);
}
header {
  display: flex;
  align-items: center;
}
.name {
  flex: 1;
  font-weight: 600;
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 1px 8px;
  margin: 5px 0 2px;
  font: 400 12px/1.35 var(--condensed);
}
dt {
  color: var(--granite);
}
dd {
  margin: 0;
}
.outcome {
  font: 600 12px var(--condensed);
}
</style>
