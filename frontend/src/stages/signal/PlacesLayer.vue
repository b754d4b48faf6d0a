<script setup lang="ts">
import type { Device } from '@/api/types'
import ProposedLayer from '@/sheet/ProposedLayer.vue'
import type { Viewport } from '@/sheet/useViewport'
import { useLooking } from './looking'

/** What a search for places proposes. */
defineProps<{ viewport: Viewport; devices: Device[]; chosen: string | null }>()
const { proposed, best, floor } = useLooking()
</script>

<template>
  <ProposedLayer v-if="proposed || best" :moved="proposed" :best="best" :devices="devices" :floor="floor" :viewport="viewport" />
</template>
