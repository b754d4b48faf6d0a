<script setup lang="ts">
import Button from 'primevue/button'
import Checkbox from 'primevue/checkbox'
import { computed, ref } from 'vue'
import type { Elevation, EquipmentRoom, Thing } from '@/api/types'
import { put } from '@/document/edits'
import { useDesign } from '@/document/store'
import PrintButton from '@/controls/PrintButton.vue'
import RackFigures from './RackFigures.vue'
import RackFront from './RackFront.vue'

/** One rack: its elevation, what it comes to, its cords in words. */
const props = defineProps<{ room: EquipmentRoom; rack: Elevation }>()
const emit = defineEmits<{ open: [thing: Thing] }>()
const store = useDesign()
const corded = ref(true)
const chapter = computed(() => store.shown?.racks)
const things = computed(() => chapter.value?.things.filter((t) => t.room === props.room.id) ?? [])
const cords = computed(() => chapter.value?.cords.filter((c) => c.room === props.room.id) ?? [])
const left = computed(() => things.value.filter((t) => !t.unit && !t.on))
const places = computed(() => store.all('rack_place').filter((p) => p.equipment_room === props.room.id))
/** Cords as they are packed: so many of each length and colour. */
const bundles = computed(() => {
  const found = new Map<string, { count: number; said: string }>()
  for (const c of cords.value) {
    const said = `${c.length_m} m ${c.colour}${c.item.startsWith('cage') ? ', for cages' : ''}`
    found.set(said, { said, count: (found.get(said)?.count ?? 0) + 1 })
  }
  return [...found.values()].sort((a, b) => b.count - a.count)
})
const chosen = computed(() => store.selection?.id ?? null)

function place(thing: Thing, unit: number): void {
  const before = places.value.find((p) => p.thing === thing.thing)
  const id = before?.id ?? store.nextId('rack_place', 'place')
  store.commit(`${thing.name} to unit ${unit}`, [put('rack_place', { id, equipment_room: props.room.id, thing: thing.thing, unit })])
}

function anew(): void {
  store.commit(`Arrange ${props.room.name} anew`, places.value.map((p) => ({ op: 'remove' as const, kind: 'rack_place' as const, id: p.id })))
}

function choose(thing: Thing): void {
  if (thing.kind === 'router' && thing.element) store.selection = { kind: 'device', id: thing.element }
  emit('open', thing)
}
</script>

<template>
  <div class="panel" :data-elevation="room.id">
    <RackFront
      :rack="rack" :things="things" :cords="cords" :ports="store.shown?.power.ports ?? []" :chosen="chosen" :corded="corded"
      @choose="choose" @port="store.selection = { kind: 'device', id: $event }" @place="place"
    />
    <p v-if="left.length" class="not_met">No place for {{ left.map((t) => t.name).join(', ') }}.</p>
    <p class="row quiet">
      <label><Checkbox v-model="corded" binary :input-id="`cords-${room.id}`" /> Cords</label>
      <span v-if="bundles.length">{{ bundles.map((b) => `${b.count} × ${b.said}`).join(', ') }}</span>
      <span v-else>no cord: cables go straight into the switch</span>
      <span class="end"><PrintButton kind="racks_pdf" label="Print racks" /></span>
      <Button v-if="places.length" label="Arrange by plan" size="small" text @click="anew" />
    </p>
    <RackFigures :rack="rack" :room="room" />
  </div>
</template>

<style scoped>
.panel {
  margin-bottom: 10px;
}
.row {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 2px 12px;
  font-size: 12px;
}
.row label {
  display: flex;
  align-items: center;
  gap: 6px;
}
.end {
  margin-left: auto;
}
</style>
