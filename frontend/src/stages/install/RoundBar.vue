<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref } from 'vue'
import type { RoundRow } from '@/api/types'
import { lasting } from '@/document/rounds'

/** The clock of a round of practice, and the way out of it. */
const props = defineProps<{ round: RoundRow; used: number; said: string }>()
defineEmits<{ end: [] }>()
const asking = ref(false)
const late = computed(() => props.used > props.round.allowed_s)
const longest = computed(() => Math.max(props.used, props.round.allowed_s) * 1.02)
const share = (s: number) => `${(100 * s) / longest.value}%`
</script>

<template>
  <section class="round" aria-label="Round of practice" data-testid="round">
    <b>{{ round.trainee ? `${round.trainee} practises` : 'A round of practice' }}</b>
    <span class="figure clock" :class="{ not_met: late }" data-clock>{{ lasting(used) }}</span>
    <div class="track" role="img" :aria-label="`${lasting(used)} of ${lasting(round.allowed_s)}; the gear alone takes ${lasting(round.par_s)}`">
      <span class="used" :class="{ late }" :style="{ width: share(used) }" />
      <span class="par" :style="{ left: share(round.par_s) }" />
      <span class="end" :style="{ left: share(round.allowed_s) }" />
    </div>
    <span class="quiet">of {{ lasting(round.allowed_s) }} by the site’s clock; the gear alone takes {{ lasting(round.par_s) }}</span>
    <span class="gap" />
    <Button v-if="!asking" label="End the round" size="small" outlined data-end @click="asking = true" />
    <template v-else>
      <span>The clock stops, and you are told what was missed.</span>
      <Button label="End it" size="small" data-end-it @click="$emit('end')" />
      <Button label="Go on" size="small" text @click="asking = false" />
    </template>
    <p v-if="said" class="not_met" role="alert">{{ said }}</p>
  </section>
</template>

<style scoped>
.round {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 14px;
  padding: 8px 12px;
  margin-bottom: 12px;
  background: var(--paper-deep);
  border-left: 3px solid var(--tarn);
}
.clock {
  font-size: 18px;
}
.track {
  position: relative;
  flex: 0 1 240px;
  min-width: 140px;
  height: 12px;
  background: var(--paper);
  border: 1px solid var(--granite-mid);
}
.used {
  position: absolute;
  inset: 0 auto 0 0;
  background: var(--tarn);
}
.used.late {
  background: var(--rust);
}
.par,
.end {
  position: absolute;
  top: -4px;
  bottom: -4px;
  width: 0;
  border-left: 2px solid var(--ink, currentColor);
}
.par {
  border-left-style: dotted;
}
.gap {
  flex: 1;
}
</style>
