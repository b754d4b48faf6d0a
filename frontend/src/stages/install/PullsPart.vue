<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref } from 'vue'
import { api, taken } from '@/api/client'
import type { Step, Tick } from '@/api/types'
import type { Stand } from '@/answers/ticks'
import { useBeside } from '@/answers/useBeside'
import { useDesign } from '@/document/store'
import { inUnits, length } from '@/document/units'
import TickBox from './TickBox.vue'
import { useCautionsRead } from './useCautionsRead'

/** What is pulled at once, the farthest first: each cable as a line to scale that leaves the bundle where it parts from it, with the box it comes off. */
const props = defineProps<{ steps: readonly Step[]; stands: Map<string, Stand> }>()
const emit = defineEmits<{ say: [words: Omit<Tick, 'key' | 'at' | 'by'>] }>()
const store = useDesign()
const cautions = useCautionsRead()
const asks = ref<{ pull: number; text: string } | null>(null)
const { answer } = useBeside((project_id) => taken(api.GET('/api/projects/{project_id}/pulls', { params: { path: { project_id } } })))
const WIDE = 290
const ROW = 22
const byId = computed(() => new Map(props.steps.map((s) => [s.id, s])))
const settled = (id: string) => ['done', 'skipped'].includes(props.stands.get(id)?.state ?? 'open')
const pulls = computed(() => {
  const list = answer.value?.pulls ?? []
  const longest = Math.max(1, ...list.flatMap((p) => p.cables.map((c) => c.metres)))
  const px = (m: number) => (m / longest) * WIDE
  return list.map((pull) => {
    const steps = pull.steps.flatMap((id) => byId.value.get(id) ?? [])
    const many = (link: string) => pull.cables.filter((c) => c.link === link).length > 1
    return {
      pull,
      steps,
      open: steps.filter((s) => !settled(s.id)),
      hurt: [...new Set(steps.flatMap((s) => s.cautions))],
      waits: [...new Set(steps.flatMap((s) => s.waits).filter((w) => !settled(w)))],
      lines: pull.cables.map((c) => ({ ...c, key: `${c.link}/${c.cable}`, title: many(c.link) ? `${c.name}.${c.cable}` : c.name, together: px(Math.min(c.beside_m, c.metres)), whole: px(c.metres) })),
    }
  })
})
const left = computed(() => pulls.value.filter((p) => p.open.length).length)
const box = (c: { box: string; number: number; ahead: boolean }) => (c.box ? `${c.box.replace(/^Category /, 'Cat ').replace(/, (box|reel) of .*$/, ', $1')} ${c.number}${c.ahead ? ', cut ahead' : ''}` : 'by the metre')
const choose = (link: string) => {
  const device = link.replace(/^run-/, '')
  if (store.find('device', device)) store.selection = { kind: 'device', id: device }
}

/** Say of every cable of a pull that it is in; what waits for something else is said by itself. */
function done(row: (typeof pulls.value)[number]): void {
  const number = row.pull.number
  if (cautions.unread(row.hurt).length) asks.value = { pull: number, text: 'Read what can hurt here first.' }
  else if (row.waits.length) asks.value = { pull: number, text: `It waits for ${row.waits.map((w) => byId.value.get(w)?.title ?? w).join('; ')}.` }
  else {
    asks.value = null
    for (const step of row.open) emit('say', { step: step.id, state: 'done', reason: '', note: '', licensed_by: '', minutes: null, photo: null })
  }
}
</script>

