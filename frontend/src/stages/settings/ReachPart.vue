<script setup lang="ts">
import { computed, ref } from 'vue'
import { api, taken } from '@/api/client'
import type { ElementOf, SettingsSheet } from '@/api/types'
import { useBeside } from '@/answers/useBeside'
import Choice from '@/controls/Choice.vue'
import { put } from '@/document/edits'
import { useDesign } from '@/document/store'

/** Who may open a connection to whom, edited in the grid itself; under it a packet's way from one host to another. */
type Network = ElementOf<'network'>
const props = defineProps<{ sheet: SettingsSheet }>()
const emit = defineEmits<{ walked: [links: string[], passes: boolean] }>()
const store = useDesign()
const networks = computed(() => store.all('network'))
const sheetOf = (id: string) => props.sheet.networks.find((n) => n.id === id)
const reaches = (a: Network, b: Network) => sheetOf(a.id)?.reaches.includes(b.id) ?? false
const NET = 'internet'

/** What is by hand in a cell: let in, or shut out, against what its purpose says. */
const byHand = (a: Network, b: Network) => a.reaches.includes(b.id) || a.shut.includes(b.id)
/** Hosts that land there and are planned elsewhere. */
const strays = (id: string) => (props.sheet.hosts ?? []).filter((h) => h.lands === id && h.network !== id).length

function toggle(a: Network, b: Network): void {
  if (a.id === b.id) return set(a, { client_isolation: reaches(a, b) })
  const now = reaches(a, b)
  const without = { reaches: a.reaches.filter((k) => k !== b.id), shut: a.shut.filter((k) => k !== b.id) }
  // What was said is taken back first; only what its purpose says is then said against.
  if (now && a.reaches.includes(b.id)) return set(a, { ...without, shut: ofPurpose(a, b) ? [...without.shut, b.id] : without.shut })
  if (now) return set(a, { ...without, shut: [...without.shut, b.id] })
  if (a.shut.includes(b.id)) return set(a, without)
  set(a, { ...without, reaches: [...without.reaches, b.id] })
}
const ofPurpose = (a: Network, b: Network) => sheetOf(a.id)?.by_purpose?.includes(b.id) ?? false

function toggleInternet(a: Network): void {
  set(a, { internet: a.internet === null ? !sheetOf(a.id)?.internet : null })
}
function set(a: Network, change: Partial<Network>): void {
  store.commit(`Reach of ${a.name}`, [put('network', { ...a, ...change })])
}

const hosts = computed(() => (props.sheet.hosts ?? []).map((h) => ({ value: h.id, label: h.name })))
const start = ref('')
const goal = ref(NET)
const from = computed(() => (hosts.value.some((h) => h.value === start.value) ? start.value : (hosts.value.find((h) => h.value.startsWith('socket')) ?? hosts.value[0])?.value ?? ''))
const to = computed(() => (goal.value === NET || hosts.value.some((h) => h.value === goal.value) ? goal.value : NET))
const goals = computed(() => [{ value: NET, label: 'the internet' }, ...hosts.value])
const { answer: walk } = useBeside(
  async (project_id) => {
    const found = await taken(api.GET('/api/projects/{project_id}/packet', { params: { path: { project_id }, query: { start: from.value, goal: to.value } } }))
    emit('walked', [...found.links], found.passes)
    return found
  },
  { wanted: () => !!from.value, about: () => `${from.value} ${to.value}`, failed: () => (walk.value = null) },
)
const nameOf = (id: string | null | undefined) => networks.value.find((n) => n.id === id)?.name ?? 'no network'
const hostOf = (id: string) => props.sheet.hosts?.find((h) => h.id === id)
</script>

