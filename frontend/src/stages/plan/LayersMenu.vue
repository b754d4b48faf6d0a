<script setup lang="ts">
import Button from 'primevue/button'
import Checkbox from 'primevue/checkbox'
import Popover from 'primevue/popover'
import { computed, useTemplateRef } from 'vue'
import { ALWAYS, hiddenLayers, LAYERS, lockedLayers, NOTHING_TO_PRESS, type LayerId } from '@/sheet/layers'

/** What of the drawing is shown, and what cannot be moved by mistake. */
const menu = useTemplateRef<InstanceType<typeof Popover>>('menu')
const told = computed(() => {
  const [off, shut] = [hiddenLayers.value.length, lockedLayers.value.length]
  return ['Layers', off ? `${off} hidden` : '', shut ? `${shut} locked` : ''].filter(Boolean).join(', ')
})
const without = (list: LayerId[], layer: LayerId, on: boolean) => (on ? [...list.filter((l) => l !== layer), layer] : list.filter((l) => l !== layer))
const show = (layer: LayerId, shown: boolean) => (hiddenLayers.value = without(hiddenLayers.value, layer, !shown))
const lock = (layer: LayerId, shut: boolean) => (lockedLayers.value = without(lockedLayers.value, layer, shut))
</script>

<template>
  <Button :label="told" size="small" text icon="pi pi-clone" data-testid="layers" @click="menu?.toggle($event)" />
  <Popover ref="menu">
    <table class="ledger" aria-label="Layers of the plan">
      <thead><tr><th>Layer</th><th>Shown</th><th>Locked</th></tr></thead>
      <tbody>
        <tr v-for="l in LAYERS" :key="l.id">
          <td>{{ l.name }}</td>
          <td><Checkbox v-if="!ALWAYS.includes(l.id)" binary :model-value="!hiddenLayers.includes(l.id)" :aria-label="`${l.name} shown`" @update:model-value="show(l.id, $event as boolean)" /></td>
          <td><Checkbox v-if="!NOTHING_TO_PRESS.includes(l.id)" binary :model-value="lockedLayers.includes(l.id)" :aria-label="`${l.name} locked`" @update:model-value="lock(l.id, $event as boolean)" /></td>
        </tr>
      </tbody>
    </table>
  </Popover>
</template>
