<script setup lang="ts">
import { computed, ref } from 'vue'
import type { PortUse } from '@/api/types'

const props = defineProps<{ ports: PortUse[]; chosen: string | null }>()
const emit = defineEmits<{ way: [port: PortUse]; choose: [device: string | null | undefined]; move: [from: PortUse, to: PortUse] }>()
const held = ref<PortUse | null>(null)
const over = ref<number | null>(null)

/** A cage is for a way to another switch; a way goes into any port that no other way has. */
const takes = (port: PortUse) => !port.uplink && (held.value?.uplink ? true : !port.cage && (!port.link || !!port.device))

function drop(port: PortUse): void {
  const from = held.value
  held.value = over.value = null
  if (from && from.port !== port.port && takes(port)) emit('move', from, port)
}

function speed(mbps: number): string {
  return mbps >= 1000 ? `${mbps / 1000} G` : `${mbps} M`
}

/** Neighbouring ports of one sort under one heading. */
const groups = computed(() => {
  const found: { key: string; title: string; ports: PortUse[] }[] = []
  for (const port of props.ports) {
    const power = port.poe_class === null ? 'no power' : `class ${port.poe_class}`
    const title = port.cage ? `${speed(port.speed_mbps)} cages` : `${speed(port.speed_mbps)}, ${power}`
    const last = found.at(-1)
    if (last?.title === title) last.ports.push(port)
    else found.push({ key: `${port.port}`, title, ports: [port] })
  }
  return found
})

function says(port: PortUse): string {
  if (port.uplink) return `Port ${port.port}: kept for the way ${port.name}${port.pinned ? ', chosen by hand' : '; press it or drag it to move it'}`
  const who = port.name ? `${port.name}${port.feeds ? ', powered from here' : ''}` : 'free'
  return `Port ${port.port}: ${who}${port.pinned ? ', kept here by hand' : ''}`
}
</script>

<template>
  <div class="strip">
    <div v-for="group in groups" :key="group.key" class="group">
      <span class="title">{{ group.title }}</span>
      <div class="ports">
        <button
          v-for="port in group.ports" :key="port.port" v-tooltip.bottom="says(port)" class="plain port"
          :class="{ used: port.link, uplink: port.uplink, feeds: port.feeds, cage: port.cage, chosen: chosen && port.device === chosen, over: over === port.port && held }"
          :data-port="port.port" :draggable="!!port.device || port.uplink" @click="port.uplink ? $emit('way', port) : $emit('choose', port.device)"
          @dragstart="held = port" @dragend="held = over = null" @dragover.prevent="over = takes(port) ? port.port : null" @drop.prevent="drop(port)"
        >
          <span class="number">{{ port.port }}<i v-if="port.pinned" class="pi pi-thumbtack" aria-hidden="true" /></span>
          <span class="who">{{ port.name ?? '' }}</span>
          <span class="visually-hidden">, {{ says(port) }}</span>
        </button>
      </div>
    </div>
  </div>
</template>

<style scoped>
.strip {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 14px;
  margin: 8px 0 10px;
}
.title {
  font: 400 11px/1.4 var(--condensed);
  color: var(--granite);
}
.ports {
  display: flex;
  flex-wrap: wrap;
  gap: 2px;
}
.port {
  position: relative; /* what is hidden in it lies within it */
  width: 46px;
  height: 40px;
  border: 1px solid var(--granite-mid);
  border-radius: 2px;
  padding: 1px 3px;
  display: grid;
  align-content: start;
  overflow: hidden;
}
.number {
  font: 400 10px/1.2 var(--mono);
  color: var(--granite);
  display: flex;
  justify-content: space-between;
}
.number i {
  font-size: 9px;
  color: var(--heather);
}
.port.over {
  outline: 2px solid var(--heather);
}
.who {
  font: 600 11px/1.05 var(--condensed);
  text-align: left;
  overflow: hidden;
  display: -webkit-box;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 2;
  overflow-wrap: anywhere;
}
.used {
  background: var(--paper-deep);
  border-color: var(--granite);
}
.uplink {
  background: var(--paper-deep);
  border-color: var(--tarn);
}
.feeds {
  border-bottom: 3px solid var(--moss-line);
}
.cage {
  border-style: dashed;
}
.chosen {
  background: var(--heather-wash);
  border-color: var(--heather);
}
</style>
