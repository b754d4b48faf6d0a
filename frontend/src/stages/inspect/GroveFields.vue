<script setup lang="ts">
import InputText from 'primevue/inputtext'
import type { Grove } from '@/api/types'
import NumberField from '@/controls/NumberField.vue'
import { useFields } from './useFields'

const props = defineProps<{ grove: Grove }>()
const { set, setName } = useFields('grove', () => props.grove)
/** Tops stay over the lowest leaves, whichever of both is set. */
const LEAST_M = 0.1
</script>

<template>
  <p class="quiet">A signal is weaker by the metres of its way through leaves, in summer. Trees are counted as high as they are now; on the line to a far place as high as they will be.</p>
  <div class="fields">
    <label class="wide">Name <InputText :model-value="grove.name" size="small" maxlength="120" fluid aria-label="Name" @change="setName" /></label>
    <NumberField label="Tops, over the ground" name="Height of the trees" :value="grove.height_m ?? 8" :min="(grove.clear_m ?? 0) + LEAST_M" :max="60" @change="set({ height_m: $event }, 'Height')" />
    <NumberField label="Lowest leaves" :value="grove.clear_m ?? 0" :min="0" :max="(grove.height_m ?? 8) - LEAST_M" @change="set({ clear_m: $event }, 'Lowest leaves')" />
    <NumberField label="Grows a year, 0 as trees do" name="Grows a year" :value="grove.grows_m ?? 0" :min="0" :max="5" @change="set({ grows_m: $event || null }, 'Growth')" />
  </div>
</template>
