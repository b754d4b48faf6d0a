<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Order } from '@/api/types'
import Places from './Places.vue'
import { money } from '@/document/units'

/** The list of parts by group. */
const props = defineProps<{ order: Order }>()
const NAMES: Record<string, string> = {
  gear: 'Gear', cable: 'Cable', ends: 'Jacks, plugs, cords', mounting: 'Mounting', ways: 'Holes and ways',
  protection: 'Surge protection', rack: 'Rack', spares: 'Spares',
}
const open = ref<string | null>(null)
const unit = (u: string) => (u === 'piece' ? '' : u)
const groups = computed(() => {
  const found = new Map<string, Order['lines']>()
  for (const line of props.order.lines) found.set(line.group, [...(found.get(line.group) ?? []), line])
  return [...found].map(([group, lines]) => ({ group, lines, sum: lines.reduce((s, l) => s + l.charged, 0) }))
})
const places = (count: number) => `${count} ${count === 1 ? 'place' : 'places'}`
</script>

<template>
  <table class="ledger parts">
    <thead>
      <tr><th>Part</th><th class="number">Number</th><th class="number">Each</th><th class="number">All</th><th class="number">With margin</th><th>For</th></tr>
    </thead>
    <tbody v-for="g in groups" :key="g.group">
      <tr class="group"><th scope="rowgroup" colspan="4">{{ NAMES[g.group] }}</th><th class="number">{{ money(g.sum) }}</th><td></td></tr>
      <template v-for="line in g.lines" :key="line.item">
        <tr :data-line="line.item">
          <td>{{ line.label }}<template v-if="line.note"><br><span class="quiet">{{ line.note }}</span></template>
            <template v-if="line.one_more !== null"><br><span class="quiet">one more would cost {{ money(line.one_more!) }}</span></template></td>
          <td class="number">{{ line.quantity }} {{ unit(line.unit) }}</td>
          <td class="number">{{ money(line.each) }}<template v-if="line.whose === 'firm'"><br><span class="quiet whose">firm’s</span></template></td>
          <td class="number">{{ money(line.price) }}</td>
          <td class="number">{{ money(line.charged) }}</td>
          <td><button class="plain for" :aria-expanded="open === line.item" @click="open = open === line.item ? null : line.item">{{ places(line.where.length) }} <i :class="open === line.item ? 'pi pi-chevron-up' : 'pi pi-chevron-down'" aria-hidden="true" /></button></td>
        </tr>
        <tr v-if="open === line.item" class="opened"><td colspan="6"><Places :where="line.where" :unit="line.unit" /></td></tr>
      </template>
    </tbody>
    <tbody v-if="order.kept.length">
      <tr class="group"><th scope="rowgroup" colspan="6">What stays</th></tr>
      <tr v-for="w in order.kept" :key="w.id"><td>{{ w.name }}</td><td class="number">1</td><td class="number">0.00</td><td class="number">0.00</td><td class="number">0.00</td><td class="quiet">kept</td></tr>
    </tbody>
  </table>
</template>

<style scoped>
.group th {
  position: static;
  background: var(--paper-deep);
  color: var(--ink);
  font: 600 12px var(--sans);
}
.group th.number {
  font: 500 12px var(--mono);
}
.for {
  color: var(--heather);
  white-space: nowrap;
}
.for i {
  font-size: 9px;
}
.opened td {
  background: var(--heather-wash);
}
.whose {
  font: 400 11px var(--condensed);
}
</style>
