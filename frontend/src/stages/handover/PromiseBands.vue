<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, useTemplateRef } from 'vue'
import type { HandoverView } from '@/api/types'

/** A band for each promise: how much of it was measured to hold, what was heard by ear, what does not, what nobody looked at. */
const props = defineProps<{ promises: HandoverView['now']['promises'] }>()
const frame = useTemplateRef<HTMLElement>('frame')
const { width } = useElementSize(frame)
const NAMES_PX = 128
const HIGH_PX = 58
const WORD = { met: 'as promised', near: 'in part', not_met: 'not as promised', heard: 'heard, not measured', unknown: 'not measured' } as const
const room = computed(() => Math.max(40, width.value - NAMES_PX - 2))
const bands = computed(() =>
  props.promises.map((p) => {
    const all = Math.max(1, p.met + p.heard + p.near + p.not_met + p.unknown)
    let x = NAMES_PX
    const parts = (['met', 'heard', 'near', 'not_met', 'unknown'] as const).map((tone) => {
      const wide = (p[tone] / all) * room.value
      const part = { tone, x, wide, count: p[tone] }
      x += wide
      return part
    })
    return { ...p, parts: parts.filter((s) => s.wide > 0) }
  }),
)
const ROOM_FOR_COUNT_PX = 22
</script>

<template>
  <div ref="frame" class="bands">
    <svg :width="width" :height="bands.length * HIGH_PX" role="img" :aria-label="bands.map((b) => `${b.what}: promised ${b.promised}, measured ${b.measured}`).join('. ')">
      <defs>
        <pattern id="unseen" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)"><path d="M0 0V6" /></pattern>
        <pattern id="heard" width="5" height="5" patternUnits="userSpaceOnUse"><circle cx="2.5" cy="2.5" r="1.1" class="by-ear" /></pattern>
        <pattern id="short" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)"><path d="M0 0V5" class="bad" /></pattern>
      </defs>
      <g v-for="(b, i) in bands" :key="b.what" :transform="`translate(0 ${i * HIGH_PX})`" :data-promise="b.what">
        <text y="16" class="what">{{ b.what }}</text>
        <text y="32" class="word" :class="b.verdict">{{ WORD[b.verdict] }}</text>
        <g v-for="s in b.parts" :key="s.tone">
          <rect :x="s.x" y="4" :width="s.wide" height="16" :class="s.tone" />
          <text v-if="s.wide > ROOM_FOR_COUNT_PX" :x="s.x + s.wide / 2" y="16.5" text-anchor="middle" class="count">{{ s.count }}</text>
        </g>
        <text :x="NAMES_PX" y="33" class="said">promised: {{ b.promised }}</text>
        <text :x="NAMES_PX" y="47" class="said measured">{{ b.measured }}</text>
      </g>
    </svg>
    <ul class="key quiet">
      <li><svg width="20" height="12"><rect width="20" height="12" class="met" /></svg> measured, as promised</li>
      <li><svg width="20" height="12"><rect width="20" height="12" class="heard" /></svg> heard or seen, not measured</li>
      <li><svg width="20" height="12"><rect width="20" height="12" class="near" /></svg> in part</li>
      <li><svg width="20" height="12"><rect width="20" height="12" class="not_met" /></svg> not as promised</li>
      <li><svg width="20" height="12"><rect width="20" height="12" class="unknown" /></svg> not looked at</li>
    </ul>
  </div>
</template>

<style scoped>
svg {
  display: block;
}
rect {
  stroke: var(--ink);
  stroke-width: 1;
}
rect.met {
  fill: var(--tint-5);
}
rect.heard {
  fill: url('#heard');
}
pattern .by-ear {
  fill: var(--moss);
}
rect.near {
  fill: var(--gorse);
}
rect.not_met {
  fill: url('#short');
}
rect.unknown {
  fill: url('#unseen');
}
pattern path {
  stroke: var(--granite-mid);
  stroke-width: 2;
}
pattern .bad {
  stroke: var(--rust);
  stroke-width: 3;
}
.key {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 16px;
  list-style: none;
  margin: 2px 0 0;
  padding: 0;
  font: 400 12px var(--condensed);
}
.key li {
  display: flex;
  align-items: center;
  gap: 6px;
}
.what {
  font: 600 13px var(--sans);
  fill: var(--ink);
}
.word {
  font: 600 12px var(--condensed);
  fill: var(--granite);
}
.word.met {
  fill: var(--moss);
}
.word.near {
  fill: var(--gorse-ink);
}
.word.not_met {
  fill: var(--rust);
}
.count {
  font: 600 11px var(--mono);
  fill: var(--ink);
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 4px;
}
.said {
  font: 400 12px var(--condensed);
  fill: var(--granite);
}
.measured {
  fill: var(--ink);
}
</style>
