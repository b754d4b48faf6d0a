<script setup lang="ts">
import { computed } from 'vue'
import { api, taken } from '@/api/client'
import { useBeside } from '@/answers/useBeside'
import { useDesign } from '@/document/store'
import { length } from '@/document/units'

/** Each box and reel as a bar to scale: what is cut from it, the longest first, and what is left. */
const store = useDesign()
const { answer } = useBeside((project_id) => taken(api.GET('/api/projects/{project_id}/cutting', { params: { path: { project_id } } })))
const WIDE = 620
const HIGH = 26
const NAMED_PX = 38
const groups = computed(() => {
  const boxes = answer.value?.boxes ?? []
  const cables = new Map<string, number>()
  for (const p of boxes.flatMap((b) => b.pieces)) cables.set(p.link, Math.max(p.cable, cables.get(p.link) ?? 0))
  const longest = Math.max(1, ...boxes.map((b) => b.holds_m))
  return [...new Set(boxes.map((b) => b.item))].map((item) => {
    const rows = boxes.filter((b) => b.item === item)
    return {
      item,
      label: rows[0]!.label,
      rows: rows.map((box) => {
        const px = (m: number) => (m / longest) * WIDE
        let x = 0
        const cuts = box.pieces.map((p) => {
          const cut = { ...p, key: `${p.link}/${p.cable}`, x, wide: px(p.metres), many: (cables.get(p.link) ?? 0) > 1 }
          x += cut.wide
          return cut
        })
        return { box, cuts, used: x, whole: px(box.holds_m) }
      }),
    }
  })
})
const title = (p: { name: string; cable: number; metres: number }) => `${p.name}, cable ${p.cable}: ${length(p.metres, 0)}`
const choose = (link: string) => {
  const device = link.replace(/^run-/, '')
  if (store.find('device', device)) store.selection = { kind: 'device', id: device }
}
</script>

<template>
  <section data-testid="cutting">
    <p v-if="!answer" class="quiet">Working it out.</p>
    <template v-else>
      <p class="quiet">
        Cut in this order, the longest first; no run is joined.
        {{ answer.proven ? 'Fewer boxes are not possible, and no other way to cut leaves a longer rest.' : 'Not all of it is proven the best.' }}
        <template v-if="answer.too_long.length"> Nothing holds a cable whole for {{ answer.too_long.join(', ') }}.</template>
      </p>
      <div v-for="g in groups" :key="g.item" class="group" :data-cut-item="g.item">
        <h2>{{ g.label }}</h2>
        <div v-for="r in g.rows" :key="r.box.number" class="row">
          <span class="number">{{ r.box.number }}</span>
          <svg :width="WIDE + 2" :height="HIGH + 2" role="img" :aria-label="`Box ${r.box.number}: ${r.cuts.map(title).join('; ')}; ${length(r.box.rest_m, 0)} left`">
            <rect x="1" y="1" :width="r.whole" :height="HIGH" class="box" />
            <g v-for="c in r.cuts" :key="c.key" class="cut" :class="{ chosen: store.selection?.id === c.link.replace(/^run-/, '') }" @click="choose(c.link)">
              <title>{{ title(c) }}</title>
              <rect :x="c.x + 1" y="1" :width="c.wide" :height="HIGH" />
              <text v-if="c.wide > NAMED_PX" :x="c.x + 5" :y="HIGH / 2 + 5">{{ c.name.slice(0, Math.floor((c.wide - 6) / 6.4)) }}{{ c.many && c.wide > NAMED_PX + 24 ? `.${c.cable}` : '' }}</text>
            </g>
          </svg>
          <span class="rest figure">{{ length(r.box.rest_m, 0) }} left</span>
        </div>
      </div>
      <p v-if="!groups.length" class="quiet">Nothing is cut from boxes.</p>
    </template>
  </section>
</template>

<style scoped>
.group h2 {
  margin: 14px 0 6px;
}
.row {
  display: flex;
  align-items: center;
  gap: 8px;
  margin-bottom: 5px;
}
.row .number {
  width: 22px;
  text-align: right;
  color: var(--granite);
}
.box {
  fill: none;
  stroke: var(--granite-mid);
}
.cut {
  cursor: pointer;
}
.cut rect {
  fill: var(--granite-light);
  stroke: var(--paper);
  stroke-width: 1.5;
}
.cut:hover rect,
.cut.chosen rect {
  fill: var(--heather-wash);
}
.cut text {
  font: 600 11px var(--condensed);
  fill: var(--ink);
  pointer-events: none;
}
.rest {
  white-space: nowrap;
}
</style>
