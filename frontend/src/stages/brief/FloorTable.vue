<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import Choice from '@/controls/Choice.vue'
import { computed } from 'vue'
import type { Building, Floor } from '@/api/types'
import { newBuilding, newFloor, put, removal } from '@/document/edits'
import { useDesign } from '@/document/store'
import NumberField from '@/controls/NumberField.vue'
import StoreysOfDrawing from './StoreysOfDrawing.vue'
import { OVERHEADS } from '../overheads'

const store = useDesign()
const slabs = computed(() => Object.values(store.catalogue?.constructions ?? {}).filter((c) => c.kind === 'slab'))
const roofs = computed(() => Object.values(store.catalogue?.constructions ?? {}).filter((c) => c.kind === 'roof'))
const buildings = computed(() =>
  store.all('building').map((building) => ({
    building,
    floors: store.floors.filter((f) => f.building === building.id),
  })),
)

function setFloor(floor: Floor, change: Partial<Floor>): void {
  store.commit(`Floor ${floor.name}`, [put('floor', { ...floor, ...change })])
}

function rename(kind: 'floor' | 'building', element: Floor | Building, event: Event): void {
  const name = (event.target as HTMLInputElement).value.trim()
  if (name && name !== element.name) store.commit(`Name ${name}`, [put(kind, { ...element, name })])
}

const EARLIEST = 1000
const LATEST = 2200
/** Old paint and boards can hurt who drills, so the work list wants to know; an empty field is not known. */
function setYear(building: Building, event: Event): void {
  const text = (event.target as HTMLInputElement).value.trim()
  const year = text ? Number(text) : null
  if (year !== null && !(Number.isInteger(year) && year >= EARLIEST && year <= LATEST)) return
  store.commit(`Year of ${building.name}`, [put('building', { ...building, built: year })])
}

function addFloor(building: string): void {
  const floor = newFloor(store, building)
  store.commit(`Add ${floor.name}`, [put('floor', floor)])
}

function addBuilding(): void {
  const made = newBuilding(store)
  store.commit(`Add ${made.name}`, made.changes)
}
</script>

<template>
  <section v-for="b in buildings" :key="b.building.id" class="building" :data-building="b.building.id">
    <header>
      <InputText :model-value="b.building.name" size="small" maxlength="120" :aria-label="`Name of building ${b.building.name}`" @change="rename('building', b.building, $event)" />
      <Choice by="id" :model-value="b.building.roof" :options="roofs" :aria-label="`Roof of ${b.building.name}`" class="roof" @update:model-value="store.commit(`Roof of ${b.building.name}`, [put('building', { ...b.building, roof: $event })])" />
      <InputText :model-value="b.building.built?.toString() ?? ''" size="small" inputmode="numeric" maxlength="4" placeholder="built in" class="figure year" :aria-label="`Year ${b.building.name} was built in`" @change="setYear(b.building, $event)" />
      <Button label="Add a floor" icon="pi pi-plus" size="small" text @click="addFloor(b.building.id)" />
      <StoreysOfDrawing :building="b.building" />
      <Button
        v-if="buildings.length > 1" icon="pi pi-trash" text size="small" :aria-label="`Remove ${b.building.name}`"
        @click="store.commit(`Remove ${b.building.name}`, removal(store, 'building', b.building.id))"
      />
    </header>
    <table class="ledger">
      <thead><tr><th>Floor</th><th>Elevation</th><th>Ceiling height</th><th>Stands on</th><th>Cable overhead</th><th><span class="visually-hidden">Remove</span></th></tr></thead>
      <tbody>
        <tr v-for="f in b.floors" :key="f.id" :data-floor="f.id">
          <td><InputText :model-value="f.name" size="small" maxlength="120" :aria-label="`Name of ${f.name}`" @change="rename('floor', f, $event)" /></td>
          <td><NumberField label="" :name="`Elevation of ${f.name}`" :value="f.elevation_m" :min="-50" :max="200" @change="setFloor(f, { elevation_m: $event })" /></td>
          <td><NumberField label="" :name="`Ceiling height of ${f.name}`" :value="f.ceiling_height_m" :min="1.6" :max="30" @change="setFloor(f, { ceiling_height_m: $event })" /></td>
          <td><Choice by="id" :model-value="f.slab" :options="slabs" :aria-label="`Slab of ${f.name}`" @update:model-value="setFloor(f, { slab: $event })" /></td>
          <td><Choice :model-value="f.overhead" :options="OVERHEADS" :aria-label="`Cable overhead on ${f.name}`" @update:model-value="setFloor(f, { overhead: $event })" /></td>
          <td>
            <Button
              v-if="b.floors.length > 1" icon="pi pi-trash" text size="small" :aria-label="`Remove ${f.name}`"
              @click="store.commit(`Remove ${f.name}`, removal(store, 'floor', f.id))"
            />
          </td>
        </tr>
      </tbody>
    </table>
  </section>
  <Button label="Add a building" icon="pi pi-plus" size="small" outlined @click="addBuilding" />
</template>

<style scoped>
.building {
  margin-bottom: 14px;
}
.building header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  margin-bottom: 2px;
}
.building header :deep(input) {
  font-weight: 600;
  width: 190px;
}
.roof {
  width: 230px;
}
.building header :deep(.year) {
  width: 84px;
}
.building header :deep(button) {
  flex: none;
  white-space: nowrap;
}
.building :deep(table) {
  table-layout: fixed;
}
th:nth-child(4),
th:nth-child(5) {
  width: 190px;
}
th:nth-child(6) {
  width: 50px;
}
th:nth-child(2),
th:nth-child(3) {
  width: 106px;
}
td {
  vertical-align: middle !important;
}
td:first-child :deep(input) {
  width: 100%;
}
@media (max-width: 1000px) {
  th:nth-child(4),
  th:nth-child(5) {
    width: 165px;
  }
}
</style>
