<script setup lang="ts">
import Button from 'primevue/button'
import { computed, onUnmounted, watch } from 'vue'
import { api, taken } from '@/api/client'
import type { Change, MeshLink } from '@/api/types'
import { put, runSaid } from '@/document/edits'
import { hasAir } from '@/document/kinds'
import { useBeside } from '@/answers/useBeside'
import { useDesign } from '@/document/store'
import { dbm, length } from '@/document/units'
import BandFrame from './BandFrame.vue'
import { useLooking } from './looking'

/** Access points without a cable: the tree of their links, what a user gets, and a cable instead. */
const emit = defineEmits<{ close: [] }>()
const { floor, mesh } = useLooking()
const store = useDesign()
const { answer: view } = useBeside((project_id) => taken(api.GET('/api/projects/{project_id}/mesh', { params: { path: { project_id } } })))
watch(view, (found) => found && (mesh.value = found.links.map((l) => l.link)))
onUnmounted(() => (mesh.value = null))

const selected = computed(() => {
  const s = store.selection
  const device = s?.kind === 'device' ? store.find('device', s.id) : undefined
  return device && hasAir(store.catalogue, device) && !view.value?.links.some((l) => l.link.device === device.id) ? device : null
})
const money = (n: number) => `${n.toLocaleString('en', { maximumFractionDigits: 0 })} ${view.value?.currency ?? ''}`
const mbps = (n: number) => n.toFixed(0)

function loosen(): void {
  const device = selected.value
  if (!device) return
  store.commit(`${device.name} over the air`, [put('run', { ...runSaid(store, device.id), over_air: true })])
}
function look(l: MeshLink): void {
  const device = store.find('device', l.device)
  if (device) floor.value = device.floor
  store.selection = { kind: 'device', id: l.device }
}
</script>

<template>
  <BandFrame rows="Access points without a cable" :high="200" close="Close the back-haul" aria-label="Back-haul over the air" data-testid="mesh-band" @close="emit('close')">
    <template #head>
      <b>Without a cable</b>
      <Button v-if="selected" :label="`Leave ${selected.name} without a cable`" size="small" outlined data-testid="loosen" @click="loosen" />
      <span v-else class="quiet">Select an access point that no cable can reach, and leave it without one.</span>
    </template>
      <table v-if="view?.links.length" class="ledger">
        <thead><tr><th><span class="visually-hidden">What to do</span></th><th>Way</th><th class="number">Level</th><th class="number">A user</th><th class="number">All at once</th><th class="number">Kept radio</th><th>Parent gone</th><th>A cable instead</th></tr></thead>
        <tbody>
          <tr v-for="{ link: l, ...instead } in view.links" :key="l.device" tabindex="0" :class="{ chosen: store.selection?.id === l.device }" :data-link="l.device" @click="look(l)" @keydown.enter="look(l)">
            <td><b>{{ l.name }}</b><template v-if="l.repeater"><br><span class="quiet">repeats, {{ l.band }} GHz</span></template></td>
            <td><template v-if="l.parent">{{ l.path.slice(1).join(' → ') }}<br><span class="quiet">{{ l.hops }} {{ l.hops === 1 ? 'hop' : 'hops' }}</span></template><span v-else class="not_met">hears none that has a cable</span></td>
            <td class="number">{{ dbm(l.level_dbm) }}</td>
            <td class="number figure"><b>{{ mbps(l.user_mbps) }}</b> Mb/s</td>
            <td class="number figure">{{ mbps(l.shared_mbps) }}<span v-if="l.on_branch > 1" class="quiet"> of {{ l.on_branch }}</span></td>
            <td class="number figure">{{ mbps(l.kept_mbps) }}</td>
            <td><template v-if="l.second">{{ l.second_name }}, {{ mbps(l.second_mbps) }} Mb/s</template><span v-else-if="l.parent" class="near">cut off</span></td>
            <td>
              <template v-if="instead.changes.length">
                <Button :label="`${mbps(l.wired_mbps)} Mb/s for ${money(instead.cost)}`" size="small" outlined :title="instead.reason" @click.stop="store.commit(`A cable for ${l.name}`, instead.changes as Change[])" />
                <span class="quiet"> {{ length(instead.cable_m, 0) }}<template v-if="instead.verdict !== 'met'">, {{ instead.reason }}</template></span>
              </template>
              <span v-else class="quiet">without it a user beside it gets {{ mbps(l.direct_mbps) }} Mb/s</span>
            </td>
          </tr>
        </tbody>
      </table>
      <p v-else-if="view" class="quiet none">Every access point of this plan has a cable. Each hop over the air on one radio divides what a user gets; a second parent keeps a branch alive.</p>
  </BandFrame>
</template>

<style scoped>
.ledger td,
.ledger th {
  white-space: nowrap;
  font-size: 12.5px;
}
.ledger td:last-child {
  white-space: normal;
}
.none {
  padding: 12px;
  max-width: 70ch;
}
</style>
