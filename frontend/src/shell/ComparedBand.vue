<script setup lang="ts">
import Button from 'primevue/button'
import { computed } from 'vue'
import { useCompared } from '@/document/compared'
import { useDesign } from '@/document/store'

/** What is laid beside each other just now, in words, and the way out of it. */
const emit = defineEmits<{ floor: [id: string] }>()
const store = useDesign()
const { compared, letGo } = useCompared(store)
const COUNTED = [['added', 'added'], ['removed', 'gone'], ['moved', 'moved'], ['changed', 'otherwise different']] as const
const counts = computed(() =>
  COUNTED.map(([how, word]) => ({ how, word, count: (compared.value?.found.rows ?? []).filter((r) => r.how === how).length })).filter((c) => c.count),
)
const floors = computed(() => {
  const ids = [...new Set((compared.value?.found.rows ?? []).map((r) => r.floor).filter((f): f is string => !!f))]
  return ids.flatMap((id) => store.find('floor', id) ?? [])
})
</script>

<template>
  <div v-if="compared" class="band" role="status" data-testid="compared">
    <b>{{ compared.words }}</b>
    <span v-for="c in counts" :key="c.how" class="count" :class="c.how">{{ c.count }} {{ c.word }}</span>
    <span v-if="!counts.length">nothing differs</span>
    <Button v-for="f in floors" :key="f.id" :label="f.name" size="small" text @click="emit('floor', f.id)" />
    <Button label="Done" size="small" outlined class="out" @click="letGo()" />
  </div>
</template>

<style scoped>
.band {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 2px 10px;
  padding: 3px 10px;
  border-bottom: 1px solid var(--granite-mid);
  background: var(--heather-wash);
  font: 500 13px var(--condensed);
}
.count::before {
  content: "";
  display: inline-block;
  width: 16px;
  margin-right: 5px;
  vertical-align: middle;
  border-top: 3px solid var(--moss);
}
.count.removed::before,
.count.moved::before {
  border-top: 2px dashed var(--rust);
}
.count.changed::before {
  border-top: 3px dotted var(--gorse-ink);
}
.out {
  margin-left: auto;
}
</style>
