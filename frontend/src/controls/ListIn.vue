<script setup lang="ts">
import Button from 'primevue/button'
import { ref, shallowRef } from 'vue'
import { ApiError } from '@/api/client'

/** A list that comes in: what could be read is offered, line by line what could not; nothing is half taken. */
interface Read {
  read: number
  taken: boolean
  faults: { line: number; what: string }[]
}
const props = defineProps<{ label: string; what: string; send: (data: File, take: boolean) => Promise<Read> }>()
const read = shallowRef<Read | null>(null)
const wrong = ref('')
let last: File | null = null

async function offer(data: File, take: boolean): Promise<void> {
  wrong.value = ''
  try {
    read.value = await props.send(data, take)
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
  if (last) void offer(last, false)
}
</script>

<template>
  <div class="list-in">
    <label class="choose-file">{{ label }} <input type="file" accept=".csv,.txt" data-testid="list-file" @change="choose"></label>
    <div v-if="read" role="status">
      <p v-if="read.taken"><b>{{ read.read }} {{ what }} taken.</b></p>
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
