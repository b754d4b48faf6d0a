<script setup lang="ts">
import { computed } from 'vue'
import type { Change, Point } from '@/api/types'
import { distance } from '@/document/geometry'
import { useDesign } from '@/document/store'
import { inUnits, length } from '@/document/units'
import type { Viewport } from './useViewport'

/** Gaps between walls that keep a room open: a press asks how to close one. */
const props = defineProps<{ floor: string; viewport: Viewport; active: boolean }>()
const store = useDesign()
const gaps = computed(() =>
  (store.shown?.plan?.gaps ?? []).flatMap((gap) => {
    const finding = store.findings.find((f) => f.id === `plan-gap-${gap.id}`)
    if (gap.floor !== props.floor || !finding) return []
    const [a, b] = [gap.start, gap.end].map((p) => props.viewport.toScreen(p)) as [Point, Point]
    const mid: Point = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2]
    return [{ gap, finding, a, b, mid, size: length(distance(gap.start, gap.end), 2) }]
  }),
)

function ask({ gap, finding }: (typeof gaps.value)[number]): void {
  store.questions = [{
    id: finding.id, floor: gap.floor, text: inUnits(finding.text),
    answers: finding.cures.map((c) => ({ label: inUnits(c.label), at: null, changes: c.changes as Change[] })),
  }]
}
</script>

<template>
  <g :class="{ active }">
    <g
      v-for="g in gaps" :key="g.gap.id" class="gap" role="button" :tabindex="active ? 0 : -1" :data-gap="g.gap.id"
      :aria-label="`Gap of ${g.size}`" @pointerdown.stop @click.stop="ask(g)" @keydown.enter.stop="ask(g)"
    >
      <line :x1="g.a[0]" :y1="g.a[1]" :x2="g.b[0]" :y2="g.b[1]" />
      <circle :cx="g.mid[0]" :cy="g.mid[1]" r="11" class="hit" />
      <path :d="`M${g.mid[0] - 5} ${g.mid[1]}h10`" class="sign" />
      <text :x="g.mid[0] + 15" :y="g.mid[1] + 4">{{ g.size }} open</text>
    </g>
  </g>
</template>

<style scoped>
g {
  pointer-events: none;
}
.active .gap {
  pointer-events: auto;
  cursor: pointer;
}
line {
  stroke: var(--gorse-ink);
  stroke-width: 2.5;
  stroke-dasharray: 4 3;
}
.hit {
  fill: var(--paper);
  stroke: var(--gorse-ink);
  stroke-width: 2;
}
.sign {
  stroke: var(--ink);
  stroke-width: 2;
  stroke-dasharray: 2.5 2.5;
}
text {
  font: 600 11px var(--condensed);
  fill: var(--ink);
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 4px;
}
</style>
