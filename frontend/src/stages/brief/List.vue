<script setup lang="ts">
import { computed } from 'vue'
import type { Kind } from '@/api/types'
import { useDesign } from '@/document/store'

/** What the sheet of the brief shows, as a list. */
const props = defineProps<{ floor: string }>()
const store = useDesign()
const OUTCOME: Record<string, [string, string]> = { mended: ['met', 'mended'], better: ['near', 'better'], not_addressed: ['not_met', 'not addressed'] }
interface Row { kind: Kind; id: string; name: string; what: string; tone: string }
const rows = computed<Row[]>(() => {
  const brief = store.shown?.brief
  if (!brief) return []
  const zones = store.all('zone').filter((z) => z.floor === props.floor)
  return [
    ...brief.pains.filter((p) => p.floor === props.floor).map((p): Row => ({ kind: 'pain', id: p.pain, name: p.name, what: OUTCOME[p.outcome]![1], tone: OUTCOME[p.outcome]![0] })),
    ...brief.wishes.filter((w) => w.floor === props.floor).map((w): Row => ({ kind: 'space', id: w.space, name: `${w.name}: ${w.who}`, what: `${w.given} of ${w.wanted} wired`, tone: w.given < w.wanted ? 'not_met' : 'met' })),
    ...brief.found.filter((f) => f.floor === props.floor).map((f): Row => ({ kind: f.kind, id: f.id, name: f.name, what: f.state, tone: f.state === 'unknown' ? 'near' : '' })),
    ...zones.map((z): Row => ({ kind: 'zone', id: z.id, name: z.name, what: z.kind === 'later' ? 'comes later' : 'no drilling', tone: '' })),
  ]
})
</script>

<template>
  <table class="ledger" aria-label="What the visit brought home on this floor">
    <thead><tr><th>What</th><th>State</th></tr></thead>
    <tbody>
      <tr
        v-for="r in rows" :key="r.kind + r.id" tabindex="0" :class="{ chosen: store.selection?.id === r.id }"
        @click="store.selection = { kind: r.kind, id: r.id }" @keydown.enter="store.selection = { kind: r.kind, id: r.id }"
      ><td>{{ r.name }}</td><td :class="r.tone">{{ r.what }}</td></tr>
    </tbody>
  </table>
</template>
