<script setup lang="ts">
import { computed } from 'vue'
import { useDesign } from '@/document/store'
import { length } from '@/document/units'

/** From the side: how high a camera looks from, where its picture meets the ground, who is told from whom at what distance, which doors it holds. */
const props = defineProps<{ device: string }>()
const store = useDesign()
const view = computed(() => store.shown?.plan.views?.find((v) => v.device === props.device))
const WIDE = 292
const HIGH = 96
const PERSON_M = 1.7
const WORDS = { identify: 'Identify a stranger', recognise: 'Recognise who is known', observe: 'Observe what is done', detect: 'Detect that somebody is there' } as const
const drawn = computed(() => {
  const v = view.value
  if (!v) return null
  const reach = (level: string) => v.zones.find((z) => z.level === level)?.reach_m ?? 0
  const far = Math.max(4, Math.min(Math.max(reach('recognise') * 1.15, (v.blind_m ?? 0) * 1.3), 45))
  const x = (m: number) => 10 + (m / far) * (WIDE - 20)
  const top = Math.max(v.height_m, PERSON_M) * 1.25
  const y = (m: number) => HIGH - 16 - (m / top) * (HIGH - 26)
  const at = (down_deg: number) => {
    const down = Math.tan((Math.max(-89, Math.min(89, down_deg)) * Math.PI) / 180)
    if (down > 0 && v.height_m / down <= far) return [x(v.height_m / down), y(0)]
    return [x(far), y(v.height_m - down * far)]
  }
  const low = at(v.tilt_deg + v.up_deg / 2)
  const high = at(v.tilt_deg - v.up_deg / 2)
  const beyond = low[0]! < x(far) && high[0]! >= x(far) ? `L${x(far)} ${y(0)}` : ''
  const people = (['identify', 'recognise'] as const).filter((l) => reach(l) < far).map((level) => ({ level, x: x(reach(level)), m: reach(level) }))
  return { eye: [x(0), y(v.height_m)], beam: `M${x(0)} ${y(v.height_m)}L${low}${beyond}L${high}Z`, blind: v.blind_m !== null && v.blind_m !== undefined ? x(Math.min(v.blind_m, far)) : x(far), people, y, x, far }
})
const SHORT = { identify: 'identified', recognise: 'recognised', observe: 'observed', detect: 'detected' } as const
</script>

<template>
  <section v-if="view && drawn" class="sight" data-testid="sight" aria-label="What it sees">
    <svg :width="WIDE" :height="HIGH" role="img" :aria-label="`From the side: ${length(view.height_m)} high, tilted ${view.tilt_deg} degrees; ${view.blind_m === null ? 'no ground' : `ground from ${length(view.blind_m!)}`} is seen`">
      <path :d="drawn.beam" class="beam" />
      <path :d="`M${drawn.x(0)} ${drawn.y(0)}H${drawn.blind}`" class="blind" />
      <path :d="`M${drawn.x(0)} ${drawn.y(0)}V${drawn.eye[1]}`" class="post" />
      <path :d="`M4 ${drawn.y(0)}H${WIDE - 4}`" class="ground" />
      <g v-for="p in drawn.people" :key="p.level" class="person">
        <circle :cx="p.x" :cy="drawn.y(PERSON_M - 0.15)" r="3" /><path :d="`M${p.x} ${drawn.y(PERSON_M - 0.4)}V${drawn.y(0)}`" />
        <text :x="p.x" :y="HIGH - 3" text-anchor="middle">{{ p.level }} {{ length(p.m) }}</text>
      </g>
      <circle :cx="drawn.eye[0]" :cy="drawn.eye[1]" r="4" class="eye" />
    </svg>
    <dl class="figures">
      <template v-for="z in view.zones" :key="z.level"><dt>{{ WORDS[z.level] }}</dt><dd class="figure">to {{ length(z.reach_m) }}</dd></template>
      <dt>Ground seen</dt><dd class="figure" data-figure="blind">{{ view.blind_m === null ? 'none' : `from ${length(view.blind_m!)}` }}</dd>
      <template v-if="view.far_m !== null"><dt>Faces in the picture</dt><dd class="figure">to {{ length(view.far_m!) }}</dd></template>
    </dl>
    <ul v-if="view.doors?.length" aria-label="Doors it looks to">
      <li v-for="d in view.doors" :key="d.opening" :class="{ near: !d.ground }">
        <b>{{ d.name[0]!.toUpperCase() + d.name.slice(1) }}</b> <span class="figure">{{ length(d.away_m) }}, {{ d.px_m.toFixed(0) }} px/m</span>
        <span class="quiet">{{ !d.ground && !d.face ? 'not in the picture' : `${d.level ? SHORT[d.level] : 'too far to tell'}, ${d.ground && d.face ? 'from head to foot' : d.face ? 'face only, no ground' : 'ground only, no face'}` }}</span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.sight {
  margin: 4px 0 8px;
}
.sight svg {
  max-width: 100%;
}
.beam {
  fill: var(--tarn);
  fill-opacity: 0.16;
}
.ground {
  stroke: var(--ink);
  stroke-width: 1.4;
}
.blind {
  stroke: var(--rust);
  stroke-width: 5;
  stroke-dasharray: 3 2;
}
.post {
  stroke: var(--granite-mid);
  stroke-width: 2;
}
.eye {
  fill: var(--tarn);
}
.person circle {
  fill: var(--ink);
}
.person path {
  stroke: var(--ink);
  stroke-width: 2;
}
.person text {
  font: 600 11px var(--condensed);
  fill: var(--ink);
}
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 0 8px;
  border-top: 1px solid var(--granite-light);
  padding: 2px 0;
}
li span.quiet {
  grid-column: 1 / -1;
}
</style>
