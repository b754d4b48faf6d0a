<script setup lang="ts">
import { computed } from 'vue'
import type { PortalSheet } from '@/api/types'

/** The page as a guest's phone shows it. */
const props = defineProps<{ page: PortalSheet; place: string }>()
const ASKED: Record<string, string> = { name: 'Your name', room: 'Your room', email: 'Your e-mail address', phone: 'Your phone number' }
const lines = computed(() => props.page.terms.split('\n').map((l) => l.trim()).filter(Boolean))
const DOES: Record<PortalSheet['way'], string> = { agree: 'I agree', register: 'I agree', voucher: 'Go on' }
</script>

<template>
  <figure class="phone" :aria-label="`The page before ${page.network_name}, as a guest sees it`">
    <div class="screen">
      <b class="place">{{ place }}</b>
      <div class="terms" tabindex="0">
        <p v-for="(line, k) in lines" :key="k">{{ line }}</p>
        <p v-if="!lines.length" class="not_met">No terms yet.</p>
      </div>
      <span v-if="page.way === 'voucher'" class="field">Code of your voucher</span>
      <span v-for="a in page.asks" :key="a" class="field">{{ ASKED[a] }}</span>
      <span class="go">{{ DOES[page.way] }}</span>
    </div>
  </figure>
</template>

<style scoped>
.phone {
  align-self: start;
  margin: 0;
  width: 216px;
  padding: 12px 7px 20px;
  border: 1.5px solid var(--granite-mid);
  border-radius: 18px;
  background: var(--paper-deep);
}
.screen {
  display: flex;
  flex-direction: column;
  gap: 8px;
  height: 316px;
  padding: 12px 10px;
  background: var(--paper);
  border-radius: 5px;
}
.place {
  font-size: 15px;
}
.terms {
  flex: 1;
  overflow-y: auto;
  font: 400 12px/1.4 var(--condensed);
}
.terms p {
  margin: 0 0 5px;
}
.field {
  padding: 7px 8px;
  border: 1px solid var(--granite-mid);
  font: 400 12.5px var(--condensed);
  color: var(--granite);
}
.go {
  padding: 8px;
  text-align: center;
  background: var(--heather);
  color: var(--paper);
  font-weight: 600;
  font-size: 13px;
}
</style>
