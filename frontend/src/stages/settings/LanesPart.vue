<script setup lang="ts">
import { computed, ref } from 'vue'
import type { SettingsSheet } from '@/api/types'
import Choice from '@/controls/Choice.vue'
import { endOf, joined, laneColour, memberAt } from '@/document/networks'
import { useDesign } from '@/document/store'

/** Networks as lanes across the switches: who belongs where, told once where it is as everywhere; what stands out is marked. */
type Host = NonNullable<SettingsSheet['hosts']>[number]
interface Chip { key: string; text: string; hosts: Host[]; stray: boolean; cut: boolean; hand: boolean }
const props = defineProps<{ sheet: SettingsSheet }>()
const store = useDesign()
const TOGETHER = 3
const AIR = 'air'
const networks = computed(() => store.all('network'))
const hosts = computed(() => props.sheet.hosts ?? [])
const ports = computed(() => store.evaluation?.power.ports ?? [])
const chosen = ref('')
const chip = computed(() => [...chips.value.values()].flat().find((c) => c.hosts.some((h) => h.id === chosen.value)) ?? null)
/** Whom the pressed chip stands for, as many as can be put elsewhere one by one. */
const FEW = 4
const picked = computed(() => (chip.value ? (chip.value.hosts.length > FEW ? chip.value.hosts.slice(0, 1) : chip.value.hosts) : []))

const above = computed(() => new Map((store.evaluation?.power.ways_up ?? []).map((w) => [w.switch, w])))
const columns = computed(() => [
  { id: AIR, name: 'On the air', plain: false },
  ...[...above.value.keys()].map((id) => {
    const s = store.find('switch', id)
    return { id, name: s?.name ?? id, plain: s ? store.catalogue?.switches[s.model]?.managed === false : false }
  }),
])

function columnOf(host: Host): string {
  if (host.id.startsWith('air:')) return AIR
  if (host.switch) return host.switch
  let device = host.device
  const plugged = store.evaluation?.power.plugged ?? []
  for (let k = 0; k < 6; k++) {
    const up = plugged.find((p) => p.device === device)
    if (!up) break
    device = up.host
  }
  const cable = host.id.startsWith('socket:') ? Number(host.id.split(':')[2]) : 1
  const mine = ports.value.filter((p) => p.device === device)
  return (mine.find((p) => p.link?.endsWith(`/${cable}`)) ?? mine[0])?.switch ?? ''
}

const groupOf = (host: Host): string => {
  if (host.id.startsWith('air:')) return host.id.split(':')[1]!
  const device = store.find('device', host.device ?? '')
  return host.id.startsWith('device:') && device ? device.kind : ''
}
const chips = computed(() => {
  const cells = new Map<string, Host[]>()
  for (const h of hosts.value) {
    const key = `${h.lands ?? h.network}/${columnOf(h)}`
    cells.set(key, [...(cells.get(key) ?? []), h])
  }
  const found = new Map<string, Chip[]>()
  for (const [key, rows] of cells) {
    const groups = new Map<string, Host[]>()
    for (const h of rows) {
      const odd = h.lands !== h.network || h.stopped || h.whose === 'person'
      const alike = h.id.startsWith('socket:') ? `${h.device}/${h.network}/${h.whose}` : ''
      const g = alike ? alike : groupOf(h) && !odd ? groupOf(h) : h.id.startsWith('air:') ? `${groupOf(h)}!` : h.id
      groups.set(g, [...(groups.get(g) ?? []), h])
    }
    found.set(key, [...groups].flatMap(([g, members]) => chipsOf(g, members)))
  }
  return found
})

function chipsOf(group: string, members: Host[]): Chip[] {
  const make = (text: string, rows: Host[]): Chip => ({
    key: rows[0]!.id, text, hosts: rows, stray: rows.some((h) => h.lands !== h.network), cut: rows.some((h) => h.stopped), hand: rows.some((h) => h.whose === 'person'),
  })
  if (members[0]!.id.startsWith('air:')) {
    const name = props.sheet.names.find((n) => n.id === group.replace('!', ''))
    return [make(`${name?.ssid ?? group}: ${members.length} access point${members.length > 1 ? 's' : ''}`, members)]
  }
  const role = store.catalogue?.roles[group]
  if (members[0]!.id.startsWith('socket:')) {
    const name = store.find('device', members[0]!.device ?? '')?.name ?? members[0]!.name
    return [make(members.length > 1 ? `${name}, ${members.length} sockets` : members[0]!.name, members)]
  }
  if (role && members.length > TOGETHER) return [make(`${members.length} ${role.name.toLowerCase()}s`, members)]
  return members.map((h) => make(h.name, [h]))
}

