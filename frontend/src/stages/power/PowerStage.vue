<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref } from 'vue'
import Choice from '@/controls/Choice.vue'
import type { ElementOf, PortUse, Thing } from '@/api/types'
import { put, removal } from '@/document/edits'
import { movePort } from '@/document/pins'
import { useDesign } from '@/document/store'
import Offered from '@/controls/Offered.vue'
import BudgetBars from './BudgetBars.vue'
import PinLine from './PinLine.vue'
import PortStrip from './PortStrip.vue'
import RackHead from './RackHead.vue'
import RackPanel from './RackPanel.vue'
import RackPlacesBand from './RackPlacesBand.vue'
import SwitchBand from './SwitchBand.vue'
import WayUpLine from './WayUpLine.vue'

const store = useDesign()
const power = computed(() => store.shown?.power)
const models = computed(() =>
  Object.values(store.catalogue?.switches ?? {}).filter((m) => (!m.old && !m.withdrawn) || store.all('switch').some((s) => s.model === m.id)).map((m) => ({
    id: m.id,
    label: `${m.label}, ${m.budget_w ? `${m.budget_w} W` : 'no power'}, ${m.price} ${store.site?.currency ?? ''}`,
  })),
)
/** The racks, the one where the line comes in first. */
const rooms = computed(() => {
  const lower = new Set((store.shown?.cable.uplinks ?? []).map((u) => u.room))
  return [...store.all('equipment_room')].sort((a, b) => Number(lower.has(a.id)) - Number(lower.has(b.id)))
})
const switchesOf = (room: string) => power.value?.switches.filter((s) => s.room === room) ?? []
const choosing = ref(false)
/** The rack that places are compared for. */
const compared = ref('')
const portsOf = (id: string) => power.value?.ports.filter((p) => p.switch === id) ?? []
/** The way to another switch, or to the line, that was pressed on a port. */
const way = ref<PortUse | null>(null)
const injectors = computed(() => store.all('injector'))

function change(budget: { switch: string; name: string }, model: string): void {
  const element = store.find('switch', budget.switch)
  if (element && element.model !== model) store.commit(`Model of ${budget.name}`, [put('switch', { ...element, model })])
}

function add(room: string): void {
  const id = store.nextId('switch', 'sw')
  const name = `SW-${id.split('-').at(-1)}`
  const model = models.value[1]?.id ?? models.value[0]!.id
  const added: ElementOf<'switch'> = { id, equipment_room: room, name, model, state: 'new' }
  store.commit(`Add ${name}`, [put('switch', added)])
}

function remove(kind: 'switch' | 'injector', id: string, name: string): void {
  store.commit(`Remove ${name}`, removal(store, kind, id))
}

/** What was pressed in the elevation is shown with its ports and watts. */
function open(thing: Thing): void {
  if (thing.kind === 'switch') document.querySelector(`[data-switch="${thing.element}"]`)?.scrollIntoView({ block: 'nearest', behavior: 'smooth' })
}

const deviceName = (id: string) => store.find('device', id)?.name ?? id
const select = (device: string | null | undefined) => {
  store.selection = device ? { kind: 'device', id: device } : null
}
</script>

