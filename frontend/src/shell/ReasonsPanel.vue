<script setup lang="ts">
import { computed, ref } from 'vue'
import Choices from '@/controls/Choices.vue'
import type { Finding, Kind } from '@/api/types'
import { useDesign } from '@/document/store'
import { inUnits } from '@/document/units'
import { stageOf, type Stage } from '@/stages/registry'
import Inspector from '@/stages/inspect/Inspector.vue'
import PicksPanel from '@/stages/inspect/PicksPanel.vue'
import FindingCard from '@/controls/FindingCard.vue'

const props = defineProps<{ stage: Stage; floor: string }>()
const emit = defineEmits<{ showFloor: [id: string] }>()
const store = useDesign()
const tab = ref<'reasons' | 'list'>('reasons')
const TABS = [
  { value: 'reasons', label: 'Reasons' },
  { value: 'list', label: 'List' },
]
/** Upright on a tablet the panel lies folded under the sheet, with its worst finding in one line. */
const folded = ref(true)
const info = computed(() => stageOf(props.stage))
const hasList = computed(() => !!info.value.list)

const chosen = computed(() => {
  const selection = store.selection
  const fits = info.value.selects
  return !selection || !fits || fits.includes(selection.kind) ? selection : null
})
const ofStage = computed<Finding[]>(() => {
  const all = store.findings
  return info.value.overview ? all : all.filter((f) => f.stage === props.stage)
})
const isAbout = (finding: Finding) => finding.places.some((p) => p.id === chosen.value?.id)
const about = computed(() => (chosen.value ? store.findings.filter(isAbout) : []))
const others = computed(() => ofStage.value.filter((f) => !about.value.includes(f)))
const heading = computed(() => {
  const where = info.value.overview ? 'on all stages' : 'at this stage'
  const word = chosen.value ? 'others' : 'findings'
  const count = others.value.length
  if (!count) return chosen.value ? '' : `Nothing open ${where}`
  return `${count} ${count === 1 ? word.slice(0, -1) : word} ${where}`
})

const worst = computed(() => about.value[0] ?? others.value[0])
const chosenName = computed(() => {
  const element = chosen.value && store.find(chosen.value.kind, chosen.value.id)
  return element && 'name' in element ? element.name : ''
})

function show(finding: Finding): void {
  const place = finding.places[0]
  if (!place) return
  const kind = place.kind as Kind
  const element = store.find(kind, place.id)
  if (!element) return
  if ('floor' in element) emit('showFloor', element.floor)
  store.selection = { kind, id: place.id }
}
</script>

<template>
  <aside class="side" aria-label="Reasons" :class="{ folded }">
    <button class="plain fold" :aria-expanded="!folded" aria-controls="reasons" data-testid="fold" @click="folded = !folded">
      <i :class="folded ? 'pi pi-chevron-up' : 'pi pi-chevron-down'" />
      <b>{{ chosenName || heading || 'Reasons' }}</b>
      <span v-if="worst" class="quiet first">{{ inUnits(worst.text) }}</span>
    </button>
    <div v-if="hasList" class="tabs">
      <Choices v-model="tab" :options="TABS" aria-label="Reasons or list" />
    </div>
    <div id="reasons" class="scroll" tabindex="0" role="region" aria-label="Reasons and what is selected">
      <component :is="info.list" v-if="tab === 'list' && hasList" :floor="floor" />
      <template v-else>
        <PicksPanel v-if="store.picks.length && stage === 'plan'" :floor="floor" />
        <Inspector v-if="chosen" :selection="chosen" :stage="stage" />
        <template v-if="chosen">
          <h2 class="heading">{{ about.length ? 'What is found about it' : 'Nothing is found about it' }}</h2>
          <FindingCard v-for="finding in about" :key="finding.id" :finding="finding" @show="show(finding)" />
        </template>
        <h2 v-if="heading" class="heading">{{ heading }}</h2>
        <p v-if="!store.shown" class="quiet pad">Working it out.</p>
        <FindingCard v-for="finding in others" :key="finding.id" :finding="finding" @show="show(finding)" />
      </template>
    </div>
  </aside>
</template>

<style scoped>
.side {
  grid-area: side;
  border-left: 1px solid var(--granite-mid);
  display: flex;
  flex-direction: column;
  min-height: 0;
}
.fold {
  display: none;
}
@media (max-width: 1000px) {
  .side {
    border-left: none;
    border-top: 1px solid var(--granite-mid);
    height: 40dvh;
  }
  .side.folded {
    height: auto;
  }
  .side.folded > :not(.fold) {
    display: none;
  }
  .fold {
    display: flex;
    align-items: center;
    gap: 10px;
    min-height: 44px;
    padding: 0 14px;
    border-bottom: 1px solid var(--granite-light);
  }
  .fold b {
    white-space: nowrap;
    font-weight: 600;
  }
  .first {
    flex: 1;
    min-width: 0;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
}
.tabs {
  padding: 6px 10px;
  border-bottom: 1px solid var(--granite-light);
}
.scroll {
  overflow: auto;
  flex: 1;
  min-height: 0;
}
.heading {
  padding: 10px 12px 4px;
}
.pad {
  padding: 0 12px;
}
</style>
