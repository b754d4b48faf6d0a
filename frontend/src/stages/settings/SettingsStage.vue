<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRoute } from 'vue-router'
import Choice from '@/controls/Choice.vue'
import Choices from '@/controls/Choices.vue'
import PrintButton from '@/controls/PrintButton.vue'
import StageFrame from '@/controls/StageFrame.vue'
import { useDesign } from '@/document/store'
import LanesLayer from '@/sheet/LanesLayer.vue'
import PacketLayer from '@/sheet/PacketLayer.vue'
import SheetView from '@/sheet/SheetView.vue'
import ControllerPart from './ControllerPart.vue'
import EveryPart from './EveryPart.vue'
import GuestsPart from './GuestsPart.vue'
import KeysPart from './KeysPart.vue'
import LanesPart from './LanesPart.vue'
import NetworkTable from './NetworkTable.vue'
import PortTable from './PortTable.vue'
import PracticePart from './PracticePart.vue'
import RadioTable from './RadioTable.vue'
import ReachPart from './ReachPart.vue'
import WirelessTable from './WirelessTable.vue'

const floor = defineModel<string>('floor', { required: true })
const store = useDesign()
/** What the packet goes over, drawn on the sheet. */
const links = ref<string[]>([])
const passes = ref(true)
function shown(over: string[], well: boolean): void {
  links.value = over
  passes.value = well
}
const sheet = computed(() => store.settings)
const PARTS = [
  { value: 'networks', label: 'Networks' },
  { value: 'reach', label: 'Who reaches whom' },
  { value: 'names', label: 'Wireless names' },
  { value: 'guests', label: 'Guests' },
  { value: 'radios', label: 'Radios' },
  { value: 'ports', label: 'Switch ports' },
  { value: 'practice', label: 'Practice' },
  { value: 'every', label: 'Every setting' },
  { value: 'keys', label: 'Keys' },
  { value: 'controller', label: 'Controller' },
]
/** Which part is shown stands in the address, so that others can lead to it. */
const route = useRoute()
const part = ref(PARTS.find((p) => p.value === route.query['part'])?.value ?? 'networks')
const files = computed(() => ({
  json: `/api/projects/${store.id}/export/settings.json`,
  yaml: `/api/projects/${store.id}/export/settings.yaml`,
}))
</script>

<template>
  <StageFrame>
    <template #bar>
      <Choices v-model="part" :options="PARTS" aria-label="Part of the settings sheet" />
      <span class="gap" />
      <Choice v-if="part === 'reach' && store.floors.length > 1" by="id" named="name" v-model="floor" :options="store.floors" aria-label="Storey" />
      <template v-if="part === 'every'">
        <PrintButton kind="settings_pdf" label="Print" />
        <a :href="files.json" download data-testid="settings-json"><i class="pi pi-download" /> JSON</a>
        <a :href="files.yaml" download data-testid="settings-yaml">YAML</a>
      </template>
    </template>
    <div class="page" tabindex="0" role="region" aria-label="Settings sheet">
      <p v-if="!sheet" class="quiet">The channel plan is being worked out.</p>
      <RadioTable v-else-if="part === 'radios' && store.evaluation" :sheet="sheet" :signal="store.evaluation.signal" />
      <template v-else-if="part === 'networks'"><LanesPart :sheet="sheet" /><NetworkTable :sheet="sheet" /></template>
      <ReachPart v-else-if="part === 'reach'" :sheet="sheet" @walked="shown" />
      <WirelessTable v-else-if="part === 'names'" :sheet="sheet" />
      <GuestsPart v-else-if="part === 'guests'" :sheet="sheet" />
      <PracticePart v-else-if="part === 'practice'" />
      <KeysPart v-else-if="part === 'keys'" />
      <ControllerPart v-else-if="part === 'controller'" />
      <EveryPart v-else-if="part === 'every'" />
      <PortTable v-else :sheet="sheet" />
    </div>
    <template #drawing>
      <SheetView v-if="part === 'reach' && floor" :floor="floor" mode="cable" class="drawing">
        <template #default="{ viewport }"><LanesLayer :floor="floor" :viewport="viewport" /><PacketLayer :links="links" :passes="passes" :floor="floor" :viewport="viewport" /></template>
      </SheetView>
    </template>
  </StageFrame>
</template>

<style scoped>
.gap {
  flex: 1;
}
a {
  display: flex;
  align-items: center;
  gap: 4px;
  color: var(--heather);
  text-decoration: none;
  font-weight: 500;
}
</style>
