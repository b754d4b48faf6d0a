<script setup lang="ts">
import { computed, ref } from 'vue'
import { useDesign } from '@/document/store'
import OutboxDialog from './OutboxDialog.vue'
import { useOutbox } from './useOutbox'

/** What is not yet at the server, wherever one is in the application: how much of it, and what was refused. */
const outbox = useOutbox()
const design = useDesign()
const refused = computed(() => outbox.refused.length + design.refusals.length)
const open = ref(false)
</script>

<template>
  <button v-if="outbox.waiting.length || refused || open" class="plain outbox" :class="{ refused }" aria-haspopup="dialog" data-testid="outbox" @click="open = true">
    <template v-if="outbox.waiting.length"><i class="pi pi-upload" aria-hidden="true" /> {{ outbox.waiting.length }} to send</template>
    <b v-if="refused"><i class="pi pi-exclamation-triangle" aria-hidden="true" /> {{ refused }} not taken</b>
    <template v-if="!outbox.waiting.length && !refused">All sent</template>
  </button>
  <OutboxDialog v-model:visible="open" />
</template>

<style scoped>
.outbox {
  display: inline-flex;
  align-items: center;
  gap: 6px;
  padding: 4px 8px;
  margin-left: 4px;
  font-size: 12px;
  color: var(--granite);
  white-space: nowrap;
}
.outbox b {
  color: var(--rust);
}
@media (pointer: coarse) {
  .outbox {
    min-height: 44px;
  }
}
</style>
