<script setup lang="ts">
import Button from 'primevue/button'
import { computed } from 'vue'
import type { EquipmentRoom } from '@/api/types'
import { useDesign } from '@/document/store'
import { length } from '@/document/units'
import MarkShape from '@/sheet/MarkShape.vue'

/** A rack: which room, how many runs begin there, and its way up. */
const props = defineProps<{ room: EquipmentRoom; several: boolean; first: boolean }>()
defineEmits<{ add: []; places: []; switches: [] }>()
const store = useDesign()
const up = computed(() => store.shown?.cable.uplinks.find((u) => u.room === props.room.id))
const runs = computed(() => (store.shown?.cable.runs ?? []).filter((r) => r.room === props.room.id).length)
const upper = computed(() => store.find('equipment_room', up.value?.to_room ?? '')?.name)
</script>

<template>
  <header class="head">
    <svg width="24" height="24" viewBox="-12 -12 24 24" aria-hidden="true"><MarkShape shape="hut" /></svg>
    <h2>{{ room.name }}</h2>
    <span class="quiet">{{ runs }} {{ runs === 1 ? 'run' : 'runs' }}</span>
    <span v-if="several" class="quiet">
      <template v-if="!up">the line comes in here</template>
      <template v-else-if="up.verdict === 'no_way'">no way up to {{ upper }} yet</template>
      <template v-else><i :class="['way', up.medium]" /> {{ length(up.fixed_m) }} of {{ up.medium }} up to {{ upper }}</template>
    </span>
    <span class="first" />
    <Button v-if="first" label="Choose switches" icon="pi pi-sparkles" size="small" text aria-label="Choose switches for all racks" @click="$emit('switches')" />
    <Button label="Compare places" icon="pi pi-map-marker" size="small" text @click="$emit('places')" />
    <Button label="Add a switch" icon="pi pi-plus" size="small" text @click="$emit('add')" />
  </header>
</template>

<style scoped>
.head {
  display: flex;
  align-items: center;
  gap: 10px;
  margin-bottom: 4px;
}
.first {
  margin-left: auto;
}
h2 {
  font-size: 15px;
}
.way {
  display: inline-block;
  width: 26px;
  border-top: 3px dashed var(--ink);
  vertical-align: middle;
}
.way.fibre {
  border-top: 4px dotted var(--tarn);
}
</style>
