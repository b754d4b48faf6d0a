<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref } from 'vue'
import { useScan } from '@/answers/useScan'
import { when } from '@/document/units'
import { many } from '../words'
import AirStrip from './AirStrip.vue'

/** The neighbourhood as the site's access points hear it: when they may listen, whom that takes off, what it changes. */
defineProps<{ standin: boolean }>()
const { view, wrong, busy, look, begin, drop, letPass, take } = useScan()
const told = ref(false)
const MOST = 6
const BANDS = ['2.4', '5', '6'] as const
const bands = computed(() => BANDS.filter((b) => view.value?.strangers?.some((s) => s.band === b)))
const found = computed(() => {
  const o = view.value?.offer
  if (!o) return ''
  const parts = [o.fresh && `${many(o.fresh, 'reading')} new`, o.again && `${o.again} with another level`, o.gone && `${o.gone} not heard any more`]
  return parts.filter(Boolean).join(', ')
})
const twins = computed(() => view.value?.strangers?.filter((s) => s.ours) ?? [])
async function now(): Promise<void> {
  await begin('now')
  told.value = false
}
</script>

<template>
  <h3>The neighbourhood</h3>
  <p v-if="wrong" class="not_met" role="alert" data-scan-wrong>{{ wrong }}</p>
  <p v-if="!view" class="quiet"><Button label="Who else is on the air" text size="small" :loading="busy > 0" data-scan @click="look" /></p>
  <div v-else class="scan" data-scan-view :data-state="view.state">
    <template v-if="view.state === 'waits'">
      <p><b>{{ many(view.points ?? 0, 'access point') }}</b> will listen on {{ when(view.begins) }}, for about {{ view.takes_min.toFixed(0) }} minutes; on site it is {{ when(view.local) }}.</p>
      <p class="row"><Button label="Take it back" text size="small" data-scan-drop @click="drop" /><Button v-if="standin" label="Let that hour come" outlined size="small" :loading="busy > 0" data-scan-pass @click="letPass" /></p>
    </template>
    <template v-else-if="view.state === 'under_way'">
      <p class="near" role="status">They listen until {{ when(view.ends) }}: whoever was on them is off until then.</p>
      <p v-if="standin" class="row"><Button label="Let that time go by" outlined size="small" :loading="busy > 0" data-scan-pass @click="letPass" /></p>
    </template>
    <template v-else>
      <p class="near" data-scan-warning>While {{ view.points === 1 ? 'it listens, the access point carries' : `they listen, ${many(view.points ?? 0, 'access point')} carry` }} nobody for about {{ view.takes_min.toFixed(0) }} minutes: {{ many(view.clients ?? 0, 'client') }} now on them would be off, calls drop<template v-if="view.off_with_them?.length">, and what hangs on them over the air is off with them: {{ view.off_with_them.join(', ') }}</template>.</p>
      <p class="row">
        <Button :label="`Listen at the quiet hour, ${view.quiet_at ? when(view.quiet_at) : view.quiet}`" size="small" :disabled="!view.points" :loading="busy > 0" data-scan-quiet @click="begin('quiet')" />
        <label v-if="view.clients" class="told"><input v-model="told" type="checkbox"> whoever is on them knows</label>
        <Button label="Listen now" size="small" outlined :disabled="!view.points || (!!view.clients && !told)" data-scan-now @click="now" />
      </p>
    </template>
    <template v-if="view.state === 'over'">
      <p v-if="!view.strangers?.length" class="met">They heard nobody else.</p>
      <AirStrip v-for="b in bands" :key="b" :band="b" :strangers="view.strangers!.filter((s) => s.band === b)" :own="view.own!.filter((o) => o.band === b)" />
      <p v-for="t in twins" :key="`${t.address} ${t.channel}`" class="not_met" data-scan-twin>Somebody else sends <b>{{ t.name }}</b>, a name of this site, on channel {{ t.channel }}, loudest at {{ t.loudest_at }}: find what that is before anybody types a key into it.</p>
      <p v-if="found" class="row" data-scan-found><span>{{ many(view.strangers?.length ?? 0, 'radio') }} of others heard: {{ found }}<template v-if="view.offer?.left_out"> ({{ view.offer.left_out }} of the faintest do not fit)</template>.</span> <Button label="Take them into the plan" size="small" data-scan-take @click="take" /></p>
      <p v-else-if="view.strangers?.length" class="met" data-scan-known>The plan knows all of them.</p>
      <p v-if="view.offer?.moves?.length" class="quiet" data-scan-moves>Then {{ many(view.offer.moves.length, 'radio') }} would be on another channel: <template v-for="(m, k) in view.offer.moves.slice(0, MOST)" :key="`${m.device} ${m.band}`">{{ k ? ', ' : '' }}<b>{{ m.name }}</b> {{ m.band }} GHz {{ m.before }} → {{ m.after }}</template><template v-if="view.offer.moves.length > MOST"> and {{ view.offer.moves.length - MOST }} more</template>. Push them afterwards.</p>
      <p v-else-if="found" class="quiet" data-scan-moves>No channel moves for it.</p>
    </template>
  </div>
</template>

<style scoped>
h3 {
  margin: 14px 0 2px;
}
.scan {
  font: 400 12.5px/1.45 var(--condensed);
}
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 10px;
  margin: 4px 0;
}
.told {
  display: inline-flex;
  align-items: center;
  gap: 5px;
  min-height: 26px;
}
</style>
