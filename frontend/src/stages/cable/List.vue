<script setup lang="ts">
import { computed } from 'vue'
import type { Kind } from '@/api/types'
import { useDesign } from '@/document/store'
import { length } from '@/document/units'
import { WORD } from '../words'

defineProps<{ floor: string }>()
const store = useDesign()
const runs = computed(() => store.shown?.cable.runs ?? [])
const uplinks = computed(() => [...(store.shown?.cable.uplinks ?? []), ...(store.shown?.cable.beside ?? [])])

function choose(kind: Kind, id: string): void {
  store.selection = { kind, id }
}
const isChosen = (id: string) => store.selection?.id === id
</script>

<template>
  <table class="ledger" aria-label="Runs">
    <thead><tr><th>Run</th><th>Cable</th><th class="number">Fixed</th><th>Verdict</th></tr></thead>
    <tbody>
      <tr
        v-for="r in runs" :key="r.id" tabindex="0" :class="{ chosen: isChosen(r.device) }" :data-run-row="r.device"
        @click="choose('device', r.device)" @keydown.enter="choose('device', r.device)"
      >
        <td>{{ r.name }}</td>
        <td class="condensed">{{ r.cables > 1 ? `${r.cables} × ` : '' }}{{ r.medium === 'fibre' ? r.category.toUpperCase() : r.category }}</td>
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
</template>
