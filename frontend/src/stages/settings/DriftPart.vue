<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref } from 'vue'
import type { ControllerView } from '@/api/types'
import { drifted } from '@/document/bringing'
import { when } from '@/document/units'

/** What is held otherwise than planned: since when, to be put back, or taken over into the plan. */
type Row = ControllerView['differs'][number]
const props = defineProps<{ rows: readonly Row[] }>()
const emit = defineEmits<{ back: [asked: { target: string; key: string }]; take: [target: string, key: string, label: string] }>()
const MOST = 12
const all = ref(false)
/** What was never sent is told by its number alone. */
const rest = computed(() => drifted(props.rows))
const shown = computed(() => (all.value ? rest.value : rest.value.slice(0, MOST)))
</script>

<template>
  <p v-if="rows.length > rest.length" class="quiet">{{ rows.length - rest.length }} of them were never sent.</p>
  <table v-if="rest.length" class="ledger" data-drift>
    <thead><tr><th>Setting</th><th>Held</th><th>Planned</th><th>Since</th><th><span class="visually-hidden">Do</span></th></tr></thead>
    <tbody>
      <tr v-for="d in shown" :key="`${d.target} ${d.key}`" :data-differs="`${d.target} ${d.key}`">
        <td><b>{{ d.name }}</b> {{ d.label }}</td><td>{{ d.held }}</td><td>{{ d.wanted }}</td><td class="quiet">{{ when(d.since) }}</td>
        <td class="do"><Button label="Put back" text size="small" @click="emit('back', { target: d.target, key: d.key })" /><Button v-if="d.takes && d.held !== 'none'" label="Take over" text size="small" @click="emit('take', d.target, d.key, `${d.name}: ${d.label}`)" /></td>
      </tr>
    </tbody>
  </table>
  <Button v-if="rest.length > MOST" :label="all ? 'Show fewer' : `Show all ${rest.length}`" text size="small" @click="all = !all" />
</template>

<style scoped>
td {
  font-size: 12px;
  vertical-align: middle !important;
  padding-top: 1px !important;
  padding-bottom: 1px !important;
}
.do {
  white-space: nowrap;
}
</style>
