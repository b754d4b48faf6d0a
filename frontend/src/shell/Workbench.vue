<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { ApiError } from '@/api/client'
import { useDesign } from '@/document/store'
import FiguresDialog from '@/figures/FiguresDialog.vue'
import { tool, toolsOf } from '@/sheet/tools'
import { STAGES, stageOf, type Stage } from '@/stages/registry'
import ComparedBand from './ComparedBand.vue'
import CommandPalette from './CommandPalette.vue'
import Notices from './Notices.vue'
import ReasonsPanel from './ReasonsPanel.vue'
import StageRail from './StageRail.vue'
import TallyBar from './TallyBar.vue'
import TopBar from './TopBar.vue'
import { shortcuts } from './keys'
import { useShortcuts } from './useShortcuts'

const route = useRoute()
const router = useRouter()
const store = useDesign()
const stage = computed(() => route.params['stage'] as Stage)
const info = computed(() => stageOf(stage.value))
const floor = ref('')
const failed = ref('')
const palette = ref<'closed' | 'commands' | 'keys'>('closed')

async function open(id: string): Promise<void> {
  failed.value = ''
  try {
    await store.open(id)
    floor.value = store.floors[0]?.id ?? ''
  } catch (error) {
    if (!(error instanceof ApiError)) throw error
    if (error.status === 404) await router.replace('/')
    else failed.value = error.message
  }
}

/** Of the project in the address: while it is being opened the one before is still at hand. */
function goTo(next: Stage): void {
  void router.push(`/p/${String(route.params['id'])}/${next}`)
}

onMounted(() => void open(route.params['id'] as string))
// What another stage has chosen is shown on its own storey.
watch(stage, () => {
  const element = store.selection && store.find(store.selection.kind, store.selection.id)
  if (element && 'floor' in element) floor.value = element.floor
})
watch(() => route.params['id'] as string | undefined, (id) => id && id !== store.id && void open(id))
watch(
  () => store.floors.map((f) => f.id),
  (ids) => {
    if (!ids.includes(floor.value)) floor.value = ids[0] ?? ''
  },
)
/** Take a tool in hand, on the plan. */
function take(next: string): void {
  tool.value = next
  if (stage.value !== 'plan') goTo('plan')
}
const known = computed(() =>
  shortcuts({
    palette, goTo, take, stages: STAGES, tools: toolsOf, catalogue: () => store.catalogue,
    undo: store.undo, redo: store.redo, letGo: () => (store.selection = null),
  }),
)
useShortcuts(() => known.value)
</script>

<template>
  <div class="bench" :class="{ wide: info.wide }">
    <TopBar @palette="palette = 'commands'" @keys="palette = 'keys'" />
    <StageRail :stage="stage" @go="goTo" />
    <main class="work">
      <p v-if="failed" class="failed">{{ failed }} Nothing was lost; reload when the server is back.</p>
      <!-- Not before it is the project of this address: what is said goes to the one that is shown. -->
      <template v-else-if="store.id && store.id === route.params['id']">
        <ComparedBand @floor="floor = $event" />
        <component :is="info.component" :key="info.id" v-model:floor="floor" />
      </template>
    </main>
    <ReasonsPanel v-if="!info.wide" :stage="stage" :floor="floor" @show-floor="floor = $event" />
    <TallyBar @go="goTo" />
    <CommandPalette v-model="palette" :shortcuts="known" @floor="floor = $event" />
    <FiguresDialog />
    <Notices />
  </div>
</template>

<style scoped>
.bench {
  height: 100dvh;
  display: grid;
  grid-template: 44px minmax(0, 1fr) 62px / 92px minmax(0, 1fr) 324px;
  grid-template-areas: 'top top top' 'rail work side' 'tally tally tally';
}
.bench.wide {
  grid-template-columns: 92px minmax(0, 1fr) 0;
}
/* Upright, as a tablet is held: the rail lies above, the reasons fold out below the sheet. */
@media (max-width: 1000px) {
  .bench {
    grid-template: 52px auto minmax(0, 1fr) auto auto / minmax(0, 1fr);
    grid-template-areas: 'top' 'rail' 'work' 'side' 'tally';
  }
  .bench.wide {
    grid-template-columns: minmax(0, 1fr);
  }
}
.work {
  grid-area: work;
  min-width: 0;
  min-height: 0;
  position: relative;
  display: flex;
  flex-direction: column;
}
.work > :last-child {
  flex: 1;
  min-height: 0;
}
.failed {
  padding: 24px;
}
</style>
