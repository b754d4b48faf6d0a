<script setup lang="ts">
import { useNight } from '@/theme/useNight'
import { useOutbox } from '@/outbox/useOutbox'

// What was said on this device goes on its way wherever one is.
useOutbox()
useNight()
</script>

<template>
  <RouterView />
</template>
