<script setup lang="ts">
import { computed } from 'vue'
import type { Kind } from '@/api/types'
import { roleOf } from '@/document/kinds'
import { useDesign } from '@/document/store'

const props = defineProps<{ floor: string }>()
const store = useDesign()
const things = computed(() => {
  const rows: { kind: Kind; id: string; name: string; what: string }[] = []
  const add = (kind: Kind, id: string, name: string, what: string) => rows.push({ kind, id, name, what })
  for (const r of store.all('equipment_room')) if (r.floor === props.floor) add('equipment_room', r.id, r.name, 'rack')
  for (const r of store.all('riser')) add('riser', r.id, r.name, 'riser')
  for (const d of store.all('duct')) if ([d.from_floor, d.to_floor].includes(props.floor)) add('duct', d.id, d.name, 'duct')
  for (const d of store.all('device')) if (d.floor === props.floor) add('device', d.id, d.name, roleOf(store.catalogue, d.kind)?.name.toLowerCase() ?? d.kind)
  const mains = [['panel', 'panel'], ['socket', 'socket'], ['mains_route', 'mains'], ['light', 'light']] as const
  for (const [kind, what] of mains) for (const m of store.all(kind)) if (m.floor === props.floor) add(kind, m.id, m.name, what)
  for (const s of store.all('space')) if (s.floor === props.floor) add('space', s.id, s.name, 'room')
  return rows
})

function choose(kind: Kind, id: string): void {
  store.selection = { kind, id }
}
const isChosen = (id: string) => store.selection?.id === id
</script>

<template>
  <table class="ledger" aria-label="What is on this sheet">
    <thead><tr><th>Name</th><th>What</th></tr></thead>
    <tbody>
      <tr
        v-for="t in things" :key="t.kind + t.id" tabindex="0" :class="{ chosen: isChosen(t.id) }"
        @click="choose(t.kind, t.id)" @keydown.enter="choose(t.kind, t.id)"
      >
        <td>{{ t.name }}</td><td class="quiet">{{ t.what }}</td>
      </tr>
    </tbody>
  </table>
</template>
