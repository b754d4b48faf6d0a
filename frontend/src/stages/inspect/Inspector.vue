<script setup lang="ts">
import Button from 'primevue/button'
import { computed } from 'vue'
import { removal } from '@/document/edits'
import { useDesign, type Selection } from '@/document/store'
import type { Stage } from '@/stages/registry'
import BuriedFields from './BuriedFields.vue'
import FarFields from './FarFields.vue'
import CableTests from './CableTests.vue'
import ChainPart from './ChainPart.vue'
import WayPart from './WayPart.vue'
import DeviceFields from './DeviceFields.vue'
import DeviceFigures from './DeviceFigures.vue'
import DuctFields from './DuctFields.vue'
import ExtenderFields from './ExtenderFields.vue'
import GroveFields from './GroveFields.vue'
import MainsFields from './MainsFields.vue'
import OpeningFields from './OpeningFields.vue'
import SightPart from './SightPart.vue'
import PlaceFields from './PlaceFields.vue'
import StoreFields from './StoreFields.vue'
import SpaceFields from './SpaceFields.vue'
import WallFields from './WallFields.vue'

const props = defineProps<{ selection: Selection; stage: Stage }>()
const store = useDesign()

const device = computed(() => (props.selection.kind === 'device' ? store.find('device', props.selection.id) : undefined))
const space = computed(() => (props.selection.kind === 'space' ? store.find('space', props.selection.id) : undefined))
const wall = computed(() => (props.selection.kind === 'wall' ? store.find('wall', props.selection.id) : undefined))
const opening = computed(() => (props.selection.kind === 'opening' ? store.find('opening', props.selection.id) : undefined))
const place = computed(() => {
  if (props.selection.kind === 'riser') return store.find('riser', props.selection.id)
  if (props.selection.kind === 'equipment_room') return store.find('equipment_room', props.selection.id)
  return undefined
})
const duct = computed(() => (props.selection.kind === 'duct' ? store.find('duct', props.selection.id) : undefined))
const buried = computed(() => (props.selection.kind === 'buried_service' ? store.find('buried_service', props.selection.id) : undefined))
const far = computed(() => (props.selection.kind === 'far_point' ? store.find('far_point', props.selection.id) : undefined))
const grove = computed(() => (props.selection.kind === 'grove' ? store.find('grove', props.selection.id) : undefined))
const MAINS = ['panel', 'socket', 'mains_route', 'light'] as const
const mains = computed(() => {
  const kind = MAINS.find((k) => k === props.selection.kind)
  const thing = kind && store.find(kind, props.selection.id)
  return kind && thing ? { kind, thing } : undefined
})
const placeKind = computed(() => (props.selection.kind === 'riser' ? 'riser' : 'equipment_room'))
const title = computed(() => {
  const named = device.value ?? space.value ?? place.value ?? duct.value ?? buried.value ?? far.value ?? grove.value ?? mains.value?.thing
  if (named) return named.name
  return { wall: 'Wall', opening: 'Opening' }[props.selection.kind as 'wall' | 'opening'] ?? ''
})
const removable = computed(() => !!(device.value ?? space.value ?? wall.value ?? opening.value ?? place.value ?? duct.value ?? buried.value ?? far.value ?? grove.value ?? mains.value))

function remove(): void {
  store.commit(`Remove ${title.value}`, removal(store, props.selection.kind, props.selection.id))
}
</script>

<template>
  <section v-if="removable" class="inspector" :aria-label="title">
    <header>
      <h2>{{ title }}</h2>
      <Button icon="pi pi-trash" text size="small" aria-label="Remove it" @click="remove" />
      <Button icon="pi pi-times" text size="small" aria-label="Let go" @click="store.selection = null" />
    </header>
    <DeviceFigures v-if="device" :key="`f-${device.id}`" :device="device" :stage="stage" />
    <DeviceFields v-if="device" :key="device.id" :device="device" :stage="stage" />
    <StoreFields v-if="device && (stage === 'plan' || stage === 'power')" :key="`d-${device.id}`" :device="device" />
    <SightPart v-if="device && stage === 'plan'" :key="`v-${device.id}`" :device="device.id" />
    <ChainPart v-if="device && (stage === 'power' || stage === 'cable')" :key="`c-${device.id}`" :device="device.id" />
    <WayPart v-if="device && stage === 'cable'" :key="`w-${device.id}`" :device="device" />
    <ExtenderFields v-if="device && stage !== 'signal'" :key="`e-${device.id}`" :device="device" />
    <CableTests v-if="device && stage === 'cable'" :key="`t-${device.id}`" :device="device.id" />
    <ChainPart v-if="space && stage === 'signal'" :key="`c-${space.id}`" :space="space" />
    <SpaceFields v-if="space" :key="space.id" :space="space" />
    <WallFields v-if="wall" :key="wall.id" :wall="wall" />
    <OpeningFields v-if="opening" :key="opening.id" :opening="opening" />
    <DuctFields v-if="duct" :key="duct.id" :duct="duct" />
    <BuriedFields v-if="buried" :key="buried.id" :service="buried" />
    <GroveFields v-if="grove" :key="grove.id" :grove="grove" />
    <FarFields v-if="far" :key="far.id" :point="far" />
    <MainsFields v-if="mains" :key="mains.thing.id" v-bind="mains" />
    <PlaceFields v-if="place" :key="place.id" :kind="placeKind" :place="place" />
  </section>
</template>

<style>
.inspector {
  border-bottom: 1px solid var(--granite-mid);
  padding: 6px 12px 12px;
}
.inspector header {
  display: flex;
  align-items: center;
}
.inspector h2 {
  flex: 1;
  font-size: 15px;
  overflow-wrap: anywhere;
}
.inspector .fields {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  align-items: start;
  gap: 6px 10px;
}
.inspector .fields label {
  font: 400 11px/1.3 var(--condensed);
  color: var(--granite);
  display: grid;
  gap: 2px;
  min-width: 0;
}
.inspector .fields .wide {
  grid-column: 1 / -1;
}
.inspector .fields label {
  grid-template-columns: minmax(0, 1fr);
}
.inspector .fields label.switch {
  display: flex;
  align-items: center;
  gap: 8px;
}
.inspector dl.figures {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 2px 12px;
  margin: 2px 0 10px;
}
.inspector dl.figures dt {
  color: var(--granite);
}
.inspector dl.figures dd {
  margin: 0;
  text-align: right;
}
</style>
