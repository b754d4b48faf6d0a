<script setup lang="ts">
import { computed } from 'vue'
import Choice from '@/controls/Choice.vue'
import { useDesign } from '@/document/store'
import { constructionsOf } from '@/sheet/pens'
import SheetStage from '@/sheet/SheetStage.vue'
import { innerConstruction, outerConstruction } from '@/sheet/tools/constructions'
import Tools from './Tools.vue'

const floor = defineModel<string>('floor', { required: true })
const store = useDesign()
const walls = computed(() => constructionsOf(store.catalogue, ['wall']))
</script>

<template>
  <SheetStage v-model:floor="floor" mode="plan">
    <template #bar>
      <label>Inner walls <Choice by="id"
        v-model="innerConstruction" :options="walls"
        class="construction" aria-label="Construction of inner walls"
      /></label>
      <label>Outer walls <Choice by="id"
        v-model="outerConstruction" :options="walls"
        class="construction" aria-label="Construction of outer walls"
      /></label>
    </template>
    <template #beside><Tools /></template>
  </SheetStage>
</template>

<style scoped>
.construction {
  width: 200px;
}
</style>
