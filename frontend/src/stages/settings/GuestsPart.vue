<script setup lang="ts">
import Button from 'primevue/button'
import Checkbox from 'primevue/checkbox'
import { computed } from 'vue'
import type { ElementOf, PortalSheet, SettingsSheet, VoucherSheet } from '@/api/types'
import Choices from '@/controls/Choices.vue'
import PrintButton from '@/controls/PrintButton.vue'
import NumberField from '@/controls/NumberField.vue'
import TextField from '@/controls/TextField.vue'
import { put, removal } from '@/document/edits'
import { useDesign } from '@/document/store'
import GuestPage from './GuestPage.vue'
import VoucherSets from './VoucherSets.vue'

type Portal = ElementOf<'portal'>
/** Guests: the way one of them comes on, the page as he sees it, what he agrees to, and the vouchers. */
const props = defineProps<{ sheet: SettingsSheet }>()
const store = useDesign()
const WAYS: { value: Portal['way']; label: string }[] = [
  { value: 'agree', label: 'Agrees' },
  { value: 'register', label: 'Says who he is' },
  { value: 'voucher', label: 'Has a voucher' },
]
const ASKED: { value: Portal['asks'][number]; label: string }[] = [
  { value: 'name', label: 'name' },
  { value: 'room', label: 'room' },
  { value: 'email', label: 'e-mail' },
  { value: 'phone', label: 'phone' },
]
const portals = computed(() => props.sheet.portals ?? [])
const place = computed(() => store.site?.client_name || store.name)
const element = (id: string) => store.all('portal').find((p) => p.id === id)
const without = computed(() => store.all('network').filter((n) => n.purpose === 'guest' && !portals.value.some((p) => p.network === n.id)))
const keyed = (p: PortalSheet) => store.all('wireless_name').filter((n) => n.network === p.network && n.security !== 'open_portal')
const sets = (id: string): VoucherSheet[] => (props.sheet.vouchers ?? []).filter((v) => v.portal === id)
const reaches = (p: PortalSheet) => {
  const net = props.sheet.networks.find((n) => n.id === p.network)
  const others = (net?.reaches ?? []).length
  return `${net?.internet ? 'the internet' : 'no internet'}${others ? ` and ${others} other networks` : ' alone'}`
}
const lasts = (p: PortalSheet) => (p.way === 'voucher' ? [...new Set(sets(p.id).map((v) => v.lasts))].join(' or ') || 'no voucher yet' : `${p.session_h} h, then it is asked again`)
/** The steps of a guest's way, each with what it comes to. */
const steps = (p: PortalSheet) => [
  { head: 'Joins', says: p.names.join(', ') || `a socket on ${p.network_name}`, more: p.names.length ? (p.open ? 'open: what one sends is not encrypted on the air' : 'asks for its key first') : 'by cable' },
  { head: 'Meets the page', says: p.says, more: p.asks.length ? p.kept : '' },
  { head: 'Reaches', says: reaches(p), more: p.limit_mbps == null ? 'as fast as the line' : `up to ${p.limit_mbps} Mb/s each, by the wireless name` },
  { head: 'Is on for', says: lasts(p), more: p.way === 'voucher' ? 'from the first use of a code' : '' },
]

function set(id: string, change: Partial<Portal>): void {
  const one = element(id)
  if (one) store.commit('Page for guests', [put('portal', { ...one, ...change })])
}
function ask(id: string, what: Portal['asks'][number], on: boolean): void {
  const asks = ASKED.map((a) => a.value).filter((a) => (a === what ? on : element(id)!.asks.includes(a)))
  set(id, { asks })
}
function answer(id: string, question: string, text: string): void {
  const law = element(id)!.law.filter((a) => a.question !== question)
  set(id, { law: text ? [...law, { question, answer: text }] : law })
}
function add(network: string): void {
  const usual = store.site && store.catalogue?.site_kinds[store.site.kind]?.guests
  const id = store.nextId('portal', 'portal')
  const way = usual?.way ?? 'agree'
  const page: Portal = { id, network, way, session_h: usual?.session_h ?? 24, asks: way === 'register' ? ['name'] : [], terms: '', kept_days: null, law: [], told_by: '' }
  const vouchers = usual?.vouchers ? [put('voucher_set', { id: store.nextId('voucher_set', 'vouchers'), portal: id, limit_mbps: null, price: '', ...usual.vouchers })] : []
  store.commit('Page for guests', [put('portal', page), ...vouchers])
}
const openUp = (p: PortalSheet) => store.commit('Open for guests', keyed(p).map((n) => put('wireless_name', { ...n, security: 'open_portal' })))
</script>

