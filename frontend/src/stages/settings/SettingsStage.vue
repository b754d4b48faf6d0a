<script setup lang="ts">
import { computed, ref } from 'vue'
import Choices from '@/controls/Choices.vue'
import { useDesign } from '@/document/store'
import NetworkTable from './NetworkTable.vue'
import PortTable from './PortTable.vue'
import RadioTable from './RadioTable.vue'
import WirelessTable from './WirelessTable.vue'

const store = useDesign()
const sheet = computed(() => store.settings)
const part = ref<'networks' | 'names' | 'radios' | 'ports'>('radios')
const PARTS = [
  { value: 'radios', label: 'Radios' },
  { value: 'networks', label: 'Networks' },
  { value: 'names', label: 'Wireless names' },
  { value: 'ports', label: 'Switch ports' },
]
const files = computed(() => ({
  json: `/api/projects/${store.id}/export/settings.json`,
  yaml: `/api/projects/${store.id}/export/settings.yaml`,
}))
</script>

<template>
  <div class="settings">
    <div class="bar">
      <Choices v-model="part" :options="PARTS" aria-label="Part of the settings sheet" />
      <span class="gap" />
      <a :href="files.json" download data-testid="settings-json"><i class="pi pi-download" /> JSON</a>
      <a :href="files.yaml" download data-testid="settings-yaml"><i class="pi pi-download" /> YAML</a>
    </div>
    <div class="page" tabindex="0" role="region" aria-label="Settings sheet">
      <p v-if="!sheet" class="quiet">The channel plan is being worked out.</p>
      <RadioTable v-else-if="part === 'radios' && store.evaluation" :sheet="sheet" :signal="store.evaluation.signal" />
      <NetworkTable v-else-if="part === 'networks'" :sheet="sheet" />
      <WirelessTable v-else-if="part === 'names'" :sheet="sheet" />
      <PortTable v-else :sheet="sheet" />
    </div>
  </div>
</template>

<style scoped>
.settings {
  height: 100%;
  display: flex;
  flex-direction: column;
}
.bar {
  display: flex;
  align-items: center;
  gap: 14px;
  padding: 5px 12px;
  min-height: 42px;
  border-bottom: 1px solid var(--granite-light);
}
.gap {
  flex: 1;
}
.bar a {
  display: flex;
  align-items: center;
  gap: 4px;
  color: var(--heather);
  text-decoration: none;
  font-weight: 500;
}
.page {
  flex: 1;
  min-height: 0;
}
</style>
