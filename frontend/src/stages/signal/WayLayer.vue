<script setup lang="ts">
import type { Device } from '@/api/types'
import WalkLayer from '@/sheet/WalkLayer.vue'
import type { Viewport } from '@/sheet/useViewport'
import { useLooking } from './looking'

/** The way that is walked with a call. */
defineProps<{ viewport: Viewport; devices: Device[]; chosen: string | null }>()
const { floor, walk: { points, walk, moment } } = useLooking()
</script>

<template>
  <WalkLayer :points="points" :walk="walk" :moment="moment" :floor="floor" :viewport="viewport" />
</template>