const OPTIONS = computed(() => [{ value: 'plan', label: 'by plan' }, ...networks.value.map((n) => ({ value: n.id, label: n.name }))])
const said = (host: Host) => {
  const end = endOf(host.id)
  return (end ? memberAt(store, end)?.network : undefined) ?? 'plan'
}
function join(host: Host, network: string): void {
  const end = endOf(host.id)
  if (end) store.commit(`Network of ${host.name}`, joined(store, end, network === 'plan' ? null : network))
}
const why = (h: Host) => (h.stopped ? `${h.stopped}.` : h.lands !== h.network ? `Planned on ${nameOf(h.network)}, lands on ${nameOf(h.lands)}.` : h.reason)
/** A port that nobody is in, for a guest who brings a cable. */
const free = computed(() => ports.value.filter((p) => !p.link && !p.uplink && !p.cage && !hosts.value.some((h) => h.id === `port:${p.switch}:${p.port}`)))
const guest = computed(() => networks.value.find((n) => n.purpose === 'guest'))
function guestPort(): void {
  const port = free.value.at(-1)
  if (port && guest.value) {
    store.commit(`Wired guest port at ${store.find('switch', port.switch)?.name}`, joined(store, { device: null, switch: port.switch, port: port.port, given: false }, guest.value.id))
    chosen.value = `port:${port.switch}:${port.port}`
  }
}
const nameOf = (id: string | null) => networks.value.find((n) => n.id === id)?.name ?? 'none'
</script>

<template>
  <div v-if="networks.length" class="lanes" role="region" aria-label="Networks as lanes" tabindex="0">
    <table>
      <thead>
        <tr><th><span class="visually-hidden">Network</span></th><th v-for="c in columns" :key="c.id" :class="{ plain: c.plain }">{{ c.name }}<small v-if="c.plain"> one network only</small><small v-else-if="above.get(c.id)?.to"> up to {{ above.get(c.id)!.to_name }}</small></th></tr>
      </thead>
      <tbody>
        <tr v-for="n in networks" :key="n.id" class="lane" :class="n.purpose">
          <th :style="{ borderColor: laneColour(sheet.networks.find((s) => s.id === n.id)?.tone) }"><b>{{ n.name }}</b><small>VLAN {{ n.vlan }}, {{ n.purpose }}</small></th>
          <td v-for="c in columns" :key="c.id">
            <button
              v-for="one in chips.get(`${n.id}/${c.id}`) ?? []" :key="one.key" type="button" class="chip" :class="{ stray: one.stray, cut: one.cut, hand: one.hand, chosen: one.hosts.some((h) => h.id === chosen) }"
              :data-host="one.key" :title="one.hosts.map((h) => h.name).join(', ')" @click="chosen = one.key"
            >{{ one.text }}<em v-if="one.stray"> for {{ nameOf(one.hosts[0]!.network) }}</em><em v-if="one.cut"> cut off</em></button>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
  <p v-if="networks.length && !hosts.length" class="quiet">Nobody is plugged in yet: choose switches on Power.</p>
  <div v-if="chip" class="belongs" data-testid="belongs">
    <template v-if="chip.hosts.length > FEW"><b>{{ chip.text }}</b><span class="quiet">{{ why(chip.hosts[0]!) }}</span></template>
    <p v-for="h in chip.hosts.length > FEW ? [] : picked" :key="h.id">
      <b>{{ h.name }}</b>
      <label v-if="endOf(h.id)">belongs to <Choice :model-value="said(h)" :options="OPTIONS" :aria-label="`Network of ${h.name}`" @update:model-value="join(h, $event)" /></label>
      <span class="quiet">{{ why(h) }}</span>
    </p>
  </div>
  <p v-else-if="hosts.length" class="quiet">Press who is in a lane to see why, and to put him on another. <button v-if="guest && free.length" type="button" class="plain-link" data-testid="guest-port" @click="guestPort">Make a wired guest port</button></p>
</template>

<style scoped>
.lanes {
  overflow-x: auto;
  margin-bottom: 8px;
}
table {
  border-collapse: separate;
  border-spacing: 0 5px;
  width: 100%;
}
thead th {
  font: 600 12px var(--condensed);
  text-align: left;
  padding: 0 8px;
}
small {
  display: block;
  font: 400 11px var(--condensed);
  color: var(--granite);
}
th.plain small {
  color: var(--rust);
}
.lane th {
  text-align: left;
  padding: 6px 10px;
  border-left: 6px solid var(--tarn);
  background: var(--paper-deep);
  white-space: nowrap;
}
.lane td {
  min-width: 104px;
  background: var(--paper-deep);
  padding: 4px 6px;
  vertical-align: top;
  border-left: 1px dashed var(--granite-light);
}
.chip {
  font: 400 12px/1.3 var(--condensed);
  margin: 2px 4px 2px 0;
  padding: 4px 8px;
  min-height: 28px;
  border: 1px solid var(--granite-mid);
  background: var(--paper);
  color: var(--ink);
  cursor: pointer;
  text-align: left;
}
.chip.hand {
  border-color: var(--heather);
  border-width: 2px;
}
.chip.stray,
.chip.cut {
  border: 2px dashed var(--rust);
}
.chip em {
  font-style: normal;
  color: var(--rust);
}
.chip.chosen {
  background: var(--heather);
  color: var(--paper);
}
.chip.chosen em {
  color: var(--paper);
}
.belongs {
  padding: 4px 10px;
  border: 1px solid var(--granite-light);
  margin-bottom: 12px;
}
.belongs p {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 14px;
  margin: 4px 0;
}
.belongs b {
  margin-right: 10px;
}
.belongs label {
  display: flex;
  align-items: center;
  gap: 6px;
  color: var(--granite);
}
.plain-link {
  all: unset;
  display: inline-flex;
  align-items: center;
  color: var(--heather);
  font-weight: 500;
  cursor: pointer;
}
@media (max-width: 1000px), (pointer: coarse) {
  .chip,
  .plain-link {
    min-height: 44px;
    min-width: 44px;
  }
}
</style>
