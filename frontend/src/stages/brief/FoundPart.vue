<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { computed } from 'vue'
import Choices from '@/controls/Choices.vue'
import Choice from '@/controls/Choice.vue'
import type { AnyElement, Change, ElementOf, Kind } from '@/api/types'
import { put, removal } from '@/document/edits'
import { useDesign } from '@/document/store'
import { inUnits, speed } from '@/document/units'
import { foundModel } from '@/sheet/underlays'
import ToolButton from './ToolButton.vue'

/** Gear and cables that are there: each kept, retired or undecided, with a computed opinion. */
type Tested = NonNullable<ElementOf<'old_cable'>['tested_mbps']>
defineProps<{ floor: string }>()
const store = useDesign()
const found = computed(() => store.shown?.brief.found ?? [])
const models = computed(() => Object.values(store.catalogue?.devices ?? {}).flatMap((shelf) => Object.values(shelf)).filter((m) => m.old))
const switches = computed(() => Object.values(store.catalogue?.switches ?? {}).filter((m) => m.old))
const STATES = [{ value: 'keep', label: 'Keep' }, { value: 'retire', label: 'Retire' }, { value: 'unknown', label: 'Not yet' }]
const ADVICE = { keep: 'keep', retire: 'retire', test_first: 'test first' } as const
const TONE = { keep: 'met', retire: 'not_met', test_first: 'near' } as const
const CATEGORIES = [{ value: 'none', label: 'no print' }, ...['5', '5e', '6', '6A'].map((c) => ({ value: c, label: c }))]
const CONDITIONS = [{ value: 'untested', label: 'untested' }, { value: 'good', label: 'tested good' }, { value: 'damaged', label: 'damaged' }]
/** What a tester passed it at counts before its print. */
const TESTS = [{ value: 'none', label: 'speed not tested' }, ...[100, 1000, 2500, 5000, 10000].map((m) => ({ value: String(m), label: `tests at ${speed(m)}` }))]
const rack = computed(() => store.all('equipment_room')[0])
const cableOf = (id: string) => store.find('old_cable', id)

function set(kind: Kind, id: string, change: object, what: string): void {
  const element = store.find(kind, id) as AnyElement | undefined
  if (element) store.commit(what, [put(kind, { ...element, ...change } as AnyElement)])
}

function rename(kind: Kind, id: string, event: Event): void {
  const name = (event.target as HTMLInputElement).value.trim()
  if (name) set(kind, id, { name }, `Name ${name}`)
}

function addSwitch(model: string): void {
  const id = store.nextId('switch', 'found-sw')
  const name = store.catalogue?.switches[model]?.label ?? 'Old switch'
  const row: ElementOf<'switch'> = { id, equipment_room: rack.value!.id, name, model, state: 'unknown' }
  store.commit(`Note ${name}`, [put('switch', row)] as Change[])
}
</script>

<template>
  <div>
    <p class="quiet">Choose what it is, then press where it is.</p>
    <div class="take">
      <Choice by="id" v-model="foundModel" :options="models" class="grow" aria-label="What is there" />
      <ToolButton of="found_gear" label="Place" />
    </div>
    <div class="take">
      <ToolButton of="old_cable" label="Cable, end to end" />
      <template v-if="rack">
        <button v-for="s in switches" :key="s.id" class="plain add" @click="addSwitch(s.id)">{{ s.groups[0]!.speed_mbps >= 1000 ? 'Switch, 1 Gb/s' : 'Switch, 100 Mb/s' }}</button>
      </template>
    </div>
    <ul>
      <li v-for="f in found" :key="f.kind + f.id" :class="{ chosen: store.selection?.id === f.id }" :data-found="f.id">
        <header>
          <InputText :model-value="f.name" size="small" maxlength="120" fluid :aria-label="`Name of ${f.name}`" @focus="store.selection = { kind: f.kind, id: f.id }" @change="rename(f.kind, f.id, $event)" />
          <Button icon="pi pi-trash" text size="small" :aria-label="`Remove ${f.name}`" @click="store.commit(`Remove ${f.name}`, removal(store, f.kind, f.id))" />
        </header>
        <p class="quiet">{{ f.what }}<template v-if="f.serves">, the run of {{ store.find('device', f.serves)?.name }}</template><template v-if="f.joins.length">, the way from {{ f.joins.join(' to ') }}</template></p>
        <div v-if="cableOf(f.id)" class="take">
          <Choice :model-value="cableOf(f.id)!.category ?? 'none'" :options="CATEGORIES" :aria-label="`Category of ${f.name}`" @update:model-value="set('old_cable', f.id, { category: $event === 'none' ? null : $event }, 'Category')" />
          <Choice :model-value="cableOf(f.id)!.condition" :options="CONDITIONS" :aria-label="`Condition of ${f.name}`" @update:model-value="set('old_cable', f.id, { condition: $event }, 'Condition')" />
          <Choice :model-value="String(cableOf(f.id)!.tested_mbps ?? 'none')" :options="TESTS" :aria-label="`Speed that ${f.name} tests at`" @update:model-value="set('old_cable', f.id, { tested_mbps: $event === 'none' ? null : Number($event) as Tested }, 'Test')" />
        </div>
        <p><b :class="TONE[f.advice]">{{ ADVICE[f.advice] }}:</b> {{ inUnits(f.reason) }}</p>
        <Choices :model-value="f.state" :options="STATES" :aria-label="`What becomes of ${f.name}`" @update:model-value="set(f.kind, f.id, { state: $event }, `${$event} ${f.name}`)" />
      </li>
    </ul>
  </div>
</template>

<style scoped>
.take {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
  margin: 5px 0;
}
.grow {
  flex: 1;
  min-width: 0;
}
.add {
  border: 1px solid var(--granite-mid);
  border-radius: 3px;
  padding: 3px 8px;
  font: 500 12px/1.4 var(--condensed);
}
ul {
  list-style: none;
  margin: 8px 0 0;
  padding: 0;
}
li {
  border-top: 1px solid var(--granite-light);
  padding: 6px 6px 8px;
  font: 400 12px/1.4 var(--condensed);
}
li.chosen {
  background: var(--heather-wash);
}
header {
  display: flex;
}
</style>
