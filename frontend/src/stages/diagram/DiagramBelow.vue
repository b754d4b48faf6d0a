<script setup lang="ts">
import Button from 'primevue/button'
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import Choice from '@/controls/Choice.vue'
import JobProgress from '@/controls/JobProgress.vue'
import PrintButton from '@/controls/PrintButton.vue'
import { useDesign } from '@/document/store'
import { useDiagram } from './useDiagram'
import { useOverlays } from './useOverlays'

/** What is chosen: what is narrowest on its way out, what goes dark without it, where a packet from it comes. */
const store = useDesign()
const { reading, chosen, nodes, dark } = useDiagram()
const { stands, goal, goals, start, walked, job, running, stop, drill, failures, failure } = useOverlays()
const router = useRouter()
const SHOWN = 8
const feet = computed(() => store.site?.units === 'imperial')
const node = computed(() => nodes.value.get(chosen.value))
const chain = computed(() => store.shown?.chains.chains.find((c) => c.device === chosen.value))
const lost = computed(() => [...dark.value].map((id) => nodes.value.get(id)?.name ?? id))
const seen = computed(() => stands.value.get(chosen.value))
const rooms = computed(() => failure.value?.rooms.map((r) => (r.silent ? `${r.name} (nobody)` : r.name)) ?? [])
const some = (names: string[]) => names.slice(0, SHOWN).join(', ') + (names.length > SHOWN ? ` and ${names.length - SHOWN} more` : '')
/** The same thing where it stands: its storey comes with it. */
const onSheet = () => router.push(`/p/${store.id}/${node.value?.kind === 'switch' ? 'power' : 'cable'}`)
</script>

<template>
  <div v-if="node" class="below" data-without>
    <p><b>{{ node.name }}</b> <span class="quiet">{{ node.model }}</span> <span v-if="seen" :class="seen.elsewhere ? 'not_met' : 'quiet'" data-seen>{{ ` ${seen.stand?.replace('_', ' ') ?? 'not seen yet'}` }}<template v-if="seen.link_mbps">, link {{ seen.link_mbps }} Mb/s<template v-if="seen.planned_mbps"> of {{ seen.planned_mbps }} planned</template></template><template v-if="seen.watts">, {{ seen.watts.toFixed(1) }} W</template><template v-if="seen.elsewhere">; {{ seen.elsewhere }}</template></span><template v-if="node.joint?.why"> <span class="not_met">{{ node.joint.why }}</span></template></p>
    <p v-if="chain" data-chain>{{ chain.says }}</p>
    <p v-if="lost.length" class="near" data-dark>Without it {{ lost.length }} {{ lost.length === 1 ? 'thing goes' : 'things go' }} dark: {{ some(lost) }}.</p>
    <p v-else class="quiet">Nothing else hangs on it.</p>
    <p v-if="failures" :class="rooms.length ? 'near' : 'met'" data-drilled><template v-if="rooms.length">Worse off without it: {{ some(rooms) }}.</template><template v-else>No room would notice.</template><template v-if="failure?.cure"> {{ failure.cure }}.</template></p>
    <p v-if="walked" :class="walked.passes ? 'met' : 'not_met'" data-packet-says>{{ walked.says }}</p>
    <div class="does">
      <Button label="On the sheet" icon="pi pi-map" size="small" text data-on-sheet @click="onSheet" />
      <PrintButton v-if="node.room" kind="diagram_pdf" label="For its rack’s door" :arguments="{ readings: [reading], paper: feet ? 'Letter' : 'A4', rack: node.room }" />
      <JobProgress v-if="running" :job="job" what="Switching off one after the other" @stop="stop" />
      <Button v-else-if="!failures" label="What rooms would notice" icon="pi pi-bolt" size="small" text data-drill @click="drill" />
      <label v-if="start" class="to">A packet from it to <Choice v-model="goal" :options="goals" filter aria-label="Packet from it to" /></label>
    </div>
  </div>
</template>

<style scoped>
.below {
  padding: 8px 14px;
  border-top: 1px solid var(--granite-mid);
  font: 400 12.5px/1.45 var(--condensed);
}
.does {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
}
.to {
  display: inline-flex;
  align-items: center;
  gap: 6px;
}
</style>
