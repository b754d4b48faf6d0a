<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import Choice from '@/controls/Choice.vue'
import { HELD, walkToShow } from '@/answers/useWalk'
import { put, removal } from '@/document/edits'
import { useDesign } from '@/document/store'
import { length } from '@/document/units'

/** Walks that are often taken with a call: out of which room, into which, and whether the call holds. */
const props = defineProps<{ floor: string }>()
const store = useDesign()
const router = useRouter()
const start = ref('')
const end = ref('')
const groups = computed(() => {
  const floors = [...store.all('floor')].sort((a, b) => Number(b.id === props.floor) - Number(a.id === props.floor))
  return floors
    .map((f) => ({ name: f.name, rooms: store.all('space').filter((s) => s.floor === f.id) }))
    .filter((g) => g.rooms.length)
})
const verdicts = computed(() => new Map((store.evaluation?.signal.habits ?? []).map((h) => [h.habit, h])))
const TONE = { holds: 'met', breaks: 'not_met', no_way: 'near' } as const
const nameOf = (space: string) => store.find('space', space)?.name ?? space
const ready = computed(() => store.find('space', start.value) && store.find('space', end.value) && start.value !== end.value)

function add(): void {
  const walk = { id: store.nextId('habit', 'walk'), from_space: start.value, to_space: end.value }
  store.commit(`Walk from ${nameOf(start.value)} to ${nameOf(end.value)}`, [put('habit', walk)])
  start.value = end.value = ''
}

function look(id: string): void {
  walkToShow.value = id
  void router.push(`/p/${store.id}/signal`)
}
</script>

<template>
  <div>
    <p class="quiet">Where do they walk while they talk? Kitchen to garden, class to class.</p>
    <div class="new">
      <label>From <Choice by="id" named="name" v-model="start" :options="groups" option-group-label="name" option-group-children="rooms" filter fluid placeholder="a room" aria-label="Walk from" /></label>
      <label>To <Choice by="id" named="name" v-model="end" :options="groups" option-group-label="name" option-group-children="rooms" filter fluid placeholder="a room" aria-label="Walk to" /></label>
      <Button label="Add this walk" size="small" outlined :disabled="!ready" @click="add" />
    </div>
    <ul>
      <li v-for="h in store.all('habit')" :key="h.id" :data-walk="h.id">
        <header>
          <b :class="TONE[verdicts.get(h.id)?.verdict ?? 'no_way']">{{ HELD[verdicts.get(h.id)?.verdict ?? 'no_way'] }}</b>
          <span class="name">{{ nameOf(h.from_space) }} to {{ nameOf(h.to_space) }}</span>
          <Button icon="pi pi-trash" text size="small" :aria-label="`Remove the walk from ${nameOf(h.from_space)} to ${nameOf(h.to_space)}`" @click="store.commit('Remove a walk', removal(store, 'habit', h.id))" />
        </header>
        <template v-if="verdicts.get(h.id)">
          <p>{{ verdicts.get(h.id)!.text }} <span v-if="verdicts.get(h.id)!.metres" class="quiet">{{ length(verdicts.get(h.id)!.metres, 0) }}, {{ verdicts.get(h.id)!.seconds.toFixed(0) }} s</span></p>
          <p v-for="doors in verdicts.get(h.id)!.undrawn.slice(0, 3)" :key="doors" class="near">No door is drawn between {{ doors }}.</p>
          <Button v-if="verdicts.get(h.id)!.verdict !== 'no_way'" label="Walk it" icon="pi pi-arrow-right" icon-pos="right" size="small" text @click="look(h.id)" />
        </template>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.new {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px;
  margin: 6px 0 8px;
}
.new label {
  display: grid;
  min-width: 0;
  font: 400 12px var(--condensed);
  color: var(--granite);
}
.new > .p-button {
  justify-self: start;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  border-top: 1px solid var(--granite-light);
  padding: 4px 6px 6px;
  font: 400 12px/1.4 var(--condensed);
}
header {
  display: flex;
  align-items: center;
  gap: 7px;
}
.name {
  flex: 1;
  font: 600 13px var(--condensed);
}
</style>
