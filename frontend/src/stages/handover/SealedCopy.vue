<script setup lang="ts">
import Button from 'primevue/button'
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import { useKeys } from '@/answers/useKeys'
import { useDesign } from '@/document/store'

/** The one paper with keys on it: of those that are kept, printed and kept nowhere itself. */
const store = useDesign()
const router = useRouter()
const { rows, said, printSealed } = useKeys()
const kept = computed(() => rows.value.filter((r) => r.made && (r.security || r.of === 'account/local')))
const missing = computed(() => rows.value.filter((r) => !r.made && r.security))
</script>

<template>
  <section aria-label="Sealed copy">
    <h2>Sealed copy</h2>
    <p class="quiet">Codes to join with the keys in them, for whoever looks after the network. That it was printed is noted; the paper is kept nowhere.</p>
    <p v-if="said" class="not_met" role="alert">{{ said }}</p>
    <ul>
      <li v-for="r in kept" :key="r.of" class="met">{{ r.name }}</li>
      <li v-for="r in missing" :key="r.of" class="not_met">{{ r.name }}: no key yet</li>
    </ul>
    <div class="row">
      <Button v-if="kept.length" label="Print the sealed copy" icon="pi pi-print" size="small" outlined @click="printSealed()" />
      <Button v-if="missing.length" :label="missing.length === 1 ? 'Make the key that is missing' : `Make the ${missing.length} that are missing`" text size="small" @click="router.push(`/p/${store.id}/settings?part=keys`)" />
    </div>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 6px;
  justify-items: start;
}
h2 {
  margin: 4px 0;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  columns: 2 180px;
  column-gap: 24px;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
</style>
