<script setup lang="ts">
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import { units } from './units'
import type { Kind, Where } from '@/api/types'
import { useDesign } from '@/document/store'

/** Where a line comes from: each place leads to the drawing. */
const props = defineProps<{ where: Where[]; unit: string }>()
const store = useDesign()
const router = useRouter()
const onSheet = (w: Where) => !!store.find(w.kind as Kind, w.id)
const amount = (n: number) => (Number.isInteger(n) ? n.toString() : n.toFixed(2))
const rows = computed(() => props.where.map((w, i) => ({ ...w, key: `${w.kind}${w.id}${i}`, there: onSheet(w) })))

async function go(w: Where): Promise<void> {
  store.selection = { kind: w.kind as Kind, id: w.id }
  await router.push(`/p/${store.id}/plan`)
}
</script>

<template>
  <ul class="places">
    <li v-for="r in rows" :key="r.key">
      <button v-if="r.there" class="plain go" @click="go(r)">{{ r.name }}</button><span v-else>{{ r.name }}</span>
      <span class="quiet figure">{{ amount(r.quantity) }} {{ units(unit, r.quantity) }}</span>
    </li>
  </ul>
</template>

<style scoped>
.places {
  list-style: none;
  margin: 2px 0 4px;
  padding: 0;
  columns: 3 190px;
  font: 400 12px/1.5 var(--condensed);
}
li {
  break-inside: avoid;
  display: flex;
  justify-content: space-between;
  gap: 8px;
}
.go {
  color: var(--heather);
}
.go:hover {
  text-decoration: underline;
}
</style>