<template>
  <div class="guests" data-testid="guests">
    <section v-for="p in portals" :key="p.id" :data-portal="p.id" :aria-label="`Page before ${p.network_name}`">
      <ol class="way">
        <li v-for="s in steps(p)" :key="s.head"><span class="head">{{ s.head }}</span><b>{{ s.says }}</b><span class="quiet">{{ s.more }}</span></li>
      </ol>
      <div v-if="p.way === 'voucher' || sets(p.id).length" class="vouchers">
        <h3>Vouchers</h3>
        <VoucherSets :portal="p.id" :sheets="sheet.vouchers ?? []" />
      </div>
      <div v-if="element(p.id)" class="page">
        <GuestPage :page="p" :place="place" />
        <div class="set">
          <div class="row">
            <Choices :model-value="p.way" :options="WAYS" aria-label="How a guest comes past the page" @update:model-value="set(p.id, { way: $event as Portal['way'] })" />
            <span class="ticks">asks for <label v-for="a in ASKED" :key="a.value"><Checkbox :model-value="p.asks.includes(a.value)" binary @update:model-value="ask(p.id, a.value, $event as boolean)" /> {{ a.label }}</label></span>
            <span class="gap" />
            <Button v-if="keyed(p).length" :label="`Let ${keyed(p)[0]!.ssid} be open`" size="small" text @click="openUp(p)" />
            <PrintButton kind="notice_pdf" label="Print the notice" />
            <Button icon="pi pi-trash" size="small" text :aria-label="`Take the page before ${p.network_name} away`" @click="store.commit('Page for guests', removal(store, 'portal', p.id))" />
          </div>
          <div class="row">
            <NumberField v-if="p.way !== 'voucher'" label="Shown again after" unit="plain" suffix=" h" :digits="0" :value="p.session_h" :min="1" :max="8760" @change="set(p.id, { session_h: $event })" />
            <label class="kept">Who was on is kept <input type="number" min="0" max="3650" :value="p.kept_days ?? ''" placeholder="not said" aria-label="Days for which it is kept who was on" @change="set(p.id, { kept_days: ($event.target as HTMLInputElement).value === '' ? null : Math.min(3650, Math.max(0, Math.round(Number(($event.target as HTMLInputElement).value) || 0))) })" /> days</label>
          </div>
          <label class="terms">Terms <textarea :value="p.terms" rows="6" maxlength="4000" :aria-label="`Terms of ${p.network_name}`" @change="set(p.id, { terms: ($event.target as HTMLTextAreaElement).value })" /></label>
          <div class="law" role="group" aria-label="What local law may ask">
            <b>What local law may ask</b>
            <label v-for="q in p.law" :key="q.question" :data-law="q.question"><span>{{ q.asks }} <span class="quiet">{{ q.why }}</span></span><input :value="q.answer" maxlength="400" placeholder="not asked yet" :class="{ none: !q.answer }" @change="answer(p.id, q.question, ($event.target as HTMLInputElement).value.trim())" /></label>
            <TextField label="Told by, such as the client's lawyer" :value="p.told_by" @change="set(p.id, { told_by: $event })" />
            <p class="quiet">This program knows no law. Ask whoever advises the client; the terms too are to be read there.</p>
          </div>
        </div>
      </div>
    </section>
    <p v-if="!portals.length">No page stands before {{ without.length ? 'the guests: whoever has the key, or is in reach of an open name, is on' : 'anybody, and no network is for guests' }}.</p>
    <div class="row">
      <Button v-for="n in without" :key="n.id" :label="`Put a page before ${n.name}`" icon="pi pi-plus" size="small" outlined @click="add(n.id)" />
    </div>
    <p class="quiet">The page is shown by the controller: while that is off nobody new comes on. Televisions, consoles and sensors cannot read a page; have them on a network without one.</p>
  </div>
</template>

<style scoped>
section {
  margin-bottom: 18px;
}
.way {
  list-style: none;
  margin: 0 0 14px;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 22px;
}
.way li {
  position: relative;
  display: grid;
  align-content: start;
  gap: 1px;
  padding: 8px 12px;
  border-left: 3px solid var(--moss-line);
  background: var(--paper-deep);
}
.way li:not(:last-child)::after {
  content: '';
  position: absolute;
  right: -17px;
  top: 50%;
  width: 9px;
  height: 9px;
  border: solid var(--granite-mid);
  border-width: 2px 2px 0 0;
  transform: translateY(-50%) rotate(45deg);
}
.way .head {
  font: 400 12px var(--condensed);
  color: var(--granite);
}
.way .quiet {
  font: 400 12px/1.35 var(--condensed);
}
.vouchers {
  margin-bottom: 14px;
}
.page {
  display: grid;
  grid-template-columns: 232px 1fr;
  gap: 22px;
}
.set {
  display: grid;
  align-content: start;
  gap: 10px;
  min-width: 0;
}
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 16px;
}
.gap {
  flex: 1;
}
.ticks,
.ticks label {
  display: flex;
  align-items: center;
  gap: 6px 12px;
}
.ticks label {
  gap: 5px;
}
.kept {
  display: flex;
  align-items: center;
  gap: 6px;
}
.kept input {
  width: 84px;
}
input,
textarea {
  font: inherit;
  color: inherit;
  background: var(--paper);
  border: 1px solid var(--granite-mid);
  padding: 6px 8px;
}
.terms {
  display: grid;
  gap: 3px;
}
.terms textarea {
  font: 400 13px/1.45 var(--condensed);
  resize: vertical;
}
.law {
  display: grid;
  gap: 6px;
}
.law > label {
  display: grid;
  grid-template-columns: 1fr 1fr;
  align-items: center;
  gap: 4px 14px;
  font: 400 13px/1.35 var(--condensed);
}
.law input.none {
  border-left: 3px solid var(--brick, var(--granite-mid));
}
.law p {
  margin: 0;
}
@media (pointer: coarse) {
  .law input,
  .kept input {
    min-height: 44px;
  }
}
@media (max-width: 1100px) {
  .way {
    grid-template-columns: 1fr 1fr;
    gap: 14px 22px;
  }
  .law > label {
    grid-template-columns: 1fr;
  }
}
@media (max-width: 800px) {
  .page {
    grid-template-columns: 1fr;
  }
}
</style>
