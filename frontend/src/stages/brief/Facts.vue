<script setup lang="ts">
import Checkbox from 'primevue/checkbox'
import { computed } from 'vue'
import Choice from '@/controls/Choice.vue'
import type { Site } from '@/api/types'
import { put } from '@/document/edits'
import { useDesign } from '@/document/store'
import { DOMAINS, KINDS } from '../words'
import TextField from '@/controls/TextField.vue'
import NumberField from '@/controls/NumberField.vue'

const store = useDesign()
const site = computed(() => store.site)
const clients = computed(() => Object.values(store.catalogue?.clients ?? {}).filter((c) => Object.keys(c.power_dbm).length === 3))

const UNITS = [{ value: 'metric', label: 'metres' }, { value: 'imperial', label: 'feet and inches' }]
const LINES = [
  { value: 'fibre', label: 'Fibre' }, { value: 'coax', label: 'Coaxial' }, { value: 'dsl', label: 'Telephone pair' },
  { value: 'radio', label: 'Radio link' }, { value: 'mobile', label: 'Mobile' }, { value: 'leased', label: 'Leased line' },
]
const ADDRESSES = [{ value: 'automatic', label: 'automatic' }, { value: 'pppoe', label: 'PPPoE' }, { value: 'fixed', label: 'fixed' }]
const RULES: { value: Site['house_rules'][number]; label: string }[] = [
  { value: 'no_drilling', label: 'No drilling without asking' }, { value: 'listed', label: 'Listed building' },
  { value: 'landlord', label: 'Landlord’s consent needed' }, { value: 'no_visible_cable', label: 'No cable in sight' },
  { value: 'quiet_hours', label: 'Noise in set hours only' },
]
const MOUNTS = [{ value: 'ceiling', label: 'on ceilings, for many close by' }, { value: 'wall', label: 'on walls facing in, for reach' }]
const LINKS = [{ value: 'wired', label: 'by cable, each one' }, { value: 'mesh', label: 'over the air where that is cheaper' }]
const BY = [{ value: 'plan', label: 'by plan, looked at again after a scan' }, { value: 'controller', label: 'by the controller, within fences' }]
const WIDTHS = [20, 40, 80].map((w) => ({ value: w, label: `${w} MHz` }))

const DAYS = [{ value: '', label: 'any day' }, ...['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'].map((d) => ({ value: d.toLowerCase(), label: d }))]

function set(change: Partial<Site>, what: string): void {
  if (site.value) store.commit(what, [put('site', { ...site.value, ...change })])
}

/** Another kind brings its own hours along; they can be changed again. */
function setKind(kind: Site['kind']): void {
  const usual = store.catalogue?.site_kinds[kind]
  const hours = usual ? { quiet_hour: usual.quiet_hour, quiet_day: usual.quiet_day, opens: usual.opens, closes: usual.closes } : {}
  set({ kind, ...hours }, 'Kind of site')
}

function setCurrency(text: string): void {
  const currency = text.trim().toUpperCase()
  if (/^[A-Z]{3}$/.test(currency)) set({ currency }, 'Currency')
}

function setRule(rule: Site['house_rules'][number], on: boolean): void {
  const others = site.value!.house_rules.filter((r) => r !== rule)
  set({ house_rules: on ? [...others, rule] : others }, 'Rules of the house')
}
</script>