<template>
  <div data-testid="pulls">
    <p v-if="!answer" class="quiet">Working it out.</p>
    <p v-else-if="!pulls.length" class="quiet">No cable is pulled on this job.</p>
    <template v-else>
      <p class="head"><b class="figure">{{ left }} of {{ pulls.length }}</b> pulls open<span class="quiet">the farthest first; have {{ answer.most_boxes }} {{ answer.most_boxes === 1 ? 'box' : 'boxes' }} on the floor</span></p>
      <article v-for="p in pulls" :key="p.pull.number" class="pull" :class="{ gone: !p.open.length }" :data-pull="p.pull.number">
        <TickBox :mark="p.open.length ? '' : '✓'" :tone="p.open.length ? 'open' : 'done'" :label="p.open.length ? `Pull ${p.pull.number} is in` : `Pull ${p.pull.number} was done`" :disabled="!p.open.length" @click="done(p)" />
        <div>
          <p class="what"><b>Pull {{ p.pull.number }}</b> from {{ p.pull.room_name }}: {{ p.lines.length }} {{ p.lines.length === 1 ? 'cable' : 'cables' }}, way of {{ length(p.pull.metres, 0) }}<template v-if="p.pull.boxes">, off {{ p.pull.boxes }} {{ p.pull.boxes === 1 ? 'box' : 'boxes' }}</template></p>
          <div v-for="(c, k) in p.lines" :key="c.key" class="cable" tabindex="0" @click="choose(c.link)" @keydown.enter="choose(c.link)">
            <span class="off">{{ box(c) }}</span>
            <svg :width="WIDE + 4" :height="ROW" role="img" :aria-label="`${c.title}: ${length(c.metres, 0)} to cut, ${length(c.beside_m, 0)} with the farthest`">
              <line x1="1" :x2="k ? c.together : c.whole" :y1="ROW / 2" :y2="ROW / 2" class="together" />
              <line v-if="k" :x1="c.together" :x2="c.whole" :y1="ROW / 2" :y2="ROW / 2" class="alone" />
              <circle :cx="Math.max(4, c.whole)" :cy="ROW / 2" r="3.5" />
            </svg>
            <span class="to"><b>{{ c.title }}</b> <span class="figure">{{ length(c.metres, 0) }}</span></span>
          </div>
          <div v-if="p.open.length && p.hurt.length" class="hurt" :class="{ unread: cautions.unread(p.hurt).length }">
            <ul aria-label="What can hurt here"><li v-for="c in p.hurt" :key="c">{{ inUnits(c) }}</li></ul>
            <Button v-if="cautions.unread(p.hurt).length" label="Read" size="small" outlined :aria-label="`Read what can hurt: pull ${p.pull.number}`" @click="cautions.read(p.hurt); asks = null" />
          </div>
          <p v-if="asks?.pull === p.pull.number" role="alert" class="asks">{{ asks.text }} <template v-if="!cautions.unread(p.hurt).length">Out of turn each cable is said by itself, under Work.</template></p>
        </div>
      </article>
    </template>
  </div>
</template>

<style scoped>
.head span {
  margin-left: 12px;
}
.pull {
  display: grid;
  grid-template-columns: 48px 1fr;
  border-top: 1px solid var(--granite-light);
  padding: 4px 0 6px;
}
.gone .what {
  color: var(--granite);
}
.what {
  margin: 10px 0 4px;
}
.cable {
  display: grid;
  grid-template-columns: 156px auto 1fr;
  gap: 8px;
  align-items: center;
  cursor: pointer;
}
.off {
  font: 400 12px/1.3 var(--condensed);
  color: var(--granite);
  text-align: right;
}
.together {
  stroke: var(--heather);
  stroke-width: 4;
}
.alone {
  stroke: var(--granite-mid);
  stroke-width: 2;
}
circle {
  fill: var(--ink);
}
.to {
  white-space: nowrap;
}
.hurt {
  display: flex;
  align-items: center;
  gap: 10px;
  margin: 4px 10px 0 0;
  padding: 2px 0 2px 10px;
  border-left: 3px solid var(--granite-mid);
}
.hurt.unread {
  border-left-color: var(--rust);
}
.hurt ul {
  flex: 1;
  margin: 0;
  padding: 0;
  list-style: none;
  font-size: 13px;
}
.asks {
  color: var(--rust);
  font-weight: 600;
}
</style>
