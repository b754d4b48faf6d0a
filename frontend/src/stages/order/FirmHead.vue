<script setup lang="ts">
import Button from 'primevue/button'
import InputNumber from 'primevue/inputnumber'
import InputText from 'primevue/inputtext'
import Textarea from 'primevue/textarea'
import { onMounted, ref, shallowRef } from 'vue'
import Choices from '@/controls/Choices.vue'
import { useAttempt } from '@/answers/useAttempt'
import { api, file, taken } from '@/api/client'
import type { FirmSaid } from '@/api/types'

/** The firm as its papers show it: a sheet of letter paper, filled in where it is printed. Saved with each field. */
type Firm = FirmSaid['firm']
const said = shallowRef<FirmSaid | null>(null)
const saved = ref(false)
const marks = ref(0)
const attempt = useAttempt()
const ANNEX = [{ value: true, label: 'Parts as an annex' }, { value: false, label: 'No list of parts' }]
const TEXTS: { key: 'payment' | 'warranty' | 'terms'; label: string; hint: string }[] = [
  { key: 'payment', label: 'Payment', hint: 'a third on order, the rest in 14 days' },
  { key: 'warranty', label: 'Warranty', hint: 'what, how long, whom to call' },
  { key: 'terms', label: 'Terms', hint: 'what else holds' },
]

onMounted(() => attempt(async () => {
  said.value = await taken(api.GET('/api/firm/head'))
}))

/** Each field at once on the sheet, then all fields to the server, one writing after the other. */
let writing: Promise<unknown> = Promise.resolve()
function say(change: Partial<Firm>): void {
  saved.value = false
  said.value = { ...said.value!, firm: { ...said.value!.firm, ...change } }
  const all = said.value.firm
  writing = writing.then(() => attempt(async () => {
    const answer = await taken(api.PUT('/api/firm/head', { body: all }))
    if (said.value?.firm !== all) return
    said.value = answer
    saved.value = true
  }))
}
const text = (key: keyof Firm, event: Event) => {
  const value = (event.target as HTMLInputElement).value.trim()
  if (value !== said.value?.firm[key]) say({ [key]: value })
}

const MOST_LINES = 5
function lines(event: Event): void {
  const address = (event.target as HTMLTextAreaElement).value.split('\n').map((l) => l.trim()).filter(Boolean).slice(0, MOST_LINES)
  if (address.join() !== said.value?.firm.address.join()) say({ address })
}

function choose(event: Event): void {
  const input = event.target as HTMLInputElement
  const picture = input.files?.[0]
  input.value = ''
  if (!picture) return
  const body = new FormData()
  body.append('picture', picture)
  void attempt(async () => {
    said.value = await taken(api.POST('/api/firm/mark', file(body)))
    marks.value += 1
  })
}
const unmark = () => attempt(async () => {
  said.value = await taken(api.DELETE('/api/firm/mark'))
})
</script>

<template>
  <section v-if="said" class="letter" aria-label="The firm on its papers">
    <header>
      <div class="who">
        <InputText :model-value="said.firm.name" class="name" maxlength="120" placeholder="Name of the firm" fluid aria-label="Name of the firm" @change="text('name', $event)" />
        <Textarea :model-value="said.firm.address.join('\n')" rows="2" maxlength="300" auto-resize placeholder="Address" fluid aria-label="Address" @change="lines" />
        <InputText :model-value="said.firm.contact" size="small" maxlength="120" placeholder="How to reach it, and when" fluid aria-label="Contact" @change="text('contact', $event)" />
        <InputText :model-value="said.firm.tax_number" size="small" maxlength="120" placeholder="Tax number" fluid aria-label="Tax number" @change="text('tax_number', $event)" />
      </div>
      <div class="mark">
        <img v-if="said.has_mark" :src="`/api/firm/mark?${marks}`" alt="Mark of the firm">
        <span v-else class="quiet">Its mark, a picture</span>
        <label class="choose-file">{{ said.has_mark ? 'Another picture' : 'Choose a picture' }} <input type="file" accept="image/png,image/jpeg" data-testid="mark" @change="choose"></label>
        <Button v-if="said.has_mark" label="Take it off" size="small" text @click="unmark" />
      </div>
    </header>
    <p class="title">Offer <span class="quiet">number, day, valid for</span>
      <InputNumber :model-value="said.firm.valid_days" size="small" :min="1" :max="365" suffix=" days" :input-style="{ width: '84px' }" aria-label="Days that an offer is valid" @update:model-value="$event && say({ valid_days: $event })" />
      <Choices :model-value="said.firm.parts_annex" :options="ANNEX" aria-label="List of parts" @update:model-value="say({ parts_annex: $event })" />
    </p>
    <div class="body quiet">What is promised, what is not, the price, other ways, what the client sees to.</div>
    <div class="terms">
      <label v-for="t in TEXTS" :key="t.key">{{ t.label }} <Textarea :model-value="said.firm[t.key]" rows="2" maxlength="1200" auto-resize fluid :placeholder="t.hint" :aria-label="t.label" @change="text(t.key, $event)" /></label>
      <label>Bank <InputText :model-value="said.firm.bank" size="small" maxlength="120" fluid aria-label="Bank" @change="text('bank', $event)" /></label>
    </div>
    <p v-if="saved" class="met" role="status">Saved.</p>
  </section>
</template>

<style scoped>
.letter {
  max-width: 760px;
  border: 1px solid var(--granite-mid);
  background: var(--paper);
  padding: 22px 26px;
}
header {
  display: flex;
  justify-content: space-between;
  gap: 24px;
  border-bottom: 2px solid var(--ink);
  padding-bottom: 12px;
}
.who {
  flex: 1;
  display: grid;
  gap: 4px;
  max-width: 420px;
}
.name :deep(input),
.name {
  font: 600 16px var(--sans);
}
.mark {
  display: grid;
  gap: 6px;
  justify-items: end;
  align-content: start;
}
.mark img {
  max-height: 72px;
  max-width: 240px;
}
.title {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 8px;
  font: 600 20px var(--sans);
  margin: 14px 0 6px;
}
.title .quiet {
  font: 400 13px var(--sans);
}
.title :deep(.p-selectbutton) {
  margin-left: auto;
}
.body {
  border-block: 1px dashed var(--granite-light);
  padding: 10px 0;
}
.terms {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px 16px;
  margin-top: 12px;
}
label {
  font: 400 12px/1.5 var(--condensed);
  color: var(--granite);
}
</style>
