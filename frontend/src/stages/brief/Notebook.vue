<script setup lang="ts">
import { computed, ref, watch, type Component } from 'vue'
import { useDesign } from '@/document/store'
import { tool } from '@/sheet/tools'
import FoundPart from './FoundPart.vue'
import LaterPart from './LaterPart.vue'
import PainsPart from './PainsPart.vue'
import PicturePart from './PicturePart.vue'
import WalksPart from './WalksPart.vue'
import WhoPart from './WhoPart.vue'

/** The notebook of the visit: its parts in the order in which they come up, one open at a time. */
const props = defineProps<{ floor: string }>()
const emit = defineEmits<{ floor: [id: string] }>()
const store = useDesign()
type Part = 'picture' | 'pains' | 'who' | 'walks' | 'found' | 'later'
const open = ref<Part>('pains')
const brief = computed(() => store.shown?.brief)

const parts = computed<{ id: Part; name: string; says: string; component: Component }[]>(() => {
  const pains = brief.value?.pains ?? []
  const missing = (brief.value?.wishes ?? []).reduce((sum, w) => sum + w.wanted - w.given, 0)
  const undecided = (brief.value?.found ?? []).filter((f) => f.state === 'unknown').length
  const picture = store.all('underlay').find((u) => u.floor === props.floor)
  const walks = store.evaluation?.signal.habits ?? []
  const zones = store.all('zone').length
  return [
    { id: 'picture', name: 'Client’s plan', says: picture ? picture.name : 'none on this floor', component: PicturePart },
    { id: 'pains', name: 'What hurts', says: pains.length ? `${pains.filter((p) => p.outcome === 'mended').length} of ${pains.length} mended` : 'nothing noted', component: PainsPart },
    { id: 'who', name: 'Who uses what', says: missing ? `${missing} wires missing` : `${store.all('client_group').length} groups`, component: WhoPart },
    { id: 'walks', name: 'Where they walk and talk', says: walks.length ? `${walks.filter((w) => w.verdict === 'holds').length} of ${walks.length} hold` : 'nothing noted', component: WalksPart },
    { id: 'found', name: 'What is there', says: undecided ? `${undecided} to decide` : `${brief.value?.found.length ?? 0} noted`, component: FoundPart },
    { id: 'later', name: 'Line, limits, later', says: `${zones} marked`, component: LaterPart },
  ]
})
const OF_KIND: Record<string, Part> = { pain: 'pains', space: 'who', old_cable: 'found', zone: 'later', line_entry: 'later' }

// What is pressed on the sheet opens its part; a room does so only beside those who use it.
watch(
  () => store.selection,
  (selection) => {
    const device = selection?.kind === 'device' && store.find('device', selection.id)
    const part = device && device.state !== 'new' ? 'found' : OF_KIND[selection?.kind ?? '']
    const element = selection && store.find(selection.kind, selection.id)
    if (element && 'floor' in element && element.floor !== props.floor) emit('floor', element.floor)
    if (part && (part !== 'who' || open.value === 'picture')) open.value = part
  },
)

function turnTo(part: Part): void {
  open.value = part
  tool.value = 'select'
}
</script>

<template>
  <div class="notebook" aria-label="Notebook of the visit" role="region" tabindex="0">
    <section v-for="p in parts" :key="p.id" :class="{ open: open === p.id }" :data-part="p.id">
      <button class="plain head" :aria-expanded="open === p.id" @click="turnTo(p.id)">
        <i :class="open === p.id ? 'pi pi-chevron-down' : 'pi pi-chevron-right'" aria-hidden="true" />
        <b>{{ p.name }}</b><span class="quiet">{{ p.says }}</span>
      </button>
      <component :is="p.component" v-if="open === p.id" :floor="floor" class="body" />
    </section>
  </div>
</template>

<style scoped>
.notebook {
  width: 316px;
  flex: none;
  overflow: auto;
  border-right: 1px solid var(--granite-light);
}
section {
  border-bottom: 1px solid var(--granite-light);
}
.head {
  width: 100%;
  display: grid;
  grid-template-columns: 12px 1fr auto;
  align-items: center;
  gap: 8px;
  padding: 9px 10px;
}
.head i {
  font-size: 10px;
}
.head b {
  font-weight: 600;
}
.head .quiet {
  font: 400 12px var(--condensed);
  max-width: 132px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.open .head {
  background: var(--paper-deep);
}
.body {
  padding: 8px 10px 12px;
}
@media (max-width: 1000px) {
  .notebook {
    width: 290px;
  }
}
</style>
