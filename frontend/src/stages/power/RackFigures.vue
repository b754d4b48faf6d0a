<script setup lang="ts">
import { computed } from 'vue'
import type { Elevation, EquipmentRoom } from '@/api/types'
import Choice from '@/controls/Choice.vue'
import NumberField from '@/controls/NumberField.vue'
import { put } from '@/document/edits'
import { useDesign } from '@/document/store'
import { inUnits, temperature } from '@/document/units'

/** What a rack comes to, figure by figure, and what one can choose of it. */
const props = defineProps<{ rack: Elevation; room: EquipmentRoom }>()
const store = useDesign()
const closet = computed(() => props.rack.closet)
const now = computed(() => closet.value.vented_c ?? closet.value.closed_c)
const battery = computed(() => props.rack.battery)
const fixing = computed(() => props.rack.fixing)
const minutes = (m: number) => (m >= 120 ? `${(m / 60).toFixed(1)} h` : `${Math.round(m)} min`)
const figures = computed(() => [
  { key: 'units', label: 'Units used', value: `${props.rack.used_units + props.rack.blanks.length} of ${props.rack.units}`, more: `${props.rack.spare_units} free`, tone: props.rack.fits ? '' : 'not_met' },
  { key: 'watts', label: 'Taken from the mains', value: `${Math.round(props.rack.watts)} W`, more: `${Math.round(props.rack.carried_w)} W carried away`, tone: '' },
  { key: 'heat', label: 'Heat that stays', value: `${Math.round(props.rack.heat_w)} W`, more: `closet ${temperature(now.value)} of ${temperature(closet.value.limit_c)}`, tone: closet.value.verdict },
  { key: 'noise', label: 'Sound at a metre', value: props.rack.noise_db ? `${Math.round(props.rack.noise_db)} dB(A)` : 'no fan', more: closet.value.name, tone: '' },
  { key: 'weight', label: 'Weight', value: `${props.rack.kg.toFixed(0)} kg`, more: `frame bears ${props.rack.bears_kg} kg`, tone: '' },
  battery.value
    ? { key: 'battery', label: 'On the battery', value: minutes(battery.value.minutes), more: `${minutes(battery.value.minutes_old)} after ${battery.value.years} years`, tone: battery.value.verdict }
    : { key: 'battery', label: 'On the battery', value: 'none', more: 'dark at once', tone: '' },
])
const frames = computed(() => [
  { value: 'plan', label: props.rack.chosen_by === 'plan' ? `By plan: ${props.rack.label}` : 'The one that fits, by plan' },
  ...Object.values(store.catalogue?.frames ?? {}).map((f) => ({ value: f.id, label: `${f.label}, ${f.price} ${store.site?.currency ?? ''}` })),
])
const batteries = computed(() => [
  { value: 'none', label: 'No battery' },
  ...Object.values(store.catalogue?.batteries ?? {}).map((b) => ({ value: b.id, label: `${b.label}, ${b.price} ${store.site?.currency ?? ''}` })),
])

function set(change: Partial<EquipmentRoom>, what: string): void {
  store.commit(`${what} of ${props.room.name}`, [put('equipment_room', { ...props.room, ...change })])
}
</script>

<template>
  <dl class="tiles">
    <div v-for="f in figures" :key="f.key" :data-rack-figure="f.key">
      <dt>{{ f.label }}</dt>
      <dd class="figure" :class="f.tone">{{ f.value }}</dd>
      <dd class="quiet">{{ f.more }}</dd>
    </div>
  </dl>
  <p v-if="battery?.sheds.length" class="quiet sheds">
    On the battery goes dark first: <template v-for="(s, k) in battery.sheds" :key="s.name">{{ k ? ', then ' : '' }}{{ s.name }} (the rest then lasts <span class="figure">{{ minutes(s.minutes) }}</span>)</template>.
  </p>
  <p class="quiet">
    {{ rack.wall ? `Held by ${fixing.fixings} fixings for ${Math.round(fixing.bears_kg)} kg` : 'Stands on the floor' }}: {{ inUnits(fixing.reason) }}.
    {{ rack.proven ? 'No arrangement is better by its own measure.' : 'The search was cut short; a better arrangement may exist.' }}
  </p>
  <div class="choices">
    <label>Frame <Choice :model-value="room.frame ?? 'plan'" :options="frames" fluid aria-label="Frame" @update:model-value="set({ frame: $event === 'plan' ? null : $event }, 'Frame')" /></label>
    <label>Battery <Choice :model-value="room.battery ?? 'none'" :options="batteries" fluid aria-label="Battery" @update:model-value="set({ battery: $event === 'none' ? null : $event }, 'Battery')" /></label>
    <NumberField label="Air moved" unit="plain" suffix=" m³/h" :digits="0" :value="room.vent_m3h ?? 0" :min="0" :max="5000" @change="set({ vent_m3h: $event }, 'Air')" />
    <NumberField v-if="fixing.into === 'studs'" label="Studs apart, measured" :value="room.stud_m ?? fixing.stud_m ?? 0.6" :min="0.1" :max="3" @change="set({ stud_m: $event }, 'Studs')" />
  </div>
</template>

<style scoped>
.tiles {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(118px, 1fr));
  border-top: 1px solid var(--granite-light);
  border-bottom: 1px solid var(--granite-light);
  margin: 6px 0 8px;
}
.tiles > div {
  padding: 5px 8px;
  border-left: 1px solid var(--granite-light);
}
.tiles > div:first-child {
  border-left: 0;
  padding-left: 0;
}
.tiles dt {
  font: 400 11px/1.3 var(--condensed);
  color: var(--granite);
}
.tiles dd {
  margin: 0;
}
.tiles .figure {
  font-size: 15px;
  font-weight: 600;
}
.tiles .quiet {
  font: 400 11px/1.3 var(--condensed);
}
.choices {
  display: grid;
  grid-template-columns: minmax(200px, 1fr) minmax(200px, 1fr) 104px 130px;
  gap: 6px 10px;
  margin: 6px 0 2px;
}
.choices :deep(label) {
  font: 400 11px/1.3 var(--condensed);
  color: var(--granite);
  display: grid;
  gap: 2px;
  min-width: 0;
}
@media (max-width: 1000px) {
  .choices {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
