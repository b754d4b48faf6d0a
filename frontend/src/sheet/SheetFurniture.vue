<script setup lang="ts">
import { useResizeObserver } from '@vueuse/core'
import { computed, ref, useTemplateRef } from 'vue'
import type { Opening, Relief, Wall } from '@/api/types'
import { useDesign } from '@/document/store'
import { imperial } from '@/document/units'
import MarkShape from './MarkShape.vue'
import type { Box } from './boxes'
import type { SheetMode } from './mode'
import StateBadge from './StateBadge.vue'
import { dashOf, penFor, penOf } from './pens'
import { SAID, tintOf, tintsSaid } from './reliefs'
import type { Viewport } from './useViewport'

const props = defineProps<{
  viewport: Viewport
  mode: SheetMode
  walls: Wall[]
  openings: Opening[]
  kinds: string[]
  relief?: Relief | null
  /** What a difference is from, or of. */
  against?: string
}>()
const emit = defineEmits<{ fit: []; boxes: [boxes: Box[]] }>()
const store = useDesign()
const open = ref(true)
const AIR_PX = 6
const fibres = computed(() => [...(store.shown?.cable.runs ?? []), ...(store.shown?.cable.uplinks ?? [])].some((k) => k.medium === 'fibre'))

const pieces = [useTemplateRef<HTMLElement>('legend'), useTemplateRef<HTMLElement>('bar')]
function measure(): void {
  const boxes = pieces.flatMap(({ value: el }) =>
    el ? [{ left: el.offsetLeft - AIR_PX, top: el.offsetTop - AIR_PX, right: el.offsetLeft + el.offsetWidth + AIR_PX, bottom: el.offsetTop + el.offsetHeight + AIR_PX }] : [],
  )
  emit('boxes', boxes)
}
useResizeObserver(pieces, measure)
useResizeObserver(() => pieces[0]!.value?.parentElement, measure)

const FEET = 0.3048
const length = computed(() => {
  const unit = imperial.value ? FEET : 1
  const size = [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000].find((n) => n * unit * props.viewport.scale.value > 70) ?? 2000
  return { px: size * unit * props.viewport.scale.value, text: `${size} ${imperial.value ? 'ft' : 'm'}` }
})
const labelOf = (id: string) => store.catalogue?.constructions[id]?.label ?? id
const wallKinds = computed(() => [...new Set(props.walls.map((w) => w.construction))].sort())

const RANKS = ['primary', 'secondary', 'third']
/** What is drawn, in words: which access point, which band, which way. */
const drawn = computed(() => {
  const r = props.relief
  if (!r) return ''
  const whose = r.show === 'heard' || r.show === 'serves' ? '' : `${RANKS[r.rank - 1]} access point, `
  const way = r.direction === 'weaker' ? 'weaker of both ways' : r.direction
  const from = r.show === 'difference' && props.against ? ` ${props.against}` : ''
  return `${SAID[r.show]}${from}: ${whose}${r.band} GHz, ${way}`
})
const tints = computed(() => (props.relief ? tintsSaid(props.relief) : []))
/** The marks that are on this floor: a legend of what is not there only takes room. */
const marks = computed(() => {
  const kinds = new Set(props.kinds)
  const roles = Object.values(store.catalogue?.roles ?? {}).filter((r) => kinds.has(r.kind))
  const mains = ([['panel', 'sluice', 'Panel'], ['socket', 'spring', 'Socket'], ['light', 'lamp', 'Light']] as const)
    .filter(([kind]) => store.all(kind).length).map(([, mark, name]) => [mark, name] as const)
  return [...roles.map((r) => [r.mark, r.name] as const), ['hut', 'Rack'] as const, ['well', 'Riser'] as const, ...mains]
})
/** Whether anything that films stands on this storey. */
const films = computed(() => props.kinds.some((k) => Object.values(store.catalogue?.devices[k] ?? {}).some((m) => m.view)))
const STATES = [['met', 'tested or measured, as planned'], ['near', 'look again'], ['not_met', 'not right'], ['unknown', 'not looked at yet']] as const
const CATEGORIES = ['5e', '6', '6A']
</script>

