<script setup lang="ts">
import type { Device } from '@/api/types'
import MeasuredLayer from '@/sheet/MeasuredLayer.vue'
import PinLayer from '@/sheet/PinLayer.vue'
import { useDesign } from '@/document/store'
import type { Viewport } from '@/sheet/useViewport'
import { useLooking } from './looking'

/** Where the air was scanned, and what was measured there beside the plan. */
defineProps<{ viewport: Viewport; devices: Device[]; chosen: string | null }>()
const store = useDesign()
const { measured, scanned, floor } = useLooking()
</script>

<template>
  <MeasuredLayer v-if="measured" v-bind="measured" :device="store.selection?.kind === 'device' ? chosen : null" :floor="floor" :viewport="viewport" />
  <PinLayer v-if="scanned" :at="scanned" :viewport="viewport" />
</template>
