<script setup lang="ts">
import Button from 'primevue/button'
import { ref, shallowRef } from 'vue'
import { ApiError, api, file, taken } from '@/api/client'
import type { PricesRead } from '@/api/types'
import { openedFigure } from '@/figures/useFigures'

/** The firm's prices: the list goes out, is filled in, and comes back. */
defineProps<{ told: string[] }>()
const emit = defineEmits<{ taken: [] }>()
const read = shallowRef<PricesRead | null>(null)
const wrong = ref('')
let last: File | null = null

async function send(data: File, take: boolean): Promise<void> {
  wrong.value = ''
  try {
    const params = take ? { query: { take: '1' } } : {}
    read.value = await taken(api.POST('/api/firm/prices', { params: params as never, ...file(data) }))
    if (read.value.taken) emit('taken')
  } catch (error) {
    if (!(error instanceof ApiError)) throw error
    read.value = null
    wrong.value = error.message
  }
}

function choose(event: Event): void {
  const input = event.target as HTMLInputElement
  last = input.files?.[0] ?? null
  input.value = ''
  if (last) void send(last, false)
}
</script>

<template>
  <div class="prices">
    <p v-for="t in told" :key="t" class="told">{{ t }}</p>
    <div class="line">
      <a class="out" href="/api/firm/prices.csv" download><i class="pi pi-download" /> Price list to fill in, CSV</a>
      <label class="file">Take a price list in <input type="file" accept=".csv,.txt" data-testid="price-file" @change="choose"></label>
    </div>
    <p class="quiet">Columns item and price, a day under “on” if you like; comma, semicolon or tab, point or comma in numbers. What a list leaves out stays as it was.</p>
    <div v-if="read" class="read" role="status">
      <p v-if="read.taken"><b>{{ read.read }} prices are the firm’s now.</b></p>
      <template v-else>
        <p><b>{{ read.read }} prices could be read, {{ read.faults.length }} lines could not.</b> Nothing was taken yet.</p>
        <Button v-if="read.read" label="Take those that could be read" size="small" @click="last && send(last, true)" />
      </template>
      <ul><li v-for="f in read.faults" :key="f.line"><span class="figure">Line {{ f.line }}:</span> {{ f.what }}</li></ul>
    </div>
    <p v-if="wrong" role="alert" class="wrong">{{ wrong }} Nothing was taken.</p>
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
.line {
  display: flex;
  align-items: center;
  gap: 16px;
}
.out {
  color: var(--heather);
  font-weight: 500;
}
.file {
  border: 1px solid var(--heather);
  color: var(--heather);
  border-radius: 3px;
  padding: 4px 10px;
  cursor: pointer;
  font-weight: 500;
}
.file:focus-within {
  outline: 2px solid var(--heather);
}
.file input {
  position: absolute;
  opacity: 0;
  width: 1px;
}
.read ul {
  margin: 6px 0 0;
  padding-left: 0;
  list-style: none;
}
.wrong {
  border-left: 3px solid var(--rust);
  padding-left: 9px;
}
</style>
