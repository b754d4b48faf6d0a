<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { watchEffect } from 'vue'
import { useOutbox } from '@/outbox/useOutbox'

// What was said on this device goes on its way wherever one is.
useOutbox()
const night = useLocalStorage('heathrise-night', false)
watchEffect(() => document.documentElement.classList.toggle('night', night.value))
</script>

<template>
  <RouterView />
</template>
