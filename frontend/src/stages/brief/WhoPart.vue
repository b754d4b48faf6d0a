<script setup lang="ts">
import Checkbox from 'primevue/checkbox'
import { computed } from 'vue'
import type { ElementOf } from '@/api/types'
import { put } from '@/document/edits'
import { useDesign } from '@/document/store'
import Stepper from '@/controls/Stepper.vue'

/** Who uses what, room by room, and the wires that are wished for. */
const props = defineProps<{ floor: string }>()
type Group = ElementOf<'client_group'>
const store = useDesign()
const kinds = computed(() => Object.values(store.catalogue?.clients ?? {}))
const rooms = computed(() => store.all('space').filter((s) => s.floor === props.floor))
const room = computed(() => {
  const { kind, id } = store.selection ?? {}
  return kind === 'space' ? store.find('space', id!) : undefined
})
const groupsOf = (space: string) => store.all('client_group').filter((g) => g.space === space)
const groupOf = (kind: string): Group | undefined => groupsOf(room.value?.id ?? '').find((g) => g.kind === kind)
const wishes = computed(() => store.shown?.brief.wishes ?? [])
const label = (kind: string) => store.catalogue?.clients[kind]?.label.toLowerCase() ?? kind
const inWords = (space: string) => groupsOf(space).map((g) => `${g.count} × ${label(g.kind)}`).join(', ')

/** So many of a kind; those that are good for nothing without a wire wish one from the start. */
function count(kind: string, wanted: number): void {
  const here = groupOf(kind)
  if (!room.value) return
  if (!wanted) {
    if (here) store.commit(`No ${label(kind)} in ${room.value.name}`, [{ op: 'remove', kind: 'client_group', id: here.id }])
    return
  }
  const wire = store.catalogue?.clients[kind]?.wire
  const wired = here ? Math.min(here.wired, wanted) : wire === 'always' || wire === 'wished' ? wanted : 0
  const more = here && here.wired === here.count ? wanted : wired
  const group = { ...(here ?? { id: store.nextId('client_group', 'who'), space: room.value.id, kind, old: false }), count: wanted, wired: more }
  store.commit(`${wanted} × ${label(kind)} in ${room.value.name}`, [put('client_group', group)])
}

function set(group: Group, change: Partial<Group>, what: string): void {
  store.commit(`${what}, ${label(group.kind)}`, [put('client_group', { ...group, ...change })])
}
</script>

<template>
  <div>
    <p v-if="!room" class="quiet">Press a room on the sheet, or here, and count who is in it.</p>
    <template v-else>
      <h3>{{ room.name }}</h3>
      <table class="who">
        <thead><tr><th><span class="visually-hidden">Remove</span></th><th>How many</th><th>On a wire</th></tr></thead>
        <tbody>
          <tr v-for="k in kinds" :key="k.id" :data-who="k.id" :class="{ there: groupOf(k.id) }">
            <td>{{ k.label }}
              <label v-if="groupOf(k.id) && Object.keys(k.power_dbm).length" class="old">
                <Checkbox :model-value="groupOf(k.id)!.old" binary :input-id="`old-${k.id}`" @update:model-value="set(groupOf(k.id)!, { old: $event as boolean }, 'Old ones')" /> old ones
              </label>
            </td>
            <td><Stepper :value="groupOf(k.id)?.count ?? 0" :name="`${k.label}, how many`" @change="count(k.id, $event)" /></td>
            <td><Stepper v-if="groupOf(k.id) && k.wire !== 'no'" :value="groupOf(k.id)!.wired" :most="groupOf(k.id)!.count" :name="`${k.label}, on a wire`" @change="set(groupOf(k.id)!, { wired: $event }, 'On a wire')" /></td>
          </tr>
        </tbody>
      </table>
    </template>
    <h3>Wires wished for</h3>
    <p v-if="!wishes.length" class="quiet">None yet. Cameras and doorbells want one as a rule.</p>
    <ul>
      <li v-for="w in wishes" :key="w.space" :data-wish="w.space">
        <button class="plain" @click="store.selection = { kind: 'space', id: w.space }">
          <b :class="w.given < w.wanted ? (w.always ? 'not_met' : 'near') : 'met'">{{ w.given < w.wanted ? '✕' : '✓' }} {{ w.given }} of {{ w.wanted }}</b> {{ w.name }}: {{ w.who }}
        </button>
      </li>
    </ul>
    <h3>Rooms of this floor</h3>
    <ul>
      <li v-for="r in rooms" :key="r.id" :class="{ chosen: room?.id === r.id }">
        <button class="plain" :data-room-who="r.id" @click="store.selection = { kind: 'space', id: r.id }"><b>{{ r.name }}</b> <span class="quiet">{{ inWords(r.id) || 'nobody noted' }}</span></button>
      </li>
    </ul>
    <h3>Often forgotten here</h3>
    <ul>
      <li v-for="r in store.shown?.brief.reminders ?? []" :key="r.what"><b :class="r.seen ? 'met' : 'near'">{{ r.seen ? '✓' : '?' }}</b> {{ r.what }} <span v-if="r.seen" class="quiet">{{ r.seen }}</span></li>
    </ul>
  </div>
</template>

<style scoped>
h3 {
  margin: 10px 0 3px;
}
h3:first-child {
  margin-top: 0;
}
.who {
  border-collapse: collapse;
  width: 100%;
}
.who th {
  font: 400 11px var(--condensed);
  color: var(--granite);
  text-align: left;
}
.who td {
  padding: 2px 0;
  border-top: 1px solid var(--granite-light);
}
.who tr:not(.there) td:first-child {
  color: var(--granite);
}
.old {
  display: inline-flex;
  align-items: center;
  gap: 4px;
  margin-left: 4px;
  font: 400 11px var(--condensed);
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  padding: 2px 4px;
  font: 400 12px/1.4 var(--condensed);
}
li > .plain {
  min-height: 24px;
}
li.chosen {
  background: var(--heather-wash);
}
</style>
