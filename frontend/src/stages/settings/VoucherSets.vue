<script setup lang="ts">
import Button from 'primevue/button'
import Checkbox from 'primevue/checkbox'
import { computed, ref } from 'vue'
import { useVouchers } from '@/answers/useVouchers'
import type { ElementOf, VoucherSheet } from '@/api/types'
import NumberField from '@/controls/NumberField.vue'
import TextField from '@/controls/TextField.vue'
import { put, removal } from '@/document/edits'
import { useDesign } from '@/document/store'
import { when } from '@/document/units'

type VoucherSet = ElementOf<'voucher_set'>
/** Sets of vouchers: how many, for whom, for how long; their codes made here and come out on slips alone. */
const props = defineProps<{ portal: string; sheets: VoucherSheet[] }>()
const store = useDesign()
const { view, said, make, forget, print } = useVouchers()
const open = ref('')
/** Codes that are thrown away once one says so. */
const asking = ref('')
const sets = computed(() => props.sheets.filter((s) => s.portal === props.portal))
const kept = (id: string) => view.value?.rows.find((r) => r.set === id)
const element = (id: string) => store.all('voucher_set').find((v) => v.id === id)
const gone = computed(() => view.value?.rows.filter((r) => r.codes && !store.all('voucher_set').some((v) => v.id === r.set)) ?? [])
const BY: Record<VoucherSheet['limit_by'], string> = { vouchers: 'by the vouchers', name: 'by the wireless name', network: 'for all of the network', line: '' }
const limit = (s: VoucherSheet) => (s.limit_mbps == null ? 'as fast as the line' : `up to ${s.limit_mbps} Mb/s ${BY[s.limit_by]}`)
const lacks = (s: VoucherSheet) => Math.max(0, s.total - (kept(s.id)?.codes ?? 0))
/** Guesses to one that hits, as one says it. */
const guesses = (n: number) => (n >= 1e9 ? `${(n / 1e9).toFixed(0)} billion` : n >= 1e6 ? `${(n / 1e6).toFixed(0)} million` : n.toFixed(0))

function set(id: string, change: Partial<VoucherSet>): void {
  const one = element(id)
  if (one) store.commit(`Vouchers ${one.name}`, [put('voucher_set', { ...one, ...change })])
}
function add(): void {
  const id = store.nextId('voucher_set', 'vouchers')
  store.commit('Add vouchers', [put('voucher_set', { id, portal: props.portal, name: `Vouchers ${sets.value.length + 1}`, number: 20, rooms: false, hours: 24, devices: 2, limit_mbps: null, price: '' })])
  open.value = id
}
function remove(id: string): void {
  store.commit('Remove vouchers', removal(store, 'voucher_set', id))
}
async function throwAway(id: string): Promise<void> {
  asking.value = ''
  await forget(id)
}
</script>

