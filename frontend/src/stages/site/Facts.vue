<script setup lang="ts">
import Checkbox from 'primevue/checkbox'
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import { computed } from 'vue'
import type { Site } from '@/api/types'
import { put } from '@/document/edits'
import { useDesign } from '@/document/store'
import { DOMAINS, KINDS } from '../words'
import NumberField from '@/controls/NumberField.vue'

const store = useDesign()
const site = computed(() => store.site)
const clients = computed(() => Object.values(store.catalogue?.clients ?? {}))

const WIDTHS = [20, 40, 80].map((w) => ({ value: w, label: `${w} MHz` }))

function set(change: Partial<Site>, what: string): void {
  if (site.value) store.commit(what, [put('site', { ...site.value, ...change })])
}

function setSubnet(event: Event): void {
  const upstream = (event.target as HTMLInputElement).value.trim()
  if (upstream !== site.value?.upstream_subnet) set({ upstream_subnet: upstream }, 'Upstream subnet')
}
</script>

<template>
  <div v-if="site" class="groups">
    <section class="fields" aria-labelledby="place">
      <h2 id="place">The place</h2>
      <label>Kind of site <Select :model-value="site.kind" :options="KINDS" option-label="label" option-value="value" size="small" fluid aria-label="Kind of site" @update:model-value="set({ kind: $event }, 'Kind of site')" /></label>
      <label>Radio domain <Select :model-value="site.domain" :options="DOMAINS" option-label="label" option-value="value" size="small" fluid aria-label="Radio domain" @update:model-value="set({ domain: $event }, 'Radio domain')" /></label>
      <div v-if="site.domain === 'europe'" class="ticks">
        <label><Checkbox :model-value="site.channels_149_up" binary @update:model-value="set({ channels_149_up: $event as boolean }, 'Channels from 149')" /> National rules allow channels from 149</label>
      </div>
    </section>
    <section class="fields" aria-labelledby="line">
      <h2 id="line">The line that comes in</h2>
      <NumberField label="Internet line" unit="plain" suffix=" Mb/s" :digits="0" :value="site.line_mbps" :min="1" :max="100000" @change="set({ line_mbps: $event }, 'Line')" />
      <label>Upstream router's subnet <InputText :model-value="site.upstream_subnet" size="small" maxlength="18" fluid class="figure" aria-label="Upstream router's subnet" @change="setSubnet" /></label>
    </section>
    <section class="fields" aria-labelledby="promised">
      <h2 id="promised">What is promised</h2>
      <label>Weakest client <Select :model-value="site.client" :options="clients" option-label="label" option-value="id" size="small" fluid aria-label="Weakest client" @update:model-value="set({ client: $event }, 'Weakest client')" /></label>
      <label>5 GHz width <Select :model-value="site.width_5ghz_mhz" :options="WIDTHS" option-label="label" option-value="value" size="small" fluid aria-label="5 GHz width" @update:model-value="set({ width_5ghz_mhz: $event }, '5 GHz width')" /></label>
      <NumberField label="Signal kept in hand" unit="plain" suffix=" dB" :value="site.margin_db" :min="0" :max="20" @change="set({ margin_db: $event }, 'Signal kept in hand')" />
      <NumberField label="Power kept free" unit="plain" suffix=" %" :digits="0" :value="Math.round(site.power_headroom * 100)" :min="0" :max="90" @change="set({ power_headroom: $event / 100 }, 'Power kept free')" />
    </section>
    <section class="fields" aria-labelledby="cable">
      <h2 id="cable">How cable is pulled</h2>
      <NumberField label="Cords of a run, both ends" :value="site.cords_m" :min="0" :max="20" @change="set({ cords_m: $event }, 'Cords')" />
      <NumberField label="Slack at the device" :value="site.slack_device_m" :min="0" :max="20" @change="set({ slack_device_m: $event }, 'Slack')" />
      <NumberField label="Slack at the rack" :value="site.slack_rack_m" :min="0" :max="20" @change="set({ slack_rack_m: $event }, 'Slack')" />
      <div class="ticks">
        <label><Checkbox :model-value="site.tight_bundles" binary @update:model-value="set({ tight_bundles: $event as boolean }, 'Tight bundles')" /> Cables tied in tight bundles</label>
      </div>
    </section>
  </div>
</template>

<style scoped>
.groups {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(172px, 1fr));
  gap: 18px 22px;
}
.fields {
  display: grid;
  align-content: start;
  gap: 8px;
}
.fields > :deep(label),
.fields > div:not(.ticks) :deep(label) {
  font: 400 12px/1.4 var(--condensed);
  color: var(--granite);
  display: grid;
  gap: 2px;
}
</style>
