<script setup lang="ts">
import Button from 'primevue/button'
import { ref, watch } from 'vue'
import type { Ray, SpotView } from '@/api/types'
import { dbm, percent } from '@/document/units'
import RaySection from './RaySection.vue'
import RaySum from './RaySum.vue'

/** A spot explained: who is heard there, the chosen ray in section, and its sum. */
const props = defineProps<{ spot: SpotView; ray: Ray | null }>()
const emit = defineEmits<{ choose: [device: string]; close: [] }>()
const instead = ref<Record<number, string>>({})
watch(() => props.ray, () => (instead.value = {}))
const weaker = (r: Ray) => Math.min(r.downlink_dbm, r.uplink_dbm)
const ORDER = ['primary', 'secondary', 'third']
</script>

<template>
  <section class="band" aria-label="Why it is so loud here" data-testid="ray-band">
    <div class="who">
      <p><b>{{ spot.room ?? 'Outside every room' }}</b><Button icon="pi pi-times" text size="small" aria-label="Close" @click="emit('close')" /></p>
      <p v-if="spot.wants_dbm !== null" class="quiet">wants {{ dbm(spot.wants_dbm) }}<template v-if="spot.wants_second_dbm !== null">, second {{ dbm(spot.wants_second_dbm) }}</template>; chance {{ percent(spot.chance) }}<template v-if="spot.chance_second !== null">, {{ percent(spot.chance_second) }}</template></p>
      <p v-else class="quiet">nothing is asked for here on {{ spot.band }} GHz</p>
      <ol>
        <li v-for="(r, i) in spot.rays" :key="r.device">
          <button class="plain" :class="{ chosen: r.device === ray?.device }" :aria-pressed="r.device === ray?.device" :data-of="r.device" @click="emit('choose', r.device)">
            <b>{{ r.name }}</b> <span class="figure">{{ dbm(weaker(r)) }}</span> <span class="quiet">{{ ORDER[i] ?? '' }}</span>
          </button>
        </li>
      </ol>
      <p v-if="!spot.rays.length" class="quiet">No access point is on this band.</p>
    </div>
    <RaySection v-if="ray" :spot="spot" :ray="ray" class="section" />
    <RaySum v-if="ray" v-model="instead" :spot="spot" :ray="ray" class="sum" />
  </section>
</template>

<style scoped>
.band {
  height: 252px;
  flex: none;
  display: flex;
  border-top: 1px solid var(--granite-mid);
  background: var(--paper);
  min-height: 0;
}
.who {
  width: 168px;
  flex: none;
  padding: 6px 10px;
  border-right: 1px solid var(--granite-light);
  overflow: auto;
}
.who p:first-child {
  display: flex;
  align-items: center;
  justify-content: space-between;
}
.who .quiet {
  font: 400 12px/1.3 var(--condensed);
}
ol {
  list-style: none;
  margin: 6px 0 0;
  padding: 0;
}
li button {
  width: 100%;
  padding: 3px 4px;
}
li button.chosen {
  background: var(--heather-wash);
  color: var(--heather);
}
.section {
  flex: 1;
  min-width: 0;
}
.sum {
  width: 340px;
  flex: none;
  border-left: 1px solid var(--granite-light);
}
</style>
