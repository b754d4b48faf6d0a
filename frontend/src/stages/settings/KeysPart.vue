<script setup lang="ts">
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import InputText from 'primevue/inputtext'
import { computed, onScopeDispose, ref } from 'vue'
import { useKeys } from '@/answers/useKeys'
import type { KeyRow, KeyTold } from '@/api/types'
import { SECURITY } from '@/document/networks'
import { when } from '@/document/units'

/** Keys: each kept sealed, its strength on one scale, shown to who asks for it and noted. */
const { view, rows, said, make, type, forget, show, printSealed } = useKeys()
const SHOWN_SECONDS = 60
const SCALE_BITS = 100
const typing = ref('')
const typed = ref('')
/** What would take a key away that is in use, until one says so. */
const asking = ref<{ of: string; what: 'words' | 'characters' | 'gone' } | null>(null)
const told = ref<{ row: KeyRow; key: KeyTold } | null>(null)
const left = ref(0)
let timer = 0
const missing = computed(() => rows.value.filter((r) => !r.made && r.security))
const kept = computed(() => rows.value.filter((r) => r.made).length)
const security = (value: KeyRow['security']) => SECURITY.find((s) => s.value === value)?.label ?? ''
const HOW: Record<string, string> = { words: 'made of words', characters: 'made of characters', typed: 'typed, estimated' }
const WAYS: Record<string, string> = { screen: 'on the screen', sealed_copy: 'on the sealed copy' }

function ask(row: KeyRow, what: 'words' | 'characters' | 'gone'): void {
  if (row.made) asking.value = { of: row.of, what }
  else if (what !== 'gone') void make(row.of, what)
}
async function doAsked(): Promise<void> {
  const { of, what } = asking.value!
  asking.value = null
  await (what === 'gone' ? forget(of) : make(of, what))
}
async function makeMissing(): Promise<void> {
  for (const row of missing.value) if (!(await make(row.of, 'words'))) return
}
async function saveTyped(row: KeyRow): Promise<void> {
  if (await type(row.of, typed.value)) typing.value = ''
  typed.value = ''
}
async function reveal(row: KeyRow): Promise<void> {
  const key = await show(row.of)
  if (!key) return
  told.value = { row, key }
  left.value = SHOWN_SECONDS
  clearInterval(timer)
  timer = window.setInterval(() => (left.value -= 1) <= 0 && hide(), 1000)
}
function hide(): void {
  clearInterval(timer)
  told.value = null
}
onScopeDispose(hide)
</script>

