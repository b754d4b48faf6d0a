<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { computed, ref } from 'vue'
import type { HandoverView } from '@/api/types'
import { useDesign } from '@/document/store'

/** Keys go onto one page that is printed and kept nowhere: not here, not on the server. */
const props = defineProps<{ joins: HandoverView['now']['joins'] }>()
const store = useDesign()
const keys = ref<Record<string, string>>({})
/** One key for each name; what is on the air for it has the same. */
const wanting = computed(() => props.joins.filter((j, k, all) => j.wants_key && all.findIndex((o) => o.name === j.name) === k))
const some = computed(() => wanting.value.some((j) => keys.value[j.name]?.trim()))

async function print(): Promise<void> {
  const body = JSON.stringify({ keys: Object.fromEntries(Object.entries(keys.value).filter(([, key]) => key.trim())) })
  const answer = await fetch(`/api/projects/${store.id}/sealed`, { method: 'POST', headers: { 'Content-Type': 'application/json' }, body }).catch(() => null)
  if (!answer?.ok) {
    store.trouble = { message: 'The sealed copy was not printed; the server does not answer or will not have a key.', detail: [] }
    return
  }
  const link = document.createElement('a')
  link.href = URL.createObjectURL(await answer.blob())
  link.download = 'sealed.pdf'
  link.click()
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000)
  keys.value = {}
}
</script>

<template>
  <section aria-label="Sealed copy">
    <h2>Sealed copy</h2>
    <p v-if="!wanting.length" class="quiet">No wireless name of this plan asks for a key.</p>
    <template v-else>
      <p class="quiet">Codes to join with the keys in them. Type the keys as they were set; they go onto this one page and are kept nowhere.</p>
      <div class="keys">
        <label v-for="j in wanting" :key="j.id"><span><b>{{ j.ssid }}</b> <span class="quiet">{{ j.network }}</span></span><InputText v-model="keys[j.name]" size="small" maxlength="63" autocomplete="off" spellcheck="false" class="figure" :aria-label="`Key of ${j.ssid}, ${j.network}`" /></label>
      </div>
      <Button label="Print the sealed copy" icon="pi pi-print" size="small" outlined :disabled="!some" @click="print" />
    </template>
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
.keys {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(230px, 1fr));
  gap: 6px 16px;
  width: 100%;
}
.keys label {
  display: grid;
  gap: 2px;
}
</style>