<template>
  <div class="page" tabindex="0" role="region" aria-label="Racks, switches and power">
    <div v-if="!rooms.length" class="begin">
      <h2>No rack yet</h2>
      <p class="quiet">Every run ends in a rack, and switches stand in it. Take a place that is offered, or press one on the plan.</p>
      <Offered id="cable-no-room" />
    </div>
    <template v-else-if="power">
      <SwitchBand v-if="choosing" @close="choosing = false" />
      <section v-for="room in rooms" :key="room.id" class="rack" :data-rack="room.id">
      <RackHead :room="room" :several="rooms.length > 1" :first="room.id === rooms[0]?.id" @add="add(room.id)" @switches="choosing = !choosing" @places="compared = compared === room.id ? '' : room.id" />
      <RackPlacesBand v-if="compared === room.id" :key="`places-${room.id}`" :room="room" @close="compared = ''" />
      <RackPanel v-for="rack in store.shown?.racks.racks.filter((r) => r.room === room.id)" :key="rack.room" :room="room" :rack="rack" @open="open" />
      <section v-for="budget in switchesOf(room.id)" :key="budget.switch" class="switch" :data-switch="budget.switch">
        <header>
          <h2>{{ budget.name }}</h2>
          <Choice by="id"
            :model-value="budget.model" :options="models" class="model"
            :aria-label="`Model of ${budget.name}`" @update:model-value="change(budget, $event)"
          />
          <span v-if="budget.budget_w" class="quiet">allocates by {{ budget.allocates === 'class' ? 'class' : 'negotiated watts' }}</span>
          <Button icon="pi pi-trash" text size="small" :aria-label="`Remove ${budget.name}`" @click="remove('switch', budget.switch, budget.name)" />
        </header>
        <WayUpLine :way="power.ways_up.find((w) => w.switch === budget.switch)" />
        <PortStrip :ports="portsOf(budget.switch)" :chosen="store.selection?.id ?? null" @choose="select" @way="way = way?.switch === $event.switch && way.port === $event.port ? null : $event" @move="(from, to) => store.commit(`Port of ${from.name}`, movePort(store, from, to))" />
        <PinLine :way="way?.switch === budget.switch ? (portsOf(budget.switch).find((p) => p.uplink && p.uplink_to === way!.uplink_to) ?? null) : null" :ports="portsOf(budget.switch)" :name="budget.name" :chosen="store.selection?.id ?? null" />
        <div class="split">
          <BudgetBars v-if="budget.budget_w" :budget="budget" />
          <p v-else class="quiet">Carries no power.</p>
          <dl class="counts">
            <dt>PoE ports used</dt><dd class="figure">{{ budget.powered_used }} of {{ budget.powered_ports }}</dd>
            <dt>Powered devices</dt><dd class="figure">{{ budget.powered_devices }}</dd>
            <dt>Free ports</dt><dd class="figure">{{ budget.ports - budget.ports_used }} of {{ budget.ports }}</dd>
          </dl>
        </div>
      </section>
      <template v-if="!switchesOf(room.id).length">
        <p class="quiet">No switch is chosen yet.</p>
        <Offered :id="`power-none-${room.id}`" />
      </template>
      </section>
      <section v-if="injectors.length" class="injectors">
        <h2>Injectors</h2>
        <p v-for="i in injectors" :key="i.id">
          {{ store.catalogue?.injectors[i.model]?.label }} feeds {{ deviceName(i.device) }}
          <Button icon="pi pi-trash" text size="small" :aria-label="`Remove the injector of ${deviceName(i.device)}`" @click="remove('injector', i.id, 'injector')" />
        </p>
      </section>
      <section>
        <h2>Powered devices over their own runs</h2>
        <p class="quiet">Rated draw at the lowest port volts of the class, cords and heat included. Terminate with the power off.</p>
        <table class="ledger">
          <thead>
            <tr>
              <th>Device</th><th>Model</th><th class="number">Class</th><th class="number">Reserved</th><th class="number">Rated at port</th>
              <th class="number">Expected</th><th class="number">Volts there</th><th>Fed by</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="d in power.devices" :key="d.device" tabindex="0" :class="{ chosen: store.selection?.id === d.device }" @click="select(d.device)" @keydown.enter="select(d.device)">
              <td>{{ d.name }}</td><td class="condensed">{{ d.model }}</td><td class="number">{{ d.poe_class }}</td>
              <td class="number">{{ d.reserved_w.toFixed(1) }} W</td><td class="number">{{ d.port_w.toFixed(1) }} W</td>
              <td class="number">{{ d.expected_w.toFixed(1) }} W</td>
              <td class="number" :class="d.verdict">{{ d.device_v.toFixed(1) }} V</td>
              <td :class="{ not_met: d.source === 'none' }">{{ d.source === 'none' ? 'nothing yet' : d.source }}</td>
            </tr>
          </tbody>
        </table>
      </section>
    </template>
  </div>
</template>

<style scoped>
.begin {
  max-width: 520px;
  display: grid;
  gap: 8px;
  margin: 8vh auto 0;
}
.switch {
  border: 1px solid var(--granite-mid);
  border-radius: 3px;
  padding: 8px 12px 10px;
  margin-bottom: 12px;
}
.switch header {
  display: flex;
  align-items: center;
  gap: 10px;
}
.model {
  flex: 0 1 360px;
}
.switch header > :last-child {
  margin-left: auto;
}
.split {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 190px;
  gap: 24px;
}
.counts {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 2px 10px;
  margin: 0;
  align-content: start;
}
.counts dt {
  color: var(--granite);
}
.counts dd {
  margin: 0;
  text-align: right;
}
section {
  margin-top: 14px;
}
.rack:first-child,
.switch {
  margin-top: 0;
}
</style>