<template>
  <aside ref="legend" class="legend" :class="{ closed: !open }">
    <button class="plain head" :aria-expanded="open" @click="open = !open">
      Legend <i :class="open ? 'pi pi-chevron-down' : 'pi pi-chevron-up'" />
    </button>
    <div v-if="open" class="body" :class="{ pair: mode === 'plan' }">
      <template v-if="mode === 'signal'">
        <p v-for="(text, i) in tints" :key="i" class="row">
          <span class="swatch" :style="{ background: tintOf(relief!, i) }" /> <span class="figure">{{ text }}</span>
        </p>
        <p v-if="relief?.shortfalls.length" class="row"><span class="swatch hatch" /> short of the room's use</p>
        <p class="row quiet drawn" data-testid="drawn">{{ drawn }}</p>
      </template>
      <template v-else-if="mode === 'cable'">
        <p v-for="category in CATEGORIES" :key="category" class="row">
          <svg width="34" height="8"><path d="M0 4H34" stroke="var(--ink)" stroke-width="1.8" :stroke-dasharray="dashOf(category)" /></svg>
          category {{ category }}
        </p>
        <p class="row"><svg width="34" height="10"><path d="M0 5H34" stroke="var(--granite)" stroke-width="6" opacity="0.55" /><text x="17" y="9" text-anchor="middle" style="font: 600 10px var(--mono)" fill="var(--ink)">7</text></svg> side by side, their number</p>
        <p class="row"><svg width="34" height="8"><path d="M0 4H34" stroke="var(--ink)" stroke-width="3" /></svg> heavier: duct, attic, joists</p>
        <p v-if="fibres" class="row"><svg width="34" height="8"><path d="M0 4H34" stroke="var(--tarn)" :stroke-width="penOf('fibre').weight_px" :stroke-dasharray="dashOf('fibre')" stroke-linecap="round" /></svg> fibre</p>
        <template v-if="store.all('equipment_room').length > 1">
          <p class="row"><svg width="34" height="8"><path d="M0 4H34" stroke="var(--ink)" :stroke-width="penOf('between').weight_px" :stroke-dasharray="dashOf('between')" /></svg> copper between racks</p>
        </template>
        <p class="row"><svg width="34" height="8"><path d="M0 4H34" stroke="var(--rust)" stroke-width="2" stroke-dasharray="9 4" /></svg> will not do</p>
        <p class="row"><svg width="34" height="8"><path d="M0 4H34" stroke="var(--gorse-ink)" stroke-width="2" stroke-dasharray="9 4" /></svg> near its limit</p>
      </template>
      <template v-else-if="mode === 'handover'">
        <p v-for="[state, text] in STATES" :key="state" class="row"><svg width="34" height="18" viewBox="-17 -9 34 18" :class="state"><StateBadge :state="state" /></svg> {{ text }}</p>
        <p class="row"><svg width="34" height="14" viewBox="-17 -7 34 14"><path d="M-6 0h12M0 -6v12" class="was" /></svg> where it was agreed</p>
      </template>
      <template v-else-if="mode === 'brief'">
        <p class="row"><svg width="34" height="22" viewBox="-17 -12 34 22"><path d="M0 -8L8 0L0 8L-8 0Z" fill="none" stroke="var(--rust)" stroke-width="2" /></svg> complaint; ticked when the plan mends it</p>
        <p class="row"><svg width="34" height="14" viewBox="-17 -7 34 14"><path d="M-13 0H3M-2 -5L4 0L-2 5M7 -7V7" fill="none" stroke="var(--tarn)" stroke-width="2.2" /></svg> the line comes in</p>
        <p class="row"><svg width="34" height="8"><path d="M0 4H34" stroke="var(--granite)" stroke-width="2.5" stroke-dasharray="10 3 2 3" /></svg> cable that is there</p>
        <p class="row"><svg width="34" height="12"><rect x="1" y="1" width="32" height="10" fill="none" stroke="var(--tarn)" stroke-dasharray="5 3" /></svg> comes later</p>
      </template>
      <template v-else>
        <p v-for="kind in wallKinds" :key="kind" class="row">
          <svg width="34" height="10">
            <path d="M0 5H34" :stroke="penFor(kind).tone" :stroke-width="penFor(kind).width * 22" :stroke-dasharray="penFor(kind).dash ? '9 3' : undefined" />
            <path v-if="penFor(kind).double" d="M0 5H34" stroke="var(--paper)" :stroke-width="penFor(kind).width * 9" />
          </svg>
          {{ labelOf(kind) }}
        </p>
        <p v-if="walls.some((w) => w.rated)" class="row"><svg width="34" height="10"><path d="M0 5H34" stroke="var(--granite)" stroke-width="5" /><path d="M0 5H34" stroke="var(--rust)" stroke-width="2" stroke-dasharray="7 4" /></svg> Keeps fire back</p>
        <p v-for="[shape, text] in marks" :key="shape" class="row">
          <svg width="34" height="20" viewBox="-17 -11 34 20"><g transform="scale(0.8)"><MarkShape :shape="shape" /></g></svg> {{ text }}
        </p>
        <p class="row"><svg width="34" height="8"><path d="M4 4H30" stroke="var(--granite)" stroke-width="4" stroke-dasharray="1 5" /></svg> Duct</p>
        <template v-if="films">
          <p class="row"><svg width="34" height="12"><rect x="1" y="1" width="32" height="10" fill="var(--tarn)" fill-opacity="0.16" stroke="var(--tarn)" stroke-opacity="0.5" /></svg> A camera recognises here</p>
        </template>
        <template v-if="store.all('panel').length + store.all('socket').length + store.all('mains_route').length">
          <p class="row"><svg width="34" height="12"><rect x="7" y="1" width="20" height="10" fill="url(#kept-clear)" stroke="var(--rust)" stroke-dasharray="3 2" /></svg> Kept clear</p>
          <p class="row"><svg width="34" height="8"><path d="M0 4H34" stroke="var(--gorse-ink)" stroke-width="1.8" stroke-dasharray="7 2 2 2" /></svg> Mains</p>
          <p class="row"><svg width="34" height="8"><path d="M0 4H34" stroke="var(--gorse-ink)" stroke-width="1.4" stroke-dasharray="1 4" /></svg> Mains, a guess</p>
        </template>
      </template>
    </div>
  </aside>
  <div class="compass" aria-hidden="true">
    <svg width="22" height="34" viewBox="0 0 22 34">
      <path d="M11 2L16 22L11 18L6 22Z" fill="var(--ink)" />
      <text x="11" y="33" text-anchor="middle">N</text>
    </svg>
  </div>
  <div ref="bar" class="bar">
    <svg :width="length.px + 2" height="8"><path :d="`M1 1V7H${length.px + 1}V1`" fill="none" stroke="var(--ink)" stroke-width="1.4" /></svg>
    <span class="figure">{{ length.text }}</span>
    <button class="plain fit" aria-label="Show the whole floor" title="Show the whole floor" @click="emit('fit')">
      <i class="pi pi-expand" />
    </button>
    <button class="plain fit" aria-label="Nearer" @click="viewport.zoomAt(viewport.width.value / 2, viewport.height.value / 2, 1.25)"><i class="pi pi-plus" /></button>
    <button class="plain fit" aria-label="Farther" @click="viewport.zoomAt(viewport.width.value / 2, viewport.height.value / 2, 0.8)"><i class="pi pi-minus" /></button>
  </div>
