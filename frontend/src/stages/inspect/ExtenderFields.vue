<script setup lang="ts">
import Button from 'primevue/button'
import { computed } from 'vue'
import type { Device, ElementOf } from '@/api/types'
import Choice from '@/controls/Choice.vue'
import NumberField from '@/controls/NumberField.vue'
import { put } from '@/document/edits'
import { useDesign } from '@/document/store'
import { length } from '@/document/units'

/** The extenders in a device's run, from the rack on: model, place, and how to take one away. */
const props = defineProps<{ device: Device }>()
const store = useDesign()
const mine = computed(() => store.all('extender').filter((e) => e.device === props.device.id).sort((a, b) => (a.share ?? 0.5) - (b.share ?? 0.5)))
const run = computed(() => store.shown?.cable.runs.find((r) => r.device === props.device.id))
const models = computed(() => Object.values(store.catalogue?.extenders ?? {}).map((m) => ({ id: m.id, label: `${m.label}, ${m.price} ${store.site?.currency ?? ''}` })))

function set(extender: ElementOf<'extender'>, change: Partial<ElementOf<'extender'>>, what: string): void {
  store.commit(`${what} of the extender of ${props.device.name}`, [put('extender', { ...extender, ...change })])
}

function remove(id: string): void {
  store.commit(`Take the extender of ${props.device.name} away`, [{ op: 'remove', kind: 'extender', id }])
}
</script>

<template>
  <div v-for="e in mine" :key="e.id" class="extender" :data-extender="e.id">
    <label>Extender <Choice by="id" :model-value="e.model" :options="models" fluid aria-label="Extender" @update:model-value="set(e, { model: $event }, 'Model')" /></label>
    <NumberField label="From the rack" unit="plain" suffix=" %" :digits="0" :value="Math.round(100 * (e.share ?? 0.5))" :min="1" :max="99" @change="set(e, { share: $event / 100 }, 'Place')" />
    <Button icon="pi pi-trash" text size="small" :aria-label="`Take the extender at ${Math.round(100 * (e.share ?? 0.5))} % away`" @click="remove(e.id)" />
    <p v-if="run" class="quiet">{{ length(run.fixed_m * (e.share ?? 0.5)) }} from the rack, where one can reach it again.</p>
  </div>
</template>

<style scoped>
.extender {
  display: grid;
  grid-template-columns: 1fr 34px;
  align-items: end;
  gap: 2px 8px;
  margin-bottom: 8px;
}
.extender :deep(label) {
  font: 400 11px/1.3 var(--condensed);
  color: var(--granite);
  display: grid;
  gap: 2px;
  min-width: 0;
}
.extender > label:first-child,
.extender p {
  grid-column: 1 / -1;
  margin: 0;
}
</style>
