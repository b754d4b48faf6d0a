<script setup lang="ts">
import { computed, ref } from 'vue'
import { units } from './units'
import type { Order } from '@/api/types'
import Places from './Places.vue'

/** The work, each task as long as it takes beside the others. */
const props = defineProps<{ order: Order }>()
const open = ref<string | null>(null)
const most = computed(() => Math.max(1, ...props.order.tasks.map((t) => t.minutes)))
const hours = (minutes: number) => (minutes < 60 ? `${Math.round(minutes)} min` : `${Math.floor(minutes / 60)} h ${Math.round(minutes % 60)}`)
</script>

<template>
  <table class="ledger">
    <thead><tr><th>Task</th><th class="number">How much</th><th class="number">Takes</th><th class="wide"><span class="visually-hidden">Beside the others</span></th><th>Where</th></tr></thead>
    <tbody>
      <template v-for="t in order.tasks" :key="t.task">
        <tr :data-task="t.task">
          <td>{{ t.label }}<span v-if="t.licensed" class="quiet">, licensed</span></td><td class="number">{{ t.quantity }} {{ units(t.unit, t.quantity) }}</td><td class="number">{{ hours(t.minutes) }}</td>
          <td class="wide"><span class="bar" :style="{ width: `${(100 * t.minutes) / most}%` }" /></td>
          <td><button class="plain for" :aria-expanded="open === t.task" @click="open = open === t.task ? null : t.task">{{ t.where.length }} {{ t.where.length === 1 ? 'place' : 'places' }} <i :class="open === t.task ? 'pi pi-chevron-up' : 'pi pi-chevron-down'" aria-hidden="true" /></button></td>
        </tr>
        <tr v-if="open === t.task" class="opened"><td colspan="5"><Places :where="t.where" :unit="t.unit" /></td></tr>
      </template>
    </tbody>
  </table>
  <p class="quiet note">Hours of all who do it together: on a ladder or a roof, in an attic or a trench two count. Rest from the heat and clearing up are in it; electrical work is for licensed people.</p>
</template>

<style scoped>
.wide {
  width: 34%;
}
.bar {
  display: block;
  height: 12px;
  background: var(--tint-5);
  border: 1px solid var(--ink);
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
.note {
  margin-top: 8px;
}
</style>
