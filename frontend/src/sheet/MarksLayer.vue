<script setup lang="ts">
import { computed } from 'vue'
import type { Device, EquipmentRoom, Riser } from '@/api/types'
import { roleOf } from '@/document/kinds'
import { useDesign } from '@/document/store'
import type { MarkName } from './names'
import type { Drawn } from './spread'
import MarkShape from './MarkShape.vue'

type Kind = 'device' | 'riser' | 'equipment_room'
interface Mark {
  key: string
  kind: Kind
  id: string
  shape: string
  name: string
  x: number
  y: number
  from: Drawn['from']
  turn: number | null
  state: Device['state']
}

const store = useDesign()
const props = defineProps<{
  devices: Device[]
  rooms: EquipmentRoom[]
  risers: Riser[]
  chosen: string | null
  names: Map<string, MarkName>
  drawn: Map<string, Drawn>
}>()
const emit = defineEmits<{ grab: [kind: Kind, id: string, event: PointerEvent] }>()

function mark(kind: Kind, element: Device | EquipmentRoom | Riser, shape: string, turn: number | null, state: Device['state'] = 'new'): Mark {
  const { x, y, from } = props.drawn.get(element.id)!
  return { key: `${kind}-${element.id}`, kind, id: element.id, shape, name: element.name, x, y, from, turn, state }
}

const marks = computed<Mark[]>(() => [
  ...props.rooms.map((r) => mark('equipment_room', r, 'hut', null)),
  ...props.risers.map((r) => mark('riser', r, 'well', null)),
  ...props.devices.map((d) => {
    const role = roleOf(store.catalogue, d.kind)
    return mark('device', d, role?.mark ?? '', role?.aimed || d.mount !== 'ceiling' ? d.azimuth_deg : null, d.state)
  }),
])
</script>

<template>
  <g>
    <template v-for="m in marks" :key="m.key">
      <g v-if="m.from" class="leader"><path :d="`M${m.from[0]} ${m.from[1]}L${m.x} ${m.y}`" /><circle :cx="m.from[0]" :cy="m.from[1]" r="2" /></g>
    </template>
    <g
      v-for="m in marks" :key="m.key" class="mark" :class="[m.state, { chosen: chosen === m.id }]"
      :transform="`translate(${m.x} ${m.y})`" :data-mark="m.id" @pointerdown="emit('grab', m.kind, m.id, $event)"
    >
      <circle r="13" class="halo" />
      <MarkShape :shape="m.shape" :turn="m.turn" />
      <path v-if="m.state === 'retire'" d="M-10 9L10 -9" class="struck" />
      <text v-else-if="m.state !== 'new'" x="9" y="-5" class="kept">{{ m.state === 'keep' ? 'k' : '?' }}</text>
    </g>
    <template v-for="m in marks" :key="m.key">
      <text
        v-if="names.has(m.id)" :x="m.x + names.get(m.id)!.dx" :y="m.y + names.get(m.id)!.dy"
        :text-anchor="names.get(m.id)!.anchor" class="name" :class="{ chosen: chosen === m.id }" :data-name="m.id"
      >{{ m.name }}</text>
    </template>
  </g>
</template>

<style scoped>
.mark {
  cursor: grab;
  color: var(--ink);
}
.halo {
  fill: transparent;
}
.mark:hover .halo {
  fill: color-mix(in srgb, var(--heather) 14%, transparent);
}
.mark.chosen {
  color: var(--heather);
}
.mark.chosen .halo {
  fill: var(--paper);
  stroke: var(--heather);
  stroke-width: 1.5;
}
.mark.retire,
.mark.unknown {
  color: var(--granite);
}
.leader path {
  stroke: var(--granite);
  stroke-width: 1;
}
.leader circle {
  fill: var(--granite);
}
.struck {
  stroke: var(--rust);
  stroke-width: 2;
}
.kept {
  font: 600 12px var(--mono);
  fill: var(--tarn);
}
.name {
  font: 600 11px var(--condensed);
  fill: var(--ink);
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 3px;
  stroke-linejoin: round;
  pointer-events: none;
}
.name.chosen {
  fill: var(--heather);
}
</style>