</template>

<style scoped>
.legend {
  position: absolute;
  left: 8px;
  bottom: 8px;
  background: color-mix(in srgb, var(--paper) 94%, transparent);
  border: 1px solid var(--granite-mid);
  border-radius: 3px;
  font: 400 12px/1.25 var(--condensed);
  min-width: 120px;
}
.head {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  align-items: center;
  width: 100%;
  padding: 4px 8px;
  font: 600 12px var(--condensed);
}
.head i {
  font-size: 10px;
}
.body {
  padding: 0 8px 6px;
}
.pair {
  columns: 2;
  column-gap: 14px;
}
.pair .row {
  break-inside: avoid;
}
.row {
  display: flex;
  align-items: center;
  gap: 6px;
  min-height: 18px;
}
.drawn {
  max-width: 150px;
}
.was {
  fill: none;
  stroke: var(--heather);
  stroke-width: 1.5;
}
.swatch {
  width: 22px;
  height: 12px;
  border: 1px solid var(--granite-mid);
}
.swatch.hatch {
  background: repeating-linear-gradient(135deg, var(--rust) 0 1.5px, var(--tint-1) 1.5px 5px);
}
.compass {
  position: absolute;
  right: 12px;
  top: 10px;
  pointer-events: none;
}
.compass text {
  font: 600 11px var(--condensed);
  fill: var(--ink);
}
.bar {
  position: absolute;
  right: 8px;
  bottom: 8px;
  display: flex;
  align-items: center;
  gap: 6px;
  background: color-mix(in srgb, var(--paper) 94%, transparent);
  border: 1px solid var(--granite-mid);
  border-radius: 3px;
  padding: 3px 8px;
  font-size: 12px;
}
.fit {
  padding: 3px 4px;
}
.fit i {
  font-size: 12px;
}
</style>
