<script setup lang="ts">
import type { Device } from '@/api/types'
import MeshLayer from '@/sheet/MeshLayer.vue'
import type { Viewport } from '@/sheet/useViewport'
import { useLooking } from './looking'

/** Links over the air. */
defineProps<{ viewport: Viewport; devices: Device[]; chosen: string | null }>()
const { mesh } = useLooking()
</script>

<template>
  <MeshLayer v-if="mesh?.length" :links="mesh" :devices="devices" :viewport="viewport" />
</template>