<template>
  <div v-if="view" class="keys" data-testid="keys">
    <div class="head">
      <h2>{{ kept }} of {{ rows.length }} kept</h2>
      <Button v-if="missing.length" :label="missing.length === 1 ? `Make the key of ${missing[0]!.name}` : `Make the ${missing.length} that are missing`" size="small" data-make-missing @click="makeMissing()" />
      <Button v-if="kept" label="Print the sealed copy" icon="pi pi-print" size="small" outlined data-sealed @click="printSealed()" />
      <p class="quiet">Sealed on the server, shown only here when you ask, and each time noted.</p>
    </div>
    <p v-if="said" class="not_met" role="alert" data-said>{{ said }}</p>
    <ul>
      <li v-for="r in rows" :key="r.of" :data-key="r.of" :class="{ none: !r.made }">
        <div class="who"><b>{{ r.name }}</b><span class="quiet">{{ r.security ? `${r.network}, ${security(r.security)}` : r.of === 'account/local' ? 'for the day when the line is down' : 'it is kept until you throw it away' }}</span></div>
        <div class="strength">
          <template v-if="r.made && r.bits != null">
            <span class="bar" aria-hidden="true"><span :style="{ width: `${Math.min(100, (r.bits / SCALE_BITS) * 100)}%` }" /></span>
            <span><span class="figure">{{ r.bits.toFixed(0) }} bits</span> {{ HOW[r.how ?? 'typed'] }}, {{ when(r.made) }}</span>
          </template>
          <span v-else :class="r.security ? 'not_met' : 'quiet'">no key yet</span>
          <span v-if="r.shown.length" class="quiet seen">shown {{ r.shown.map((s) => `${when(s.at)} ${WAYS[s.way]}`).slice(0, 2).join(', ') }}{{ r.shown.length > 2 ? ' and before' : '' }}</span>
        </div>
        <div class="does">
          <Button v-if="r.made" label="Show" icon="pi pi-eye" size="small" outlined :aria-label="`Show the key of ${r.name}`" @click="reveal(r)" />
          <template v-if="r.security || r.of === 'account/local'">
            <Button :label="r.made ? 'New words' : 'Words'" size="small" text :aria-label="`${r.made ? 'New words' : 'Words'} for ${r.name}`" @click="ask(r, 'words')" />
            <Button label="Characters" size="small" text :aria-label="`Characters for ${r.name}`" @click="ask(r, 'characters')" />
            <Button label="Type one" size="small" text :aria-expanded="typing === r.of" :aria-label="`Type one for ${r.name}`" @click="typing = typing === r.of ? '' : r.of" />
          </template>
          <Button v-if="r.made" icon="pi pi-trash" size="small" text :aria-label="`Throw the key of ${r.name} away`" @click="ask(r, 'gone')" />
        </div>
        <div v-if="asking?.of === r.of" class="type" data-asking>
          <span class="not_met">The key that is kept is gone then. Whoever joined with it must join anew.</span>
          <Button :label="asking.what === 'gone' ? 'Throw it away' : 'Make a new one'" size="small" severity="danger" @click="doAsked()" />
          <Button label="Leave it" size="small" text @click="asking = null" />
        </div>
        <form v-if="typing === r.of" class="type" @submit.prevent="saveTyped(r)">
          <InputText v-model="typed" type="password" size="small" maxlength="63" autocomplete="new-password" spellcheck="false" :aria-label="`Key of ${r.name}`" autofocus />
          <Button type="submit" label="Keep it" size="small" :disabled="!typed" />
          <span class="quiet">Refused where it is short, common, or holds a name of this site.</span>
        </form>
      </li>
    </ul>
    <Dialog :visible="told !== null" modal :header="told?.row.name ?? ''" :closable="true" class="told" @update:visible="hide()">
      <template v-if="told">
        <p class="key figure" data-told>{{ told.key.key }}</p>
        <!-- eslint-disable-next-line vue/no-v-html -- drawn by the server from the name and the key, escaped there -->
        <div v-if="told.key.code" class="code" role="img" :aria-label="`Code that joins ${told.row.name}`" v-html="told.key.code" />
        <p class="quiet">Hidden again in {{ left }} s. That it was shown is noted.</p>
      </template>
    </Dialog>
  </div>
</template>

<style scoped>
.head {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 6px 14px;
}
.head h2 {
  margin: 0;
}
.head .quiet {
  margin: 0;
}
ul {
  list-style: none;
  margin: 10px 0 0;
  padding: 0;
  max-width: 1080px;
}
li {
  display: grid;
  grid-template-columns: minmax(150px, 1fr) minmax(230px, 1.2fr) 345px;
  align-items: center;
  gap: 4px 20px;
  padding: 8px 0 8px 10px;
  border-bottom: 1px solid var(--granite-light);
  border-left: 3px solid var(--moss-line);
}
li.none {
  border-left-color: var(--granite-mid);
}
.who,
.strength {
  display: grid;
  gap: 1px;
}
.strength {
  font: 400 12.5px/1.4 var(--condensed);
}
.bar {
  display: block;
  height: 5px;
  max-width: 260px;
  background: var(--paper-deep);
}
.bar span {
  display: block;
  height: 100%;
  background: var(--moss-line);
}
.seen {
  font-size: 12px;
}
.does {
  display: flex;
  align-items: center;
  justify-content: flex-end;
  gap: 2px;
}
.type {
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}
.type :deep(input) {
  width: 320px;
}
.key {
  font-size: 22px;
  line-height: 1.4;
  overflow-wrap: anywhere;
  user-select: all;
  max-width: 420px;
  margin: 0 0 8px;
}
.code {
  background: white;
  width: 220px;
  padding: 6px;
}
.code :deep(svg) {
  width: 100%;
  height: auto;
}
@media (max-width: 1100px) {
  li {
    grid-template-columns: 1fr 1fr;
  }
  .does {
    grid-column: 1 / -1;
  }
}
</style>
