<script setup lang="ts">
import InputText from 'primevue/inputtext'
import { computed } from 'vue'
import Choice from '@/controls/Choice.vue'
import type { Device, ElementOf, Point } from '@/api/types'
import { put, runSaid } from '@/document/edits'
import { hasAir, modelsOf } from '@/document/kinds'
import { useDesign } from '@/document/store'
import type { Stage } from '@/stages/registry'
import NumberField from '@/controls/NumberField.vue'
import { useFields } from './useFields'

const props = defineProps<{ device: Device; stage: Stage }>()
const store = useDesign()
const { set, setName } = useFields('device', () => props.device)

const models = computed(() => modelsOf(store.catalogue, props.device.kind).filter((m) => (!m.old === (props.device.state === 'new') && !m.withdrawn) || m.id === props.device.model))
/** Whether it runs as it asks for or on less, where its sheet has a reduced mode. */
const modes = computed(() => {
  const model = store.catalogue?.devices[props.device.kind]?.[props.device.model]
  if (!model?.reduced || !model.power || (props.stage !== 'power' && !props.device.reduced)) return null
  return [{ value: 'full' as const, label: `class ${model.power.poe_class}, as it asks` }, { value: 'less' as const, label: `class ${model.reduced.power.poe_class}, reduced` }]
})
const OWN = 'own'
/** Whether its plug-in supply feeds it or a splitter off its cable, where its sheet names the volts. */
const feeds = computed(() => {
  const model = store.catalogue?.devices[props.device.kind]?.[props.device.model]
  if ((!model?.dc_v || model.power) && !props.device.splitter) return null
  const splitters = Object.values(store.catalogue?.splitters ?? {}).filter((s) => !s.withdrawn || s.id === props.device.splitter)
  return [{ value: OWN, label: 'its own supply, in a socket' }, ...splitters.map((s) => ({ value: s.id, label: `${s.label}, ${s.gives_w} W` }))]
})
const MOUNTS = ['ceiling', 'wall', 'desk', 'pole'].map((m) => ({ value: m, label: m }))
const CATEGORIES = [
  { value: 'plan', label: 'by plan' },
  ...['5e', '6', '6A'].map((c) => ({ value: c, label: `category ${c}` })),
]
const FIBRE = { value: 'fibre', label: 'fibre, a converter at its end' }
/** What its run is pulled in; fibre to what has one link, to the port of a switch. */
const cables = computed(() => {
  const role = store.catalogue?.roles[props.device.kind]
  return role?.links === 'one' && !role.leads_out ? [...CATEGORIES, FIBRE] : CATEGORIES
})
const cable = computed(() => (said.value?.medium === 'fibre' ? 'fibre' : (said.value?.category ?? 'plan')))

function pull(kind: string): void {
  if (kind === 'fibre') return say({ medium: 'fibre' }, 'Fibre')
  say({ medium: null, category: kind === 'plan' ? null : (kind as ElementOf<'run'>['category']) }, 'Cable')
}
/** Follows the mark while it is dragged. */
const at = computed(() => (store.ghost?.id === props.device.id ? store.ghost.at : props.device.at))
const said = computed(() => store.all('run').find((r) => r.device === props.device.id))

/** Where its run may begin: at a rack, or at a device near it that has ports for others. */
const begins = computed(() => [
  { value: 'plan', label: 'at a rack, by plan' },
  ...store.all('equipment_room').map((r) => ({ value: r.id, label: r.name })),
  ...hosts.value.map((d) => ({ value: `${PLUG}${d.id}`, label: store.catalogue?.roles[d.kind]?.passes_on ? `at ${d.name}` : `no run: plugged into ${d.name}` })),
])
const PLUG = 'plug:'
const NEAR_M = 6
const hosts = computed(() =>
  store.all('device').filter((d) => {
    const gives = store.catalogue?.devices[d.kind]?.[d.model]?.ports ?? []
    const near = d.floor === props.device.floor && Math.hypot(d.at[0] - props.device.at[0], d.at[1] - props.device.at[1]) < NEAR_M
    const far = store.catalogue?.roles[d.kind]?.passes_on
    return (near || far || d.id === said.value?.through) && d.id !== props.device.id && gives.length && !store.catalogue?.roles[d.kind]?.leads_out
  }),
)
const begun = computed(() => (said.value?.through ? `${PLUG}${said.value.through}` : (said.value?.equipment_room ?? 'plan')))

function begin(at: string): void {
  const through = at.startsWith(PLUG) ? at.slice(PLUG.length) : null
  say({ through, equipment_room: through || at === 'plan' ? null : at }, 'Way')
}

function say(change: Partial<ElementOf<'run'>>, what: string): void {
  store.commit(`${what} to ${props.device.name}`, [put('run', { ...runSaid(store, props.device.id), ...change })])
}
</script>

<template>
  <div class="fields">
    <label class="wide">Model
      <Choice by="id" :model-value="device.model" :options="models" fluid aria-label="Model" @update:model-value="set({ model: $event }, 'Model')" />
    </label>
    <label v-if="stage === 'cable' && !said?.through" class="wide">Cable
      <Choice :model-value="cable" :options="cables" fluid aria-label="Cable" @update:model-value="pull($event)" />
    </label>
    <label v-if="(stage === 'cable' || stage === 'power') && begins.length > 2" class="wide">Begins
      <Choice :model-value="begun" :options="begins" fluid aria-label="Begins" @update:model-value="begin($event)" />
    </label>
    <label v-if="modes" class="wide">Power
      <Choice :model-value="device.reduced ? 'less' : 'full'" :options="modes" fluid aria-label="Power" @update:model-value="set({ reduced: $event === 'less' }, 'Power')" />
    </label>
    <label v-if="feeds" class="wide">Power
      <Choice :model-value="device.splitter ?? OWN" :options="feeds" fluid aria-label="Power" @update:model-value="set({ splitter: $event === OWN ? null : $event }, 'Power')" />
    </label>
    <template v-if="stage === 'plan' || stage === 'signal'">
      <label>Name <InputText :model-value="device.name" size="small" maxlength="120" fluid aria-label="Name" @change="setName" /></label>
      <label>Mount
        <Choice :model-value="device.mount" :options="MOUNTS" fluid aria-label="Mount" @update:model-value="set({ mount: $event }, 'Mount')" />
      </label>
      <NumberField label="East" :value="at[0]" @change="set({ at: [$event, at[1]] as Point }, 'Place')" />
      <NumberField label="North" :value="at[1]" @change="set({ at: [at[0], $event] as Point }, 'Place')" />
      <NumberField label="Height" :value="device.height_m" :min="0" :max="60" @change="set({ height_m: $event }, 'Height')" />
      <NumberField label="Azimuth" :value="device.azimuth_deg" unit="degrees" :min="0" :max="360" :digits="0" @change="set({ azimuth_deg: $event }, 'Azimuth')" />
      <NumberField v-if="hasAir(store.catalogue, device) || store.catalogue?.devices[device.kind]?.[device.model]?.view" label="Tilt" :value="device.tilt_deg" unit="degrees" :min="-90" :max="90" :digits="0" @change="set({ tilt_deg: $event }, 'Tilt')" />
    </template>
  </div>
</template>
