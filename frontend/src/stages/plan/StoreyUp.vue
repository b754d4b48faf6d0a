<script setup lang="ts">
import Button from 'primevue/button'
import Popover from 'primevue/popover'
import { computed, useTemplateRef } from 'vue'
import { useDesign } from '@/document/store'
import { useMade } from '@/document/useMade'
import { common } from '@/sheet/common'
import { tool } from '@/sheet/tools'

/** This storey's walls on the one above, which is made where there is none. */
const floor = defineModel<string>('floor', { required: true })
const store = useDesign()
const made = useMade()
const menu = useTemplateRef<InstanceType<typeof Popover>>('menu')
const here = computed(() => store.find('floor', floor.value))
const above = computed(() => store.all('floor').find((f) => f.building === here.value?.building && f.level === here.value.level + 1))
const WHATS = [
  { what: 'outer', label: 'Outer walls, with their windows' },
  { what: 'walls', label: 'All walls and doors' },
  { what: 'rooms', label: 'Walls, doors and rooms' },
] as const

function lay(): void {
  menu.value?.hide()
  common.value = []
  tool.value = 'common'
}

async function raise(what: (typeof WHATS)[number]['what']): Promise<void> {
  const before = new Set(store.all('floor').map((f) => f.id))
  const done = await made.make('Copy storey up', { do: 'raise', floor: floor.value, to: above.value?.id ?? null, what })
  if (!done) return
  menu.value?.hide()
  const fresh = store.all('floor').find((f) => !before.has(f.id))
  floor.value = fresh?.id ?? above.value?.id ?? floor.value
}
</script>

<template>
  <Button label="Storey up" size="small" text icon="pi pi-arrow-up" @click="menu?.toggle($event)" />
  <Popover ref="menu">
    <p class="told">Copy {{ here?.name }} to {{ above?.name ?? 'a new storey above' }}:</p>
    <div class="whats">
      <Button v-for="w in WHATS" :key="w.what" :label="w.label" size="small" outlined @click="raise(w.what)" />
    </div>
    <template v-if="store.floors.length > 1">
      <p class="told over">Lay another storey over {{ here?.name }}:</p>
      <div class="whats"><Button label="By two points that both have" size="small" outlined @click="lay" /></div>
    </template>
    <p v-if="made.why.value" class="why" role="alert">{{ made.why.value }}</p>
  </Popover>
</template>

<style scoped>
.told {
  margin: 0 0 6px;
  font: 500 13px/1.3 var(--condensed);
}
.over {
  margin-top: 10px;
}
.whats {
  display: grid;
  gap: 4px;
}
.why {
  margin: 6px 0 0;
  color: var(--rust);
}
</style>
