<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import Choices from '@/controls/Choices.vue'
import Choice from '@/controls/Choice.vue'
import type { Kind, Step } from '@/api/types'
import { useWork } from '@/answers/useWork'
import StageFrame from '@/controls/StageFrame.vue'
import WhoField from '@/controls/WhoField.vue'
import { useDesign } from '@/document/store'
import { clockOff } from '@/outbox/clocks'
import { useOutbox } from '@/outbox/useOutbox'
import SheetView from '@/sheet/SheetView.vue'
import BringUpPart from './BringUpPart.vue'
import PhaseBand from './PhaseBand.vue'
import StepRow from './StepRow.vue'
import PortsPart from './PortsPart.vue'
import PullsPart from './PullsPart.vue'
import SpeedsPart from './SpeedsPart.vue'
import SnagsPart from './SnagsPart.vue'
import TestsPart from './TestsPart.vue'
import { PHASES } from './phases'

/** The work list, day by day and storey by storey; it works without a connection. */
const floor = defineModel<string>('floor', { required: true })
const store = useDesign()
const { work, stands, offline, say, photograph } = useWork()
const outbox = useOutbox()
const here = computed(() => outbox.waiting.filter((e) => e.project === store.id).length)
const refused = computed(() => outbox.refused.filter((e) => e.project === store.id).length)
const beside = useMediaQuery('(min-width: 1001px)')
type Part = 'work' | 'pulls' | 'tests' | 'ports' | 'bring' | 'speeds' | 'snags'
const PARTS: { value: Part; label: string }[] = [{ value: 'work', label: 'Work' }, { value: 'pulls', label: 'Pulls' }, { value: 'tests', label: 'Cables' }, { value: 'ports', label: 'Ports' }, { value: 'bring', label: 'Bring-up' }, { value: 'speeds', label: 'Speeds' }, { value: 'snags', label: 'Snags' }]
/** Which part is shown stands in the address, so that others can lead to it. */
const route = useRoute()
const part = ref<Part>(PARTS.find((p) => p.value === route.query['part'])?.value ?? 'work')
const people = ref(2)
const PEOPLE = [{ value: 1, label: 'One' }, { value: 2, label: 'Two' }]
const storey = ref('all')
/** Whose steps are shown: all, or those of one of the two. */
const whose = ref(0)
const WHOSE = [{ value: 0, label: 'Both' }, { value: 1, label: 'First' }, { value: 2, label: 'Second' }]
const show = ref<'open' | 'all'>('open')
const SHOW = [{ value: 'open', label: 'Open' }, { value: 'all', label: 'All' }]
const opened = ref<string | null>(null)

// From the first visit on the page and the list are at hand without a connection.
/** Have the application at hand for when the connection is gone. */
async function keepAtHand(): Promise<void> {
  try {
    await navigator.serviceWorker.register('/sw.js')
    ;(await navigator.serviceWorker.ready).active?.postMessage('keep')
  } catch {
    // Without a worker it works as long as there is a connection.
  }
}
if ('serviceWorker' in navigator) void keepAtHand()

const finish = computed(() => work.value?.finishes.find((f) => f.people === people.value))
const dayOf = (step: Step) => Math.floor((finish.value?.starts[step.id] ?? 0) / (work.value?.day_minutes ?? 450)) + 1
const peopleAt = (step: Step) => finish.value?.who[step.id] ?? []
const isOpen = (step: Step) => !['done', 'skipped'].includes(stands.value.get(step.id)?.state ?? 'open')
const storeys = computed(() => [{ value: 'all', label: 'All storeys' }, ...store.floors.map((f) => ({ value: f.id, label: f.name }))])
const days = computed(() => {
  const found = new Map<number, Map<string, Step[]>>()
  for (const step of work.value?.steps ?? []) {
    if (show.value === 'open' && !isOpen(step) && opened.value !== step.id) continue
    if (storey.value !== 'all' && step.floor !== storey.value) continue
    if (people.value > 1 && whose.value && !peopleAt(step).includes(whose.value)) continue
    const day = found.get(dayOf(step)) ?? new Map<string, Step[]>()
    const place = step.floor ? (store.find('floor', step.floor)?.name ?? '') : 'At the rack and all over'
    day.set(place, [...(day.get(place) ?? []), step])
    found.set(dayOf(step), day)
  }
  return [...found].sort((a, b) => a[0] - b[0]).map(([day, places]) => ({ day, places: [...places] }))
})
const counts = computed(() => {
  const steps = work.value?.steps ?? []
  return { done: steps.filter((s) => stands.value.get(s.id)?.state === 'done').length, all: steps.length, blocked: steps.filter((s) => stands.value.get(s.id)?.state === 'blocked').length }
})
const names = computed(() => new Map((work.value?.steps ?? []).map((s) => [s.id, s.title])))

