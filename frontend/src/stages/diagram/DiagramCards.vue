<script setup lang="ts">
import { computed } from 'vue'
import type { DiagramCard } from '@/api/types'
import MarkShape from '@/sheet/MarkShape.vue'
import { inUnits } from '@/document/units'
import { useDiagram } from './useDiagram'
import { useOverlays } from './useOverlays'

/** Each thing of the network as a card, or several that are alike as one. */
const { view, reading, nodes, cards, chosen, path, dark, narrowest, choose, toggle } = useDiagram()
const { live, stands, passed, stopped } = useOverlays()
const grid = computed(() => view.value!.picture.grid)
const at = (c: DiagramCard) => ({ left: `${grid.value.margin + c.column * grid.value.column}px`, top: `${view.value!.picture.tops![c.row]}px`, width: `${grid.value.card_wide}px`, height: `${grid.value.card_high}px` })
const first = (c: DiagramCard) => nodes.value.get(c.nodes[0]!)
const tone = (c: DiagramCard) => {
  const n = first(c)
  return [n?.kind, n?.state, { wrong: c.nodes.some((k) => nodes.value.get(k)?.joint?.verdict === 'not_met'), narrow: c.nodes.some((k) => nodes.value.get(k)?.narrow), fold: c.id.startsWith('fold:'), chosen: c.id === chosen.value, binds: !!narrowest.value && c.nodes.includes(narrowest.value), path: c.nodes.some((k) => path.value.has(k)), dark: c.nodes.some((k) => dark.value.has(k)), passed: c.nodes.some((k) => passed.value.has(k)), stopped: !!stopped.value && c.nodes.includes(stopped.value) }]
}
/** How what is on a card stands: as the worst of it. */
const RANK = ['cut_off', 'held_elsewhere', 'offline', 'unseen', 'found', 'adopting', 'updating', 'scanning', 'online']
const light = (c: DiagramCard) => {
  const all = c.nodes.flatMap((k) => (stands.value.has(k) ? [stands.value.get(k)!] : []))
  if (!live.value || !all.length) return ''
  const worst = all.map((d) => d.stand ?? 'unseen').sort((a, b) => RANK.indexOf(a) - RANK.indexOf(b))[0]!
  const slow = all.some((d) => d.elsewhere || (d.link_mbps && d.planned_mbps && d.link_mbps < d.planned_mbps))
  return worst === 'online' && slow ? 'slow' : worst
}
const says = (c: DiagramCard) => inUnits(c.says?.[reading.value] ?? '')
</script>

<template>
  <div>
    <div v-for="c in cards" :key="c.id" class="card" :class="tone(c)" :style="at(c)" :data-card="c.id">
      <button class="plain face" :title="`${c.name}: ${says(c)}`" :aria-pressed="c.id === chosen" @click="choose(c)">
        <span v-if="light(c)" class="light" :class="light(c)" :title="light(c).replace('_', ' ')" :data-light="light(c)" />
        <svg v-if="first(c)?.mark" class="mark" viewBox="-12 -12 24 24" aria-hidden="true"><MarkShape :shape="first(c)!.mark!" /></svg>
        <span class="words"><b>{{ c.name }}<i v-if="narrowest && c.nodes.includes(narrowest)" class="narrowest"> narrowest</i></b><small>{{ says(c) }}</small></span>
      </button>
      <button v-if="c.folds" class="plain fold-mark" :aria-label="`${c.folded ? 'Unfold' : 'Fold'} ${c.name}`" :aria-expanded="!c.folded" @click="toggle(c)">{{ c.folded ? (c.behind ? `+${c.behind}` : '+') : '−' }}</button>
    </div>
  </div>
</template>

<style scoped>
.card {
  position: absolute;
  display: flex;
  border: 1px solid var(--granite-mid);
  border-left: 3px solid var(--granite);
  border-radius: 2px;
  background: var(--paper);
}
.face {
  flex: 1;
  min-width: 0;
  display: flex;
  align-items: center;
  gap: 5px;
  padding: 0 5px;
  text-align: left;
}
/* As large as a finger asks for by the zoom, not each by itself. */
.face,
.fold-mark {
  min-height: 0 !important;
}
.mark {
  flex: none;
  width: 18px;
  height: 18px;
}
.words {
  min-width: 0;
  display: grid;
}
.words b,
.words small {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.narrowest {
  font: 600 10.5px var(--condensed);
  color: var(--gorse-ink);
}
.binds {
  box-shadow: inset 0 3px 0 var(--gorse);
}
.words b {
  font: 600 12.5px/1.2 var(--condensed);
}
.words small {
  font: 400 11px/1.25 var(--condensed);
  color: var(--granite);
}
.fold-mark {
  flex: none;
  min-width: 36px;
  font: 600 11px var(--mono);
  color: var(--heather);
  border-left: 1px solid var(--granite-light);
}
.line,
.router,
.switch {
  border-left-color: var(--ink);
}
.switch .face b,
.router .face b {
  font-weight: 700;
}
.fold {
  box-shadow: 3px 3px 0 -1px var(--paper), 3px 3px 0 0 var(--granite-mid);
}
.keep {
  border-style: dashed;
  border-left-style: solid;
}
.wrong {
  border-color: var(--rust);
}
.wrong small {
  color: var(--rust);
}
.narrow {
  border-left-color: var(--gorse);
}
.loose {
  border-style: dotted;
}
.dark {
  background: color-mix(in srgb, var(--granite-mid) 34%, var(--paper));
}
.path {
  border-color: var(--heather);
}
.light {
  flex: none;
  width: 10px;
  height: 10px;
  border: 2px solid var(--granite-mid);
  border-radius: 50%;
}
.light.online {
  background: var(--moss-line);
  border-color: var(--moss-line);
}
.light.found,
.light.slow {
  background: var(--gorse);
  border-color: var(--gorse);
}
.light.adopting,
.light.updating,
.light.scanning {
  border-color: var(--tarn);
}
.light.offline,
.light.cut_off,
.light.held_elsewhere {
  border-color: var(--rust);
  border-radius: 2px;
}
.passed {
  border-color: var(--moss-line);
  box-shadow: inset 0 -3px 0 var(--moss-line);
}
.stopped {
  border-color: var(--rust);
  box-shadow: inset 0 -3px 0 var(--rust);
}
.chosen {
  background: var(--heather-wash);
  outline: 2px solid var(--heather);
}
</style>
