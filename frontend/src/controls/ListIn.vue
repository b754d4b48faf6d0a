<script setup lang="ts">
import Button from 'primevue/button'
import { ref, shallowRef } from 'vue'
import { ApiError } from '@/api/client'

/** A list that comes in: what could be read is offered, line by line what could not; nothing is half taken. */
interface Read {
  read: number
  taken: boolean
  faults: { line: number; what: string }[]
  asks?: string[]
}
type Decimal = 'point' | 'comma' | ''
/** A number as it would be read with its sign before decimals or before thousands. */
const readAs = (text: string, decimal: Decimal) => {
  const plain = text.replace(/[\s'’]/g, '').replaceAll(decimal === 'point' ? ',' : '.', '').replace(',', '.')
  return Number(plain).toLocaleString('en', { minimumFractionDigits: 2 })
}
const props = defineProps<{ label: string; what: string; send: (data: File, take: boolean, decimal: Decimal) => Promise<Read> }>()
const read = shallowRef<Read | null>(null)
const wrong = ref('')
let last: File | null = null
let decimal: Decimal = ''

async function offer(data: File, take: boolean): Promise<void> {
  wrong.value = ''
  try {
    read.value = await props.send(data, take, decimal)
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
  decimal = ''
  if (last) void offer(last, false)
}

function say(sign: Decimal): void {
  decimal = sign
  if (last) void offer(last, false)
}
</script>

<template>
  <div class="list-in">
    <label class="choose-file">{{ label }} <input type="file" accept=".csv,.txt" data-testid="list-file" @change="choose"></label>
    <div v-if="read" role="status">
      <p v-if="read.taken"><b>{{ read.read }} {{ what }} taken.</b></p>
      <template v-else-if="read.asks?.length">
        <p><b>Nothing was taken yet: {{ read.asks.join('; ') }} can be read in two ways.</b> What is {{ read.asks[0] }}?</p>
        <div class="asks">
          <Button v-for="d in (['point', 'comma'] as const)" :key="d" :label="readAs(read.asks[0]!, d)" size="small" outlined :data-decimal="d" @click="say(d)" />
        </div>
      </template>
      <template v-else>
        <p><b>{{ read.read }} {{ what }} could be read, {{ read.faults.length }} lines could not.</b> Nothing was taken yet.</p>
        <Button v-if="read.read" label="Take those that could be read" size="small" @click="last && offer(last, true)" />
      </template>
      <ul><li v-for="f in read.faults" :key="f.line"><span class="figure">Line {{ f.line }}:</span> {{ f.what }}</li></ul>
    </div>
    <p v-if="wrong" role="alert" class="wrong">{{ wrong }} Nothing was taken.</p>
  </div>
</template>

<style scoped>
.list-in {
  display: grid;
  gap: 8px;
  justify-items: start;
}
.asks {
  display: flex;
  gap: 8px;
  margin-top: 6px;
}
ul {
  margin: 6px 0 0;
  padding-left: 0;
  list-style: none;
}
.wrong {
  border-left: 3px solid var(--rust);
  padding-left: 9px;
}
</style>