<template>
  <div class="sets" data-testid="vouchers">
    <p v-if="said" class="not_met" role="alert" data-said>{{ said }}</p>
    <ul>
      <li v-for="s in sets" :key="s.id" :data-vouchers="s.id">
        <div class="slip" aria-hidden="true"><span>{{ s.total }}</span></div>
        <div class="what">
          <b>{{ s.name }}</b>
          <span>{{ s.rooms.length ? `${s.total} for ${new Set(s.rooms).size} rooms` : `${s.total} vouchers` }}, {{ s.lasts }}, {{ s.devices }} {{ s.devices === 1 ? 'device' : 'devices' }}, {{ limit(s) }}{{ s.price ? `, ${s.price}` : '' }}</span>
          <span class="quiet" data-codes>
            <template v-if="kept(s.id)?.codes">{{ kept(s.id)!.codes }} codes, made {{ when(kept(s.id)!.made!) }}; one guess in {{ guesses(kept(s.id)!.one_in ?? 0) }} hits one.<template v-if="kept(s.id)!.printed.length"> Printed {{ when(kept(s.id)!.printed[0]!.at) }}.</template></template>
            <template v-else>No codes yet.</template>
            <template v-if="kept(s.id) && kept(s.id)!.codes > s.total"> {{ kept(s.id)!.codes - s.total }} more than planned stay valid until all are thrown away.</template>
          </span>
        </div>
        <div class="does">
          <Button v-if="lacks(s)" :label="kept(s.id)?.codes ? `Make ${lacks(s)} more` : `Make ${lacks(s)} codes`" size="small" :aria-label="`${kept(s.id)?.codes ? `Make ${lacks(s)} more` : `Make ${lacks(s)} codes`} for ${s.name}`" @click="make(s.id)" />
          <Button v-if="kept(s.id)?.codes" label="Print slips" icon="pi pi-print" size="small" outlined :aria-label="`Print slips of ${s.name}`" @click="print(s.id)" />
          <Button label="Change" size="small" text :aria-expanded="open === s.id" :aria-label="`Change ${s.name}`" @click="open = open === s.id ? '' : s.id" />
          <Button icon="pi pi-trash" size="small" text :aria-label="`Remove ${s.name}`" @click="remove(s.id)" />
        </div>
        <div v-if="open === s.id && element(s.id)" class="edit">
          <TextField label="Called" :value="element(s.id)!.name" @change="$event && set(s.id, { name: $event })" />
          <NumberField :label="element(s.id)!.rooms ? 'For each room' : 'How many'" unit="plain" :digits="0" :value="element(s.id)!.number" :min="1" :max="500" @change="set(s.id, { number: $event })" />
          <label class="tick"><Checkbox :model-value="element(s.id)!.rooms" binary @update:model-value="set(s.id, { rooms: $event as boolean, ...($event ? { number: 1 } : {}) })" /> so many for each guest room</label>
          <NumberField label="Hours" unit="plain" suffix=" h" :digits="0" :value="element(s.id)!.hours" :min="1" :max="8760" @change="set(s.id, { hours: $event })" />
          <NumberField label="Devices with one" unit="plain" :digits="0" :value="element(s.id)!.devices" :min="1" :max="20" @change="set(s.id, { devices: $event })" />
          <NumberField label="At most, 0 for no limit" unit="plain" suffix=" Mb/s" :digits="1" :value="element(s.id)!.limit_mbps ?? 0" :min="0" :max="10000" @change="set(s.id, { limit_mbps: $event || null })" />
          <TextField label="Price as printed" :longest="40" :value="element(s.id)!.price" @change="set(s.id, { price: $event })" />
          <Button v-if="kept(s.id)?.codes" label="Throw the codes away" size="small" severity="danger" text @click="asking = s.id" />
        </div>
        <div v-if="asking === s.id" class="edit" data-asking>
          <span class="not_met">Slips that were handed out are worth nothing once new codes are at the controller.</span>
          <Button label="Throw them away" size="small" severity="danger" @click="throwAway(s.id)" />
          <Button label="Leave them" size="small" text @click="asking = ''" />
        </div>
      </li>
      <li v-for="r in gone" :key="r.set">
        <div class="slip" aria-hidden="true"><span>{{ r.codes }}</span></div>
        <div class="what"><b>Vouchers that are gone</b><span class="quiet">{{ r.codes }} codes are kept until you throw them away; undo brings the set back.</span></div>
        <div class="does"><Button label="Throw them away" size="small" text @click="forget(r.set)" /></div>
      </li>
    </ul>
    <Button label="Add vouchers" icon="pi pi-plus" size="small" outlined @click="add" />
  </div>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0 0 10px;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 54px 1fr auto;
  gap: 4px 14px;
  align-items: center;
  padding: 9px 0;
  border-bottom: 1px solid var(--granite-light);
}
.slip {
  display: grid;
  place-items: center;
  height: 34px;
  border: 1.5px dashed var(--granite-mid);
  font: 500 15px var(--mono);
  box-shadow: 4px 4px 0 var(--paper-deep), 4px 4px 0 1px var(--granite-light);
}
.what {
  display: grid;
  gap: 1px;
}
.what span {
  font: 400 13px/1.4 var(--condensed);
}
.does {
  display: flex;
  gap: 4px;
}
.edit {
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 8px 14px;
  padding: 4px 0 6px 68px;
}
.edit > :deep(label) {
  width: 150px;
}
.tick {
  display: flex;
  align-items: center;
  gap: 6px;
}
@media (max-width: 1100px) {
  li {
    grid-template-columns: 54px 1fr;
  }
  .does,
  .edit {
    grid-column: 1 / -1;
    padding-left: 0;
    flex-wrap: wrap;
  }
}
</style>
