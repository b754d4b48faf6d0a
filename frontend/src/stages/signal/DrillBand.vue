<script setup lang="ts">
import { computed, onMounted, onUnmounted, ref, shallowRef, watch } from 'vue'
import { useProjectJob } from '@/answers/useJob'
import type { JobKinds } from '@/api/types'
import JobProgress from '@/controls/JobProgress.vue'
import { useDesign } from '@/document/store'
import { inUnits, money } from '@/document/units'
import BandFrame from './BandFrame.vue'
import { useLooking } from './looking'

/** What each single failure does, the worst first; the one that is pressed shows its rooms on the sheet. */
type Failure = JobKinds['drill']['result']['failures'][number]
type Fallen = Failure['rooms'][number]
const emit = defineEmits<{ close: [] }>()
const { floor, failure: looked, walk } = useLooking()
const store = useDesign()
const { job, running, run, stop } = useProjectJob()
const failures = shallowRef<Failure[]>([])
const chosen = ref('')
const WHAT = { device: 'Access point', port: 'Its port', switch: 'Switch', uplink: 'Link', injector: 'Injector', mains: 'Rack without mains' } as const
const MOST_PX = 120
const FULL = 0.8 // from where the air does not hold what is asked of it
const most = computed(() => Math.max(1, ...failures.value.map((f) => f.rooms.length)))
const harmless = computed(() => failures.value.filter((f) => f.kind === 'device' && !f.rooms.length))
const lost = (f: Failure) => f.rooms.filter((r) => r.now === 'not_met')
const near = (f: Failure) => f.rooms.filter((r) => r.now !== 'not_met')
const NAMED = 8
const named = (rooms: Fallen[]) => {
  const more = rooms.length - NAMED
  return rooms.slice(0, NAMED).map((r) => (r.silent ? `${r.name} (nobody)` : r.name)).join(', ') + (more > 0 ? ` and ${more} more` : '')
}
const helps = (f: Failure) => f.cure && (f.kind === 'port' || f.rooms.length || f.walk_lost_s || f.others)
const key = (f: Failure) => `${f.kind}/${f.element}`

async function begin(): Promise<void> {
  const done = await run('drill', { path: walk.drawn.value })
  if (done?.result) failures.value = done.result.failures
  if (failures.value[0]) show(failures.value[0])
}

function show(failure: Failure): void {
  chosen.value = key(failure)
  looked.value = { name: failure.name, gone: failure.gone, rooms: new Map(failure.rooms.map((r) => [r.space, r.now])) }
  const first = failure.rooms[0]?.floor
  if (first) floor.value = first
  if (failure.kind === 'device' || failure.kind === 'switch') store.selection = { kind: failure.kind, id: failure.element }
}

onMounted(() => void begin())
onUnmounted(() => (looked.value = null))
watch(() => store.revision, () => !running.value && void begin())
</script>

<template>
  <BandFrame rows="Failures, the worst first" :high="236" close="Close the drill" aria-label="Failure drill" data-testid="drill-band" @close="emit('close')">
    <template #head>
      <b>If one of these fails</b>
      <span v-if="harmless.length" class="quiet">{{ harmless.map((f) => f.name).join(', ') }}: no room would notice</span>
    </template>
    <template #under><JobProgress v-if="running" :job="job" what="Switching off one after the other" @stop="stop" /></template>
      <table class="ledger">
        <tbody>
          <tr v-for="f in failures" :key="key(f)" tabindex="0" :class="{ chosen: chosen === key(f) }" :data-failure="key(f)" @click="show(f)" @keydown.enter="show(f)">
            <td class="what"><b>{{ f.name }}</b> <span class="quiet">{{ WHAT[f.kind] }}</span></td>
            <td class="takes quiet"><template v-if="f.port">{{ f.kind === 'port' ? f.port : `or ${f.port}` }}</template><template v-else-if="f.kind !== 'device'">{{ f.takes.length }} access points<template v-if="f.others">, {{ f.others }} others</template></template></td>
            <td class="bar">
              <svg :width="MOST_PX + 2" height="12" aria-hidden="true"><rect x="1" y="1" :width="(f.rooms.length / most) * MOST_PX" height="10" /><rect x="1" y="1" :width="(lost(f).length / most) * MOST_PX" height="10" class="lost" /></svg>
            </td>
            <td>
              <span v-if="lost(f).length" class="not_met">{{ lost(f).length }} fall: {{ named(lost(f)) }}</span>
              <span v-if="near(f).length" class="near">{{ lost(f).length ? '; ' : '' }}{{ near(f).length }} only just: {{ named(near(f)) }}</span>
              <span v-if="f.walk_lost_s" class="not_met">{{ f.rooms.length ? '; ' : '' }}calls on walks are lost for {{ f.walk_lost_s }} s</span>
              <span v-if="f.busiest > FULL" class="not_met">{{ f.rooms.length || f.walk_lost_s ? '; ' : '' }}the fullest air has {{ Math.round(100 * f.busiest) }} % to carry</span>
              <span v-if="!f.rooms.length && !f.walk_lost_s" class="met">✓ no room falls</span>
              <span v-if="f.minutes" class="quiet">, after {{ Math.round(f.minutes) }} min on its battery</span>
              <br v-if="helps(f)"><span v-if="helps(f)" class="quiet" data-cure-said>Against it: {{ inUnits(f.cure) }}{{ f.cure_price ? `, ${money(f.cure_price)} ${store.site?.currency}` : '' }}<template v-if="f.port_cure && f.kind !== 'port'">; where it is the port, {{ f.port_cure }}</template></span>
            </td>
          </tr>
        </tbody>
      </table>
  </BandFrame>
</template>

<style scoped>
.what {
  white-space: nowrap;
}
.takes {
  white-space: nowrap;
}
.bar {
  width: 124px;
}
rect {
  fill: var(--tint-3);
  stroke: var(--ink);
}
rect.lost {
  fill: var(--rust);
}
</style>