<template>
  <div v-if="site" class="groups">
    <section class="fields" aria-labelledby="place">
      <h2 id="place">The place</h2>
      <label>Kind of site <Choice :model-value="site.kind" :options="KINDS" fluid aria-label="Kind of site" @update:model-value="setKind" /></label>
      <label>Radio domain <Choice :model-value="site.domain" :options="DOMAINS" fluid aria-label="Radio domain" @update:model-value="set({ domain: $event }, 'Radio domain')" /></label>
      <div class="pair">
        <TextField label="Opens" :value="site.opens" type="time" @change="set({ opens: $event }, 'Opening hours')" />
        <TextField label="Closes" :value="site.closes" type="time" @change="set({ closes: $event }, 'Opening hours')" />
      </div>
      <div class="pair">
        <TextField label="Quiet hour, for updates" :value="site.quiet_hour" type="time" @change="set({ quiet_hour: $event }, 'Quiet hour')" />
        <label>On <Choice :model-value="site.quiet_day ?? ''" :options="DAYS" fluid aria-label="Day of the quiet hour" @update:model-value="set({ quiet_day: ($event || null) as Site['quiet_day'] }, 'Quiet day')" /></label>
      </div>
      <div v-if="site.domain === 'europe'" class="ticks">
        <label><Checkbox :model-value="site.channels_149_up" binary @update:model-value="set({ channels_149_up: $event as boolean }, 'Channels from 149')" /> National rules allow channels from 149</label>
      </div>
    </section>
    <section class="fields" aria-labelledby="job">
      <h2 id="job">The job</h2>
      <TextField label="Client" :value="site.client_name" @change="set({ client_name: $event }, 'Client')" />
      <TextField label="Who to call afterwards" :value="site.contact" @change="set({ contact: $event }, 'Who to call')" />
      <div class="pair">
        <NumberField label="Budget" unit="plain" :suffix="` ${site.currency}`" :digits="0" :value="site.budget ?? 0" :min="0" :max="1e9" @change="set({ budget: $event || null }, 'Budget')" />
        <TextField label="Currency" :value="site.currency" :longest="3" @change="setCurrency" />
      </div>
      <TextField label="Visited" :value="site.visited_on ?? ''" type="date" @change="set({ visited_on: $event || null }, 'Day of the visit')" />
      <div class="pair">
        <TextField label="Begins" :value="site.start_on ?? ''" type="date" @change="set({ start_on: $event || null }, 'Begin')" />
        <TextField label="Due" :value="site.due_on ?? ''" type="date" @change="set({ due_on: $event || null }, 'Due day')" />
      </div>
      <label>Papers in <Choice :model-value="site.units" :options="UNITS" fluid aria-label="Papers in" @update:model-value="set({ units: $event }, 'Units of the papers')" /></label>
    </section>
    <section class="fields" aria-labelledby="house">
      <h2 id="house">Rules of the house</h2>
      <div class="ticks">
        <label v-for="r in RULES" :key="r.value"><Checkbox :model-value="site.house_rules.includes(r.value)" binary @update:model-value="setRule(r.value, $event as boolean)" /> {{ r.label }}</label>
      </div>
    </section>
    <section class="fields" aria-labelledby="line">
      <h2 id="line">The line that comes in</h2>
      <label>Kind of line <Choice :model-value="site.line_kind" :options="LINES" fluid aria-label="Kind of line" @update:model-value="set({ line_kind: $event }, 'Kind of line')" /></label>
      <div class="pair">
        <NumberField label="Down" name="Internet line" unit="plain" suffix=" Mb/s" :digits="1" :value="site.line_mbps" :min="1" :max="100000" @change="set({ line_mbps: $event }, 'Line')" />
        <NumberField label="Up" name="Internet line, up" unit="plain" suffix=" Mb/s" :digits="1" :value="site.line_up_mbps" :min="0.1" :max="100000" @change="set({ line_up_mbps: $event }, 'Line, up')" />
      </div>
      <label>Address <Choice :model-value="site.line_address" :options="ADDRESSES" fluid aria-label="Address of the line" @update:model-value="set({ line_address: $event }, 'Address of the line')" /></label>
      <TextField label="Gear that is upstream" :value="site.upstream_gear" @change="set({ upstream_gear: $event }, 'Upstream gear')" />
      <TextField label="Upstream router's subnet" :value="site.upstream_subnet" :longest="43" @change="set({ upstream_subnet: $event }, 'Upstream subnet')" />
      <div class="ticks">
        <label><Checkbox :model-value="site.television" binary @update:model-value="set({ television: $event as boolean }, 'Television service')" /> Television comes over the line</label>
      </div>
    </section>
    <section class="fields" aria-labelledby="promised">
      <h2 id="promised">What is promised</h2>
      <label>Weakest client <Choice by="id" :model-value="site.client" :options="clients" fluid aria-label="Weakest client" @update:model-value="set({ client: $event }, 'Weakest client')" /></label>
      <label>5 GHz width <Choice :model-value="site.width_5ghz_mhz" :options="WIDTHS" fluid aria-label="5 GHz width" @update:model-value="set({ width_5ghz_mhz: $event }, '5 GHz width')" /></label>
      <NumberField label="Signal kept in hand" unit="plain" suffix=" dB" :value="site.margin_db" :min="0" :max="20" @change="set({ margin_db: $event }, 'Signal kept in hand')" />
      <NumberField label="Power kept free" unit="plain" suffix=" %" :digits="0" :value="Math.round(site.power_headroom * 100)" :min="0" :max="90" @change="set({ power_headroom: $event / 100 }, 'Power kept free')" />
    </section>
    <section class="fields" aria-labelledby="schools">
      <h2 id="schools">Schools of practice</h2>
      <div class="ticks">
        <label><Checkbox :model-value="site.asks_second" binary @update:model-value="set({ asks_second: $event as boolean }, 'Second access point for calls')" /> A second access point where calls are made</label>
        <label><Checkbox :model-value="site.radar_channels" binary @update:model-value="set({ radar_channels: $event as boolean }, 'Radar channels')" /> Channels that may be left to radar</label>
        <label v-if="site.domain === 'europe'"><Checkbox :model-value="site.four_channels_24" binary @update:model-value="set({ four_channels_24: $event as boolean }, 'Four channels on 2.4 GHz')" /> Four channels on 2.4 GHz: 1, 5, 9, 13</label>
      </div>
      <label>Access points hang first <Choice :model-value="site.mount_first" :options="MOUNTS" fluid aria-label="Access points hang first" @update:model-value="set({ mount_first: $event }, 'Where access points hang')" /></label>
      <label>Access points are linked <Choice :model-value="site.back_haul" :options="LINKS" fluid aria-label="Access points are linked" @update:model-value="set({ back_haul: $event }, 'How access points are linked')" /></label>
      <label>Channels and power <Choice :model-value="site.channels_by" :options="BY" fluid aria-label="Channels and power" @update:model-value="set({ channels_by: $event }, 'Who sets channels')" /></label>
      <p class="quiet">What a choice changes stands in the line of figures below, beside what was before.</p>
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
  grid-template-columns: repeat(auto-fill, minmax(206px, 1fr));
  gap: 18px 22px;
}
.fields {
  display: grid;
  align-content: start;
  gap: 8px;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
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
