<script setup lang="ts">
import Button from 'primevue/button'
import { computed, onMounted, ref, shallowRef } from 'vue'
import { useAttempt } from '@/answers/useAttempt'
import { api, file, taken } from '@/api/client'
import type { GearList, GearRow } from '@/api/types'
import Choice from '@/controls/Choice.vue'
import ListIn from '@/controls/ListIn.vue'
import { useDesign } from '@/document/store'
import GearFace from './GearFace.vue'
import GearForm from './GearForm.vue'

/** The firm's own gear: each thing as its face to scale, begun from one that is like it, or a table of many. */
const emit = defineEmits<{ changed: [] }>()
const store = useDesign()
const attempt = useAttempt()
const gear = shallowRef<GearList | null>(null)
const open = shallowRef<GearRow | null>(null)
const shelf = ref('switches')
const like = ref('')
const shelves = computed(() => (gear.value?.shelves ?? []).map((s) => ({ value: s.shelf, label: s.name })))
const here = computed(() => gear.value?.shelves.find((s) => s.shelf === shelf.value))
const likes = computed(() => (here.value?.like ?? []).map((r) => ({ value: r.id, label: r.values['label'] ?? r.id })))
const nameOf = (id: string) => gear.value?.shelves.find((s) => s.shelf === id)?.name ?? id
const fieldsOf = (id: string) => gear.value?.shelves.find((s) => s.shelf === id)?.fields ?? []

async function know(list: GearList | null): Promise<void> {
  if (!list) return
  gear.value = list
  store.catalogue = await taken(api.GET('/api/catalogue'))
  emit('changed')
}
onMounted(() => attempt(async () => {
  gear.value = await taken(api.GET('/api/firm/gear'))
}))

function begin(): void {
  const row = here.value?.like.find((r) => r.id === like.value) ?? here.value?.like[0]
  open.value = { id: '', shelf: shelf.value, values: { ...row?.values, label: '' }, withdrawn: false, used: 0 }
}
async function done(list: GearList): Promise<void> {
  open.value = null
  await know(list)
}
const remove = (row: GearRow) => attempt(async () => {
  await know(await taken(api.DELETE('/api/firm/gear/{key}', { params: { path: { key: row.id } } })))
})
const again = (row: GearRow) => attempt(async () => {
  await know(await taken(api.PUT('/api/firm/gear', { body: { shelf: row.shelf, id: row.id, values: row.values, withdrawn: false } })))
})
async function send(data: File, take: boolean) {
  const read = await taken(api.POST('/api/firm/gear', { params: { query: take ? { take: '1' } : {} } as never, ...file(data) }))
  if (read.taken) await know(await taken(api.GET('/api/firm/gear')))
  return read
}
</script>

<template>
  <section v-if="gear" class="gear" aria-label="The firm's own gear">
    <GearForm v-if="open" :row="open" :fields="fieldsOf(open.shelf)" :what="nameOf(open.shelf)" @saved="done" @close="open = null" />
    <template v-else>
      <div class="begin">
        <label>A new <Choice v-model="shelf" :options="shelves" aria-label="Shelf" @update:model-value="like = ''" /></label>
        <label>begun from <Choice :model-value="like || likes[0]?.value || ''" :options="likes" class="like" aria-label="Begun from" @update:model-value="like = $event" /></label>
        <Button label="Add it" icon="pi pi-plus" size="small" @click="begin" />
      </div>
      <p v-if="!gear.rows.length" class="quiet">The firm has no gear of its own yet. What is added here can be chosen in every plan, beside what is shipped.</p>
      <article v-for="row in gear.rows" :key="row.id" class="thing" :class="{ withdrawn: row.withdrawn }" :data-gear="row.id">
        <GearFace :values="row.values" />
        <div class="what"><b>{{ row.values['label'] }}</b><span class="quiet">{{ nameOf(row.shelf) }}, <span class="figure">{{ row.values['price'] }}</span> {{ store.site?.currency }}<template v-if="row.used">, in {{ row.used }} {{ row.used === 1 ? 'plan' : 'plans' }}</template><template v-if="row.withdrawn">, no longer offered</template></span></div>
        <Button label="Change" size="small" outlined :aria-label="`Change ${row.values['label']}`" @click="open = row" />
        <Button v-if="row.withdrawn" label="Offer again" size="small" text @click="again(row)" />
        <Button v-else :label="row.used ? 'Withdraw' : 'Remove'" size="small" text :aria-label="`Take ${row.values['label']} away`" @click="remove(row)" />
      </article>
      <div class="table">
        <a class="out" href="/api/firm/gear.csv" download><i class="pi pi-download" /> Table of own gear, CSV</a>
        <ListIn label="Take a table of gear in" what="things" :send="send" />
        <p class="quiet">Columns shelf and label at least; ports as “8 x 2500 class 6, 2 x 10000 cage”, radios as “5: 6 to 23 dBm, 4 dBi”, a line radio’s rates as “-90: 20, -80: 90”. What has an id of the table is changed, the rest is new.</p>
      </div>
    </template>
  </section>
</template>

<style scoped>
.gear {
  display: grid;
  gap: 6px;
  max-width: 900px;
}
.begin,
.begin label {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}
.like {
  min-width: 240px;
}
.thing {
  display: grid;
  grid-template-columns: 250px 1fr auto auto;
  gap: 12px;
  align-items: center;
  border-top: 1px solid var(--granite-light);
  padding: 6px 0;
}
.thing.withdrawn .what {
  color: var(--granite);
}
.what {
  display: grid;
}
.table {
  display: grid;
  gap: 8px;
  justify-items: start;
  border-top: 1px solid var(--granite-mid);
  margin-top: 10px;
  padding-top: 10px;
}
.out {
  color: var(--heather);
  font-weight: 500;
}
</style>
