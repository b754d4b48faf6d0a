<script setup lang="ts">
import Button from 'primevue/button'
import { computed } from 'vue'
import type { PortUse } from '@/api/types'
import Choice from '@/controls/Choice.vue'
import { freePort, freePorts, freeWay, keepPorts, movePort, moveWay } from '@/document/pins'
import { useDesign } from '@/document/store'

/** Which ports of a switch stay as they are, and where the device that is chosen goes. */
const props = defineProps<{ ports: PortUse[]; name: string; chosen: string | null; way: PortUse | null }>()
const store = useDesign()
const used = computed(() => props.ports.filter((p) => p.device))
const kept = computed(() => used.value.filter((p) => p.pinned))
const ways = computed(() => props.ports.filter((p) => p.uplink && p.pinned))
const mine = computed(() => (props.chosen ? used.value.find((p) => p.device === props.chosen) : undefined))
const options = computed(() =>
  props.ports.filter((p) => !p.cage && !p.uplink && (!p.link || p.device)).map((p) => ({ value: p.port, label: p.device && p !== mine.value ? `port ${p.port}, changes with ${p.name}` : `port ${p.port}` })),
)

/** Where a way may go: any port that no other way has; what a device has there goes elsewhere. */
const wayOptions = computed(() => props.ports.filter((p) => !p.uplink || p === props.way).map((p) => ({ value: p.port, label: p.device ? `port ${p.port}, in place of ${p.name}` : `port ${p.port}` })))
function moveTo(port: number): void {
  const to = props.ports.find((p) => p.port === port)
  if (props.way && to) store.commit(`Port of the way ${props.way.name}`, moveWay(store, props.way, to))
}

function keepAll(): void {
  store.commit(`Keep the ports of ${props.name}`, keepPorts(store, props.ports))
}
function freeAll(): void {
  store.commit(`Ports of ${props.name} by plan`, freePorts(store, props.ports[0]!.switch))
}
function move(port: number): void {
  const from = mine.value
  const to = props.ports.find((p) => p.port === port)
  if (from && to) store.commit(`Port of ${from.name}`, movePort(store, from, to))
}
</script>

<template>
  <p v-if="used.length || ways.length || way" class="pins">
    <template v-if="way">
      <strong>Way {{ way.name }}</strong>
      <Choice :model-value="way.port" :options="wayOptions" class="to" :aria-label="`Port of the way ${way.name}`" @update:model-value="moveTo" />
      <Button v-if="way.pinned" label="Leave it to the plan" text size="small" @click="store.commit(`Port of the way ${way!.name} by plan`, freeWay(store, way!))" />
    </template>
    <template v-else-if="mine">
      <strong>{{ mine.name }}</strong>
      <Choice :model-value="mine.port" :options="options" class="to" :aria-label="`Port of ${mine.name}`" @update:model-value="move" />
      <Button v-if="mine.pinned" label="Leave it to the plan" text size="small" @click="store.commit(`Port of ${mine.name} by plan`, freePort(store, mine))" />
      <Button v-else label="Keep it here" icon="pi pi-thumbtack" text size="small" @click="move(mine.port)" />
    </template>
    <span v-else class="quiet">{{ kept.length ? `${kept.length} of ${used.length} ports are kept by hand` : 'The plan gives the ports: drag a device to another, or press it' }}</span>
    <span class="all">
      <Button v-if="kept.length < used.length" label="Keep all as they are" icon="pi pi-thumbtack" text size="small" :aria-label="`Keep all ports of ${name} as they are`" @click="keepAll" />
      <Button v-if="kept.length || ways.length" label="Leave all to the plan" text size="small" :aria-label="`Leave all ports of ${name} to the plan`" @click="freeAll" />
    </span>
  </p>
</template>

<style scoped>
.pins {
  display: flex;
  align-items: center;
  gap: 8px;
  margin: -4px 0 8px;
  min-height: 32px;
}
.to {
  min-width: 190px;
}
.all {
  margin-left: auto;
}
</style>
