<script setup lang="ts">
import { computed } from 'vue'
import type { Kind } from '@/api/types'
import { roleOf } from '@/document/kinds'
import { useDesign } from '@/document/store'
import { dbm, length, percent } from '@/document/units'
import type { Stage } from '@/router'

const props = defineProps<{ stage: Stage; floor: string }>()
const store = useDesign()

const WORD: Record<string, string> = {
  met: 'met', near: 'near', not_met: 'not met', not_needed: 'not needed', test_first: 'test first', no_way: 'no way',
}
const rooms = computed(() => (store.shown?.signal.rooms ?? []).filter((r) => r.floor === props.floor))
const runs = computed(() => store.shown?.cable.runs ?? [])
const uplinks = computed(() => store.shown?.cable.uplinks ?? [])
const things = computed(() => {
  const rows: { kind: Kind; id: string; name: string; what: string }[] = []
  const add = (kind: Kind, id: string, name: string, what: string) => rows.push({ kind, id, name, what })
  for (const r of store.all('equipment_room')) if (r.floor === props.floor) add('equipment_room', r.id, r.name, 'rack')
  for (const r of store.all('riser')) add('riser', r.id, r.name, 'riser')
  for (const d of store.all('duct')) if ([d.from_floor, d.to_floor].includes(props.floor)) add('duct', d.id, d.name, 'duct')
  for (const d of store.all('device')) if (d.floor === props.floor) add('device', d.id, d.name, roleOf(store.catalogue, d.kind)?.name.toLowerCase() ?? d.kind)
  for (const s of store.all('space')) if (s.floor === props.floor) add('space', s.id, s.name, 'room')
  return rows
})

function choose(kind: Kind, id: string): void {
  store.selection = { kind, id }
}
const isChosen = (id: string) => store.selection?.id === id
</script>

<template>
  <table v-if="stage === 'signal'" class="ledger" aria-label="Rooms of this floor">
    <thead><tr><th>Room</th><th class="number">First</th><th class="number">Second</th><th class="number">Worst</th></tr></thead>
    <tbody>
      <tr
        v-for="r in rooms" :key="r.space" tabindex="0" :class="{ chosen: isChosen(r.space) }" :data-room-row="r.space"
        @click="choose('space', r.space)" @keydown.enter="choose('space', r.space)"
      >
        <td><strong :class="r.verdict">{{ r.name }}</strong><br><span class="quiet">{{ WORD[r.verdict] }}</span></td>
        <td class="number">{{ r.verdict === 'not_needed' ? '' : percent(r.share_first) }}</td>
        <td class="number">{{ r.share_second === null ? '' : percent(r.share_second) }}</td>
        <td class="number">{{ r.verdict === 'not_needed' ? '' : dbm(r.worst_first_dbm) }}</td>
      </tr>
    </tbody>
  </table>
  <table v-else-if="stage === 'cable'" class="ledger" aria-label="Runs">
    <thead><tr><th>Run</th><th>Cable</th><th class="number">Fixed</th><th>Verdict</th></tr></thead>
    <tbody>
      <tr
        v-for="r in runs" :key="r.id" tabindex="0" :class="{ chosen: isChosen(r.device) }" :data-run-row="r.device"
        @click="choose('device', r.device)" @keydown.enter="choose('device', r.device)"
      >
        <td>{{ r.name }}</td>
        <td class="condensed">{{ r.cables > 1 ? `${r.cables} × ` : '' }}{{ r.category }}</td>
        <td class="number">{{ length(r.fixed_m) }}</td>
        <td :class="r.verdict">{{ WORD[r.verdict] }}</td>
      </tr>
      <tr
        v-for="u in uplinks" :key="u.id" tabindex="0" :class="{ chosen: isChosen(u.room ?? '') }" :data-uplink-row="u.room"
        @click="choose('equipment_room', u.room ?? '')" @keydown.enter="choose('equipment_room', u.room ?? '')"
      >
        <td>{{ u.name }}</td>
        <td class="condensed">{{ u.cables > 1 ? `${u.cables} × ` : '' }}{{ u.category.toUpperCase() }}</td>
        <td class="number">{{ length(u.fixed_m) }}</td>
        <td :class="u.verdict">{{ WORD[u.verdict] }}</td>
      </tr>
    </tbody>
  </table>
  <table v-else class="ledger" aria-label="What is on this sheet">
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

<style scoped>
.met {
  color: var(--moss);
}
.near,
.test_first {
  color: var(--gorse-ink);
}
.not_met,
.no_way {
  color: var(--rust);
}
</style>
