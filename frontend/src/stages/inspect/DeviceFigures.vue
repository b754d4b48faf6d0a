<script setup lang="ts">
import { computed } from 'vue'
import type { Device } from '@/api/types'
import { cableSaid, strandsSaid } from '@/document/cables'
import { useDesign } from '@/document/store'
import { inUnits, length, temperature } from '@/document/units'
import { JACKETS, SPACES } from '@/stages/overheads'
import type { Stage } from '@/stages/registry'

const props = defineProps<{ device: Device; stage: Stage }>()
const store = useDesign()
const loose = computed(() => store.all('run').some((r) => r.device === props.device.id && r.over_air))
const run = computed(() => store.shown?.cable.runs.find((r) => r.device === props.device.id))
const fed = computed(() => store.shown?.power.devices.find((d) => d.device === props.device.id))
const plug = computed(() => store.shown?.power.plugged?.find((p) => p.device === props.device.id))
const guests = computed(() => (store.shown?.power.plugged ?? []).filter((p) => p.host === props.device.id && p.port))
const port = computed(() => store.shown?.power.ports.find((p) => p.device === props.device.id))
const switchName = computed(() => (port.value ? store.find('switch', port.value.switch)?.name : ''))
const given = computed(() => store.catalogue?.devices[props.device.kind]?.[props.device.model]?.ports ?? [])
const radios = computed(() =>
  (store.evaluation?.signal.radios ?? []).filter((r) => r.device === props.device.id && r.on),
)
const WORD: Record<string, string> = {
  met: 'Will do', near: 'Will just do', test_first: 'Test first', not_met: 'Will not do', no_way: 'No way',
}
</script>

<template>
  <dl class="figures">
    <template v-if="run && run.verdict !== 'no_way'">
      <dt>Run</dt><dd class="figure" data-figure="run">{{ length(run.fixed_m) }} of {{ length(run.limit_m) }}</dd>
      <template v-if="store.all('equipment_room').length > 1"><dt>From</dt><dd>{{ store.find('equipment_room', run.room ?? '')?.name }}</dd></template>
      <dt>Cable</dt><dd>{{ cableSaid(run, store.catalogue) }}{{ { person: ', by hand', found: ', found in the wall', plan: '' }[run.chosen_by] }}</dd>
      <template v-if="stage === 'cable'">
        <template v-if="run.fibre">
          <dt>Loses</dt><dd class="figure" data-figure="loss">{{ run.fibre.loss_db }} of {{ run.fibre.budget_db }} dB</dd>
          <dt>Strands</dt><dd>{{ strandsSaid(run.fibre) }}</dd>
        </template>
        <dt>Horizontal</dt><dd class="figure">{{ length(run.horizontal_m) }}</dd>
        <dt>Rise and drop</dt><dd class="figure">{{ length(run.rise_m + run.drop_m) }}</dd>
        <template v-if="run.outdoor_m"><dt>In air outside</dt><dd class="figure">{{ length(run.outdoor_m) }}</dd></template>
        <template v-if="run.duct_m"><dt>In the ground</dt><dd class="figure">{{ length(run.duct_m) }}</dd></template>
        <dt>Slack, both ends</dt><dd class="figure">{{ length(run.slack_m) }}</dd>
        <dt>Jacket</dt><dd data-figure="jacket">{{ JACKETS[run.jacket] }}</dd>
        <dt>To buy, each</dt><dd class="figure">{{ length(run.bought_m) }}</dd>
        <dt>Hottest</dt><dd>{{ SPACES[run.hottest_space] }}, {{ temperature(run.hottest_c) }}</dd>
      </template>
    </template>
    <template v-else-if="plug"><dt>Plugged into</dt><dd data-figure="plug">{{ plug.host_name }}<template v-if="plug.port"> port {{ plug.port }}, cord of {{ length(plug.cord_m) }}</template></dd></template>
    <template v-else><dt>Run</dt><dd>{{ loose ? 'none: its link is the air' : inUnits(run?.reason ?? 'not worked out') }}</dd></template>
    <template v-if="fed">
      <dt>Draws</dt><dd class="figure">{{ fed.port_w.toFixed(1) }} W, class {{ fed.poe_class }}</dd>
      <dt>Fed by</dt><dd>{{ fed.source === 'none' ? 'nothing yet' : fed.source }}</dd>
    </template>
    <template v-else-if="port"><dt>Port</dt><dd>{{ switchName }} port {{ port.port }}</dd></template>
    <template v-for="(g, i) in given" :key="i">
      <dt>Gives on</dt>
      <dd>{{ g.count }} {{ g.cage ? 'cage' : 'port' }}{{ g.count > 1 ? 's' : '' }}, {{ g.speed_mbps / 1000 }} Gb/s, {{ g.poe_class === null ? 'no power' : `class ${g.poe_class}` }}</dd>
    </template>
    <template v-for="g in guests" :key="g.device"><dt>In its port {{ g.port }}</dt><dd>{{ g.name }}</dd></template>
    <template v-if="stage === 'signal' || stage === 'plan'">
      <template v-for="r in radios" :key="r.band">
        <dt>{{ r.band }} GHz</dt><dd class="figure">ch {{ r.channel }}, {{ r.width_mhz }} MHz, {{ r.power_dbm }} dBm</dd>
      </template>
    </template>
  </dl>
  <table v-if="fed?.hops.length" class="hops" aria-label="Piece by piece from the port on">
    <thead><tr><th>To</th><th>Cable</th><th>W in</th><th>W out</th><th>V</th></tr></thead>
    <tbody>
      <tr v-for="(hop, k) in fed.hops" :key="k" data-figure="hop">
        <td>{{ hop.to }}</td><td class="figure">{{ length(hop.length_m, 0) }}</td><td class="figure">{{ hop.sent_w.toFixed(1) }}</td><td class="figure">{{ hop.got_w.toFixed(1) }}</td><td class="figure">{{ hop.volts.toFixed(1) }}</td>
      </tr>
    </tbody>
  </table>
  <p v-if="plug?.wrong" class="not_met">{{ inUnits(plug.wrong) }}.</p>
  <p v-if="fed?.wrong" class="not_met">{{ inUnits(fed.wrong) }}.</p>
  <p v-if="stage === 'cable' && run" class="reason" :class="run.verdict" data-figure="reason">{{ WORD[run.verdict] }}: {{ inUnits(run.reason) }}.<template v-if="run.medium === 'fibre'"> Never look into a fibre.</template></p>
</template>

<style scoped>
.hops {
  width: 100%;
  border-collapse: collapse;
  margin: 0 0 10px;
}
.hops th {
  font: 400 11px/1.3 var(--condensed);
  color: var(--granite);
  text-align: right;
  padding: 2px 0 2px 8px;
}
.hops th:first-child,
.hops td:first-child {
  text-align: left;
  padding-left: 0;
}
.hops td {
  font-size: 12px;
  text-align: right;
  padding: 2px 0 2px 8px;
  border-top: 1px solid var(--granite-light);
  white-space: nowrap;
}
.hops td:first-child {
  font: 400 12px/1.3 var(--condensed);
  white-space: normal;
}
.reason {
  margin: -4px 0 10px;
  color: var(--granite);
}
</style>