function span(minutes: number): string {
  const day = work.value?.day_minutes ?? 450
  const days = Math.floor(minutes / day)
  const rest = minutes - days * day
  return `${days ? `${days} d ` : ''}${Math.floor(rest / 60)} h ${Math.round(rest % 60)} min`
}

watch(opened, (id) => {
  const step = work.value?.steps.find((s) => s.id === id)
  if (!step || !store.find(step.kind as Kind, step.element)) return
  if (step.floor) floor.value = step.floor
  store.selection = { kind: step.kind as Kind, id: step.element }
})
</script>

<template>
  <StageFrame>
    <template #bar>
      <Choices v-model="part" :options="PARTS" aria-label="Part of the work on site" />
      <WhoField />
      <template v-if="part === 'work'">
      <span class="pick">People <Choices v-model="people" :options="PEOPLE" aria-label="People at work" /></span>
      <Choices v-if="people > 1" v-model="whose" :options="WHOSE" aria-label="Whose steps" />
      <Choice v-model="storey" :options="storeys" aria-label="Storey" />
      <Choices v-model="show" :options="SHOW" aria-label="Which steps" />
      </template>
      <span class="state" role="status" data-testid="work-state" :class="{ near: here, not_met: refused }">
        {{ here ? `${here} kept here${offline ? ', no connection' : ''}` : offline ? 'No connection; what you tick is kept here' : refused ? 'All else saved' : 'All ticks saved' }}{{ refused ? `, ${refused} not taken` : '' }}
      </span>
    </template>
    <div class="page" tabindex="0" role="region" aria-label="Work list">
        <p v-if="outbox.full" class="not_met" role="alert">This device has no room left: the last word was not kept. Send what waits, or free some room, and say it again.</p>
        <p v-if="outbox.aheadS" class="near" role="status">This device’s clock is {{ clockOff(outbox.aheadS) }}; what is said here is noted by the server’s.</p>
        <TestsPart v-if="part === 'tests'" />
        <PullsPart v-else-if="part === 'pulls'" :steps="work?.steps ?? []" :stands="stands" @say="say" />
        <PortsPart v-else-if="part === 'ports'" />
        <BringUpPart v-else-if="part === 'bring'" @speeds="part = 'speeds'" />
      <SpeedsPart v-else-if="part === 'speeds'" />
        <SnagsPart v-else-if="part === 'snags'" :floor="floor" />
        <p v-else-if="!work" class="quiet">{{ offline ? 'No connection, and the list was not loaded here before.' : 'Working it out.' }}</p>
        <p v-else-if="!work.steps.length" class="quiet">Nothing is planned yet, so there is nothing to do.</p>
        <template v-else>
          <p class="head"><b class="figure">{{ counts.done }} of {{ counts.all }}</b> done<template v-if="counts.blocked">, <b class="not_met">{{ counts.blocked }} blocked</b></template>
            <span v-if="finish" class="quiet" data-testid="finish">{{ people === 1 ? 'One person' : 'Two people' }}: {{ span(finish.minutes) }}{{ finish.proven ? ', no order is quicker' : `, at best ${span(finish.bound_minutes)}` }}<template v-if="finish.alone_minutes">; {{ span(finish.alone_minutes) }} of it wants a second person</template></span>
          </p>
          <PhaseBand :steps="work.steps" :stands="stands" />
          <section v-for="d in days" :key="d.day" :aria-label="`Day ${d.day}`">
            <template v-for="[place, steps] in d.places" :key="place">
              <h2>Day {{ d.day }}, {{ place }}</h2>
              <StepRow
                v-for="s in steps" :key="s.id" :step="s" :stand="stands.get(s.id)" :open="opened === s.id" :names="names" :stands="stands" :phase="PHASES[s.phase]"
                :people="people > 1 ? peopleAt(s) : []" :excerpt="!beside"
                @toggle="opened = opened === s.id ? null : s.id" @say="say" @photo="photograph(s.id, $event)"
              />
            </template>
          </section>
          <p v-if="!days.length" class="quiet">Nothing is open here.</p>
        </template>
    </div>
    <template #drawing>
      <SheetView v-if="beside && floor && part !== 'bring' && part !== 'speeds'" :floor="floor" mode="cable" class="drawing" />
    </template>
  </StageFrame>
</template>

<style scoped>
.pick {
  display: flex;
  align-items: center;
  gap: 6px;
  color: var(--granite);
  font-size: 12px;
}
.state {
  margin-left: auto;
  color: var(--moss);
  font-weight: 600;
}
.head span {
  margin-left: 12px;
}
h2 {
  margin: 12px 0 2px;
}
</style>