<template>
  <section v-if="networks.length">
    <h2>Who may open a connection to whom</h2>
    <table class="reach">
      <thead><tr><th>from, to</th><th v-for="n in networks" :key="n.id">{{ n.name }}</th><th>Internet</th></tr></thead>
      <tbody>
        <tr v-for="a in networks" :key="a.id">
          <th>{{ a.name }}</th>
          <td v-for="b in networks" :key="b.id" :class="{ yes: reaches(a, b), hand: byHand(a, b) }">
            <button type="button" :aria-label="`${a.name} to ${b.name}: ${reaches(a, b) ? 'yes' : 'no'}`" :aria-pressed="reaches(a, b)" :data-reach="`${a.id}/${b.id}`" @click="toggle(a, b)">{{ reaches(a, b) ? 'yes' : 'no' }}<span v-if="byHand(a, b)" class="mark"> by hand</span></button>
          </td>
          <td :class="{ yes: sheetOf(a.id)?.internet, hand: a.internet !== null }">
            <button type="button" :aria-label="`${a.name} to the internet: ${sheetOf(a.id)?.internet ? 'yes' : 'no'}`" :aria-pressed="sheetOf(a.id)?.internet" :data-reach="`${a.id}/internet`" @click="toggleInternet(a)">{{ sheetOf(a.id)?.internet ? 'yes' : 'no' }}<span v-if="a.internet !== null" class="mark"> by hand</span></button>
          </td>
        </tr>
        <tr v-if="networks.some((n) => strays(n.id))">
          <th class="quiet">land there</th>
          <td v-for="n in networks" :key="n.id"><span v-if="strays(n.id)" class="not_met" data-strays>{{ strays(n.id) }} of others</span></td>
          <td></td>
        </tr>
      </tbody>
    </table>
    <p class="quiet">A press changes a cell. Within a network “no” keeps its hosts from one another. What is by hand is said against its purpose.</p>
  </section>
  <section v-if="hosts.length" data-testid="packet">
    <h2>A packet on its way</h2>
    <div class="ends">
      <label>From <Choice :model-value="from" :options="hosts" filter aria-label="Packet from" @update:model-value="start = $event" /></label>
      <label>to <Choice :model-value="to" :options="goals" filter aria-label="Packet to" @update:model-value="goal = $event" /></label>
    </div>
    <template v-if="walk && walk.start === from && walk.goal === to">
      <p class="says" :class="walk.passes ? 'met' : 'not_met'" data-packet-says>{{ walk.passes ? '✓' : '✕' }} {{ walk.says }}</p>
      <p class="quiet">{{ hostOf(from)?.name }} is on {{ nameOf(hostOf(from)?.network) }}<template v-if="hostOf(from)?.lands !== hostOf(from)?.network"> and lands on <b class="not_met">{{ nameOf(hostOf(from)?.lands) }}</b></template><template v-if="hostOf(to)">; {{ hostOf(to)?.name }} on {{ nameOf(hostOf(to)?.lands) }}</template>.</p>
      <ol class="hops">
        <li><span class="dot" />{{ hostOf(from)?.name }}</li>
        <li v-for="(h, k) in walk.hops" :key="k" :class="{ stop: !h.passes }"><span class="dot">{{ h.passes ? '' : '✕' }}</span>{{ h.words }}</li>
      </ol>
    </template>
  </section>
</template>

<style scoped>
h2 {
  margin: 12px 0 6px;
}
.reach {
  border-collapse: collapse;
}
.reach th {
  font: 600 12px var(--condensed);
  padding: 3px 6px;
  text-align: left;
}
.reach td {
  border: 1px solid var(--granite-light);
  padding: 0;
  min-width: 52px;
}
.reach td span:not(.mark) {
  padding: 0 8px;
}
.reach button {
  all: unset;
  box-sizing: border-box;
  display: block;
  width: 100%;
  min-height: 36px;
  padding: 6px 8px;
  color: var(--granite);
  cursor: pointer;
}
.reach button:focus-visible {
  outline: 2px solid var(--heather);
  outline-offset: -2px;
}
.reach td.yes {
  background: var(--paper-deep);
}
.reach td.yes button {
  color: var(--moss);
  font-weight: 600;
}
@media (max-width: 1000px), (pointer: coarse) {
  .reach button {
    min-height: 44px;
  }
}
.mark {
  font: 400 11px var(--condensed);
  color: var(--heather);
}
.ends {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 12px;
}
.ends label {
  display: flex;
  align-items: center;
  gap: 6px;
  color: var(--granite);
}
.ends :deep(.p-select) {
  width: 210px;
}
.says {
  font-weight: 600;
  margin: 10px 0 2px;
}
.hops {
  list-style: none;
  margin: 8px 0 0;
  padding: 0;
}
.hops li {
  position: relative;
  padding: 3px 0 9px 26px;
}
.hops li::before {
  content: '';
  position: absolute;
  left: 9px;
  top: 12px;
  bottom: -8px;
  border-left: 3px solid var(--tarn);
}
.hops li:last-child::before {
  display: none;
}
.dot {
  position: absolute;
  left: 3px;
  top: 5px;
  width: 15px;
  height: 15px;
  border-radius: 50%;
  background: var(--tarn);
  color: var(--paper);
  font: 600 10px/15px var(--mono);
  text-align: center;
}
.stop .dot {
  background: var(--rust);
}
.stop {
  color: var(--rust);
  font-weight: 600;
}
</style>
