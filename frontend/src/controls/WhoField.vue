<script setup lang="ts">
import InputText from 'primevue/inputtext'
import { useWho } from '@/outbox/useOutbox'

/** Who speaks on this device: what is ticked, noted and handed over bears the name. */
const who = useWho()
</script>

<template>
  <label class="you">You <InputText v-model="who" size="small" maxlength="60" placeholder="your name" class="who" aria-label="Your name" /></label>
</template>

<style scoped>
.you {
  display: flex;
  align-items: center;
  gap: 6px;
  color: var(--granite);
  font-size: 12px;
}
.who {
  width: 120px;
}
</style>
