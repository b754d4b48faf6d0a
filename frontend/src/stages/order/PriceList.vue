<script setup lang="ts">
import Button from 'primevue/button'
import { api, file, taken } from '@/api/client'
import ListIn from '@/controls/ListIn.vue'
import { openedFigure } from '@/figures/useFigures'

/** The firm's prices: the list goes out, is filled in, and comes back. */
defineProps<{ told: string[] }>()
const emit = defineEmits<{ taken: [] }>()

async function send(data: File, take: boolean, decimal: string) {
  const params = { query: { ...(take ? { take: '1' } : {}), ...(decimal ? { decimal } : {}) } }
  const read = await taken(api.POST('/api/firm/prices', { params: params as never, ...file(data) }))
  if (read.taken) emit('taken')
  return read
}
</script>

<template>
  <div class="prices">
    <p v-for="t in told" :key="t" class="told">{{ t }}</p>
    <a class="out" href="/api/firm/prices.csv" download><i class="pi pi-download" /> Price list to fill in, CSV</a>
    <ListIn label="Take a price list in" what="prices" :send="send" />
    <p class="quiet">Columns item and price, a day under “on” if you like; comma, semicolon or tab, point or comma in numbers. What a list leaves out stays as it was.</p>
    <Button label="Rates, margin, minutes of work" icon="pi pi-book" size="small" outlined @click="openedFigure = 'order.rate_per_hour'" />
  </div>
</template>

<style scoped>
.prices {
  display: grid;
  gap: 10px;
  justify-items: start;
  max-width: 720px;
}
.told {
  border-left: 3px solid var(--gorse);
  padding-left: 9px;
}
.out {
  color: var(--heather);
  font-weight: 500;
}
</style>
