<script setup lang="ts">
import { computed } from 'vue'
import { useDesign } from '@/document/store'
import { dbm, percent } from '@/document/units'
import { WORD } from '../words'

const props = defineProps<{ floor: string }>()
const store = useDesign()
const rooms = computed(() => (store.shown?.signal.rooms ?? []).filter((r) => r.floor === props.floor))
</script>

<template>
  <table class="ledger" aria-label="Rooms of this floor">
    <thead><tr><th>Room</th><th class="number">First</th><th class="number">Second</th><th class="number">Worst</th></tr></thead>
    <tbody>
      <tr
        v-for="r in rooms" :key="r.space" tabindex="0" :class="{ chosen: store.selection?.id === r.space }" :data-room-row="r.space"
        @click="store.selection = { kind: 'space', id: r.space }" @keydown.enter="store.selection = { kind: 'space', id: r.space }"
      >
        <td><strong :class="r.verdict">{{ r.name }}</strong><br><span class="quiet">{{ WORD[r.verdict] }}</span></td>
        <td class="number">{{ r.verdict === 'not_needed' ? '' : percent(r.share_first) }}</td>
        <td class="number">{{ r.share_second === null ? '' : percent(r.share_second) }}</td>
        <td class="number">{{ r.verdict === 'not_needed' ? '' : dbm(r.worst_first_dbm) }}</td>
      </tr>
    </tbody>
  </table>
</template>
