<script setup lang="ts">
import { computed } from 'vue'
import type { EquipmentRoom } from '@/api/types'
import { cableSaid, strandsSaid } from '@/document/cables'
import { useDesign } from '@/document/store'
import { inUnits, length } from '@/document/units'

/** What begins in an equipment room, and its way up. */
const props = defineProps<{ room: EquipmentRoom }>()
const store = useDesign()
const runs = computed(() => (store.shown?.cable.runs ?? []).filter((r) => r.room === props.room.id))
const up = computed(() => store.shown?.cable.uplinks.find((u) => u.room === props.room.id))
const beside = computed(() => store.shown?.cable.beside?.find((b) => b.room === props.room.id))
const switches = computed(() => store.all('switch').filter((s) => s.equipment_room === props.room.id))
</script>

<template>
  <dl class="figures">
    <dt>Runs begin here</dt><dd class="figure">{{ runs.length }}</dd>
    <dt>Switches</dt><dd>{{ switches.map((s) => s.name).join(', ') || 'none yet' }}</dd>
    <template v-if="up">
      <dt>Way up</dt><dd class="figure">{{ up.verdict === 'no_way' ? 'none' : `${length(up.fixed_m)} of ${length(up.limit_m, 0)}` }}</dd>
      <template v-if="up.fibre">
        <dt>Loses</dt><dd class="figure" data-figure="loss">{{ up.fibre.loss_db }} of {{ up.fibre.budget_db }} dB</dd>
        <dt>Strands</dt><dd data-figure="strands">{{ strandsSaid(up.fibre) }}</dd>
      </template>
      <dt>Over</dt><dd>{{ cableSaid(up, store.catalogue) }}</dd>
      <template v-if="beside"><dt>Beside it</dt><dd data-figure="beside">{{ cableSaid(beside, store.catalogue) }}</dd></template>
    </template>
    <template v-else><dt>Way up</dt><dd>the line comes in here</dd></template>
  </dl>
  <p v-if="up" class="quiet reason">{{ inUnits(up.reason) }}.<template v-if="up.medium === 'fibre'"> Never look into a fibre.</template></p>
</template>

<style scoped>
.reason {
  margin: -4px 0 10px;
}
</style>
