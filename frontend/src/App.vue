<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { watchEffect } from 'vue'

const night = useLocalStorage('heathrise-night', false)
watchEffect(() => document.documentElement.classList.toggle('night', night.value))
</script>

<template>
  <RouterView />
</template>
