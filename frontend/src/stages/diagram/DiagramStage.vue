<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import Button from 'primevue/button'
import ToggleSwitch from 'primevue/toggleswitch'
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import Choices from '@/controls/Choices.vue'
import PrintButton from '@/controls/PrintButton.vue'
import StageFrame from '@/controls/StageFrame.vue'
import { laneColour } from '@/document/networks'
import { useDesign } from '@/document/store'
import DiagramBelow from './DiagramBelow.vue'
import DiagramCards from './DiagramCards.vue'
import DiagramLines from './DiagramLines.vue'
import { READINGS, useDiagram } from './useDiagram'
import { useOverlays } from './useOverlays'

/** The network from the line to the last device: derived, laid out by itself, in four readings. */
defineModel<string>('floor', { required: true })
const store = useDesign()
const { view, reading, when, opened, shut, cards, cardOf, chosen } = useDiagram()
const { live, said } = useOverlays()
const feet = computed(() => store.site?.units === 'imperial')
const WHENS = [{ value: 'planned', label: 'Planned' }, { value: 'today', label: 'Today' }]
const ground = useTemplateRef<HTMLElement>('ground')
const zoom = ref(0)
const size = computed(() => ({ wide: view.value?.picture.wide ?? 0, high: view.value?.picture.high ?? 0 }))
const MOST = 2
const coarse = useMediaQuery('(pointer: coarse)')
/** As small as can still be read, or met by a finger. */
const least = computed(() => (coarse.value ? 1.3 : 0.72))
/** As large as fits the width, where that can still be read. */
function fit(): void {
  const wide = ground.value?.clientWidth ?? 0
  zoom.value = size.value.wide && wide ? Math.min(Math.max(1.15, least.value), Math.max(least.value, (wide - 4) / size.value.wide)) : 1
}
const step = (by: number) => (zoom.value = Math.min(MOST, Math.max(least.value, zoom.value * by)))
watch(() => size.value.wide, async (wide) => {
  if (!wide || zoom.value) return
  await nextTick()
  fit()
}, { immediate: true })
/** What is chosen elsewhere comes into view. */
watch([chosen, cardOf], async ([id]) => {
  await nextTick()
  const card = id ? cardOf.value.get(id) : undefined
  if (card) ground.value?.querySelector(`[data-card="${CSS.escape(card.id)}"]`)?.scrollIntoView({ block: 'nearest', inline: 'nearest', behavior: 'smooth' })
})
const folded = computed(() => cards.value.some((c) => c.folded))
function unfold(): void {
  opened.value = [...new Set([...opened.value, ...cards.value.filter((c) => c.folded && c.id.startsWith('fold:')).map((c) => c.id)])]
  shut.value = []
}
function fold(): void {
  opened.value = []
  shut.value = []
}
interface Key { says: string; tone: string; width: number; colour?: string }
/** What the lines of the reading mean. */
const key = computed<Key[]>(() => {
  if (reading.value === 'networks') return (store.settings?.networks ?? []).map((n) => ({ says: n.name, tone: '', width: 3, colour: laneColour(n.tone) }))
  if (reading.value === 'power') return [{ says: 'feeds, the thicker the more watts', tone: 'watts', width: 4 }, { says: 'feeds nothing', tone: 'idle', width: 1 }]
  const air: Key = { says: 'over the air', tone: 'air', width: 1.6 }
  return reading.value === 'client' ? [{ says: 'on a wire', tone: '', width: 1.6 }, air] : [{ says: 'copper', tone: '', width: 1.9 }, { says: 'fibre', tone: 'fibre', width: 1.9 }, air, { says: 'not as it should be', tone: 'wrong', width: 1.9 }]
})
</script>

<template>
  <StageFrame>
    <template #bar>
      <Choices v-model="reading" :options="READINGS" aria-label="Reading" />
      <Choices v-model="when" :options="WHENS" aria-label="Planned or today" />
      <label class="tick"><ToggleSwitch v-model="live" aria-label="As the controller sees it" data-live /> live</label>
      <span class="gap" />
      <PrintButton kind="diagram_pdf" label="Print it" :arguments="{ readings: [reading], paper: feet ? 'Tabloid' : 'A3' }" />
      <Button icon="pi pi-search-minus" size="small" text aria-label="Smaller" @click="step(1 / 1.2)" />
      <Button icon="pi pi-arrows-h" size="small" text aria-label="Fit the width" @click="fit" />
      <Button icon="pi pi-search-plus" size="small" text aria-label="Larger" @click="step(1.2)" />
    </template>
    <div class="side">
      <p v-if="said" class="not_met said" role="status">{{ said }}</p>
      <p class="shape" data-shape><b>{{ view?.diagram.shape.says }}</b><span v-for="k in key" :key="k.says" class="key"><svg width="26" height="10" aria-hidden="true"><path d="M0 5H26" :class="k.tone" :stroke-width="k.width" :style="k.colour ? { stroke: k.colour } : undefined" /></svg>{{ k.says }}</span><span class="gap" /><Button v-if="folded" label="Unfold all" size="small" text data-unfold @click="unfold" /><Button v-if="opened.length || shut.length" label="Fold what is alike" size="small" text data-fold-alike @click="fold" /></p>
      <div ref="ground" class="sheet" tabindex="0" role="region" aria-label="The network drawn" data-testid="diagram">
        <div v-if="view" class="paper" :style="{ width: `${size.wide * zoom}px`, height: `${size.high * zoom}px` }">
          <div class="drawn" :style="{ width: `${size.wide}px`, height: `${size.high}px`, transform: `scale(${zoom})` }">
            <DiagramLines :wide="size.wide" :high="size.high" />
            <DiagramCards />
          </div>
        </div>
      </div>
      <DiagramBelow />
    </div>
  </StageFrame>
</template>

<style scoped>
.gap {
  flex: 1;
}
.tick {
  display: flex;
  align-items: center;
  gap: 6px;
  font-size: 12.5px;
}
.said {
  padding: 6px 14px 0;
}
.side {
  flex: 1;
  min-width: 0;
  display: flex;
  flex-direction: column;
}
.shape {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 14px;
  padding: 8px 14px 2px;
  font-size: 13px;
}
.key {
  display: inline-flex;
  align-items: center;
  gap: 5px;
  font: 400 11.5px var(--condensed);
  color: var(--granite);
}
.key path {
  stroke: var(--ink);
}
.key .fibre {
  stroke: var(--tarn);
}
.key .air {
  stroke-dasharray: 6 4;
}
.key .wrong {
  stroke: var(--rust);
}
.key .watts {
  stroke: var(--gorse);
}
.key .idle {
  stroke: var(--granite-mid);
}
.sheet {
  flex: 1;
  min-height: 0;
  overflow: auto;
}
.paper {
  position: relative;
}
.drawn {
  position: absolute;
  transform-origin: 0 0;
}
</style>
