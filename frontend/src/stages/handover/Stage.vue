<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { ref, watch } from 'vue'
import Choices from '@/controls/Choices.vue'
import Choice from '@/controls/Choice.vue'
import type { Kind } from '@/api/types'
import { useHandover } from '@/answers/useHandover'
import StageFrame from '@/controls/StageFrame.vue'
import WhoField from '@/controls/WhoField.vue'
import { useDesign } from '@/document/store'
import SheetView from '@/sheet/SheetView.vue'
import StatesLayer from '@/sheet/StatesLayer.vue'
import PapersPart from './PapersPart.vue'
import StandPart from './StandPart.vue'

/** How the job stands before it is handed over, and the papers that hand it over. */
const floor = defineModel<string>('floor', { required: true })
const store = useDesign()
const { view, who, load, sign } = useHandover()
const beside = useMediaQuery('(min-width: 1001px)')
const part = ref<'stand' | 'papers'>('stand')
const PARTS = [{ value: 'stand', label: 'How it stands' }, { value: 'papers', label: 'Papers' }]

watch(() => store.selection, (chosen) => {
  const element = chosen && store.find(chosen.kind as Kind, chosen.id)
  if (element && 'floor' in element && element.floor) floor.value = element.floor as string
})
</script>

<template>
  <StageFrame>
    <template #bar>
      <Choices v-model="part" :options="PARTS" aria-label="Part of the hand-over" />
      <WhoField />
      <Choice by="id" named="name" v-if="beside && store.floors.length > 1" v-model="floor" :options="store.floors" aria-label="Storey" class="storeys" />
    </template>
      <div class="page" tabindex="0" role="region" aria-label="Hand-over">
        <p v-if="!view" class="quiet">Working it out.</p>
        <StandPart v-else-if="part === 'stand'" :view="view" @agreed="load" />
        <PapersPart v-else :view="view" :who="who" :floor="floor" @made="load" @sign="sign" />
      </div>
    <template #drawing>
      <SheetView v-if="beside && floor" :floor="floor" mode="handover" class="drawing">
        <template #default="{ viewport, devices }"><StatesLayer v-if="view" :standing="view.now" :devices="devices" :floor="floor" :viewport="viewport" /></template>
      </SheetView>
    </template>
  </StageFrame>
</template>

<style scoped>
.storeys {
  margin-left: auto;
}
</style>
