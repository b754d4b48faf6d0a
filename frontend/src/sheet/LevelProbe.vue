<script setup lang="ts">
import { computed } from 'vue'
import type { LevelReading } from '@/api/types'
import { useDesign } from '@/document/store'

const props = defineProps<{
  probe: { x: number; y: number; space: string | null; readings: LevelReading[] }
  width: number
  height: number
}>()
const store = useDesign()
const SHOWN = 5

const rows = computed(() =>
  props.probe.readings.filter((r) => r.band === (store.view?.band ?? '5')).slice(0, SHOWN),
)
const place = computed(() => ({
  left: `${Math.min(props.probe.x + 16, props.width - 226)}px`,
  top: `${Math.min(props.probe.y + 16, props.height - 40 - 19 * rows.value.length)}px`,
}))
</script>

<template>
  <div class="probe" :style="place" aria-hidden="true">
    <p class="condensed">{{ probe.space ?? 'Outside every room' }}, {{ store.view?.band }} GHz</p>
    <table>
      <tbody>
        <tr v-for="row in rows" :key="row.device">
          <th>{{ row.name }}</th>
          <td class="figure">↓ {{ row.downlink_dbm.toFixed(0) }}</td>
          <td class="figure">↑ {{ row.uplink_dbm.toFixed(0) }} dBm</td>
        </tr>
      </tbody>
    </table>
    <p v-if="!rows.length" class="quiet">No access point on this band.</p>
  </div>
</template>

<style scoped>
.probe {
  position: absolute;
  pointer-events: none;
  background: var(--paper);
  border: 1px solid var(--granite-mid);
  border-radius: 3px;
  padding: 5px 8px;
  font-size: 12px;
  min-width: 170px;
}
.probe p {
  font-weight: 600;
}
th {
  text-align: left;
  font: 600 12px var(--condensed);
  padding-right: 10px;
}
td {
  padding-right: 8px;
  white-space: nowrap;
}
</style>
