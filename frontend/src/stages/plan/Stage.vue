<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import Button from 'primevue/button'
import { computed, ref } from 'vue'
import Choice from '@/controls/Choice.vue'
import { useDesign } from '@/document/store'
import CommonLayer from '@/sheet/CommonLayer.vue'
import CutLayer from '@/sheet/CutLayer.vue'
import { constructionsOf } from '@/sheet/pens'
import SheetStage from '@/sheet/SheetStage.vue'
import { drawsOuter, innerConstruction, outerConstruction } from '@/sheet/tools/constructions'
import LayersMenu from './LayersMenu.vue'
import StoreyUp from './StoreyUp.vue'
import SectionBand from './SectionBand.vue'
import SiteSheet from './site/SiteSheet.vue'
import Tools from './Tools.vue'

const floor = defineModel<string>('floor', { required: true })
const store = useDesign()
const section = useLocalStorage('heathrise-section', false)
/** The whole site is shown in place of one storey. */
const site = ref(false)
const SIDES = [
  { name: 'Inner walls', short: 'Inner', outer: false, of: innerConstruction },
  { name: 'Outer walls', short: 'Outer', outer: true, of: outerConstruction },
]
const walls = computed(() => constructionsOf(store.catalogue, ['wall']))
</script>

<template>
  <SheetStage v-model:floor="floor" mode="plan" :apart="site">
    <template #bar>
      <span v-for="side in site ? [] : SIDES" :key="side.name" class="built">
        <Button
          :label="side.short" size="small" :outlined="drawsOuter === side.outer" :text="drawsOuter !== side.outer" :aria-pressed="drawsOuter === side.outer"
          :aria-label="`${side.short}: the Wall tool draws ${side.name.toLowerCase()}`" @click="drawsOuter = side.outer"
        />
        <Choice v-model="side.of.value" by="id" :options="walls" class="construction" :aria-label="`Construction of ${side.name.toLowerCase()}`" />
      </span>
      <span class="right">
        <Button label="Site" size="small" :text="!site" icon="pi pi-map" :aria-pressed="site" @click="site = !site" />
        <template v-if="!site">
          <Button label="Section" size="small" :text="!section" icon="pi pi-building" :aria-pressed="section" @click="section = !section" />
          <LayersMenu />
          <StoreyUp v-model:floor="floor" />
        </template>
      </span>
    </template>
    <template #beside><Tools /></template>
    <template #instead><SiteSheet @close="site = false" @floor="floor = $event" /></template>
    <template v-if="section && !site" #below><SectionBand v-model:floor="floor" @close="section = false" /></template>
    <template #layers="{ viewport }">
      <CutLayer v-if="section" :viewport="viewport" />
      <CommonLayer :floor="floor" :viewport="viewport" />
    </template>
  </SheetStage>
</template>

<style scoped>
.built {
  display: flex;
  align-items: center;
  gap: 6px;
}
.construction {
  width: 150px;
}
@media (max-width: 1400px) {
  .right :deep(.p-button-icon) {
    display: none;
  }
}
.right {
  display: flex;
  margin-left: auto;
}
</style>
