<script setup lang="ts">
import { computed } from 'vue'
import { useDesign } from '@/document/store'
import FindingCard from './FindingCard.vue'

/** What a finding offers, in the place where it is missed. */
const props = defineProps<{ id: string }>()
const store = useDesign()
const finding = computed(() => store.findings.find((f) => f.id === props.id))
</script>

<template>
  <FindingCard v-if="finding" :finding="finding" class="offered" />
</template>

<style scoped>
.offered {
  margin: 4px 0;
}
</style>
