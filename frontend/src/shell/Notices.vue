<script setup lang="ts">
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import { useDesign } from '@/document/store'

const store = useDesign()
</script>

<template>
  <div v-if="store.trouble" class="trouble" role="alert">
    <div>
      <p>{{ store.trouble.message }}</p>
      <p v-for="(line, i) in store.trouble.detail" :key="i" class="quiet">{{ line }}</p>
    </div>
    <Button icon="pi pi-times" text size="small" aria-label="Close this message" @click="store.trouble = null" />
  </div>
  <Dialog :visible="!!store.conflict" modal :closable="false" header="Changed elsewhere" :style="{ width: '440px' }">
    <p>
      The same element was changed in another window, up to revision {{ store.conflict?.revision }}.
      Your {{ store.pending.length }} unsaved changes are kept here until you choose.
    </p>
    <div class="choose">
      <Button label="Take theirs" outlined @click="store.resolve(false)" />
      <Button label="Keep mine on top" @click="store.resolve(true)" />
    </div>
  </Dialog>
</template>

<style scoped>
.trouble {
  position: fixed;
  left: 50%;
  bottom: 74px;
  translate: -50%;
  z-index: 20;
  display: flex;
  gap: 8px;
  max-width: 640px;
  background: var(--paper);
  border: 1px solid var(--rust);
  border-left-width: 4px;
  border-radius: 3px;
  padding: 8px 8px 8px 12px;
  overflow-wrap: anywhere;
}
.choose {
  display: flex;
  justify-content: flex-end;
  gap: 8px;
  margin-top: 14px;
}
</style>
