<script setup lang="ts">
import { computed } from 'vue'
import type { SiteView } from '@/api/types'
import NumberField from '@/controls/NumberField.vue'
import { useDesign } from '@/document/store'
import { length, signed } from '@/document/units'
import { CARRIED } from './carried'

/** The site in words: what stands there, what lies between two buildings, what is dug past what. */
const props = defineProps<{ view: SiteView; building: string | null }>()
const emit = defineEmits<{
  building: [id: string]
  open: [id: string]
  choose: [kind: 'duct' | 'buried_service', id: string]
  apart: [id: string, other: string, gap_m: number]
}>()
const store = useDesign()
const nameOf = (id: string) => store.find('building', id)?.name ?? ''

const rows = computed(() =>
  props.view.gaps.map((g) => {
    // The chosen building is the one that moves; where none is, the second.
    const mover = props.building === g.first ? g.first : g.second
    const other = mover === g.first ? g.second : g.first
    return { ...g, mover, other, rise: mover === g.second ? g.rise_m : -g.rise_m, ways: props.view.ducts.filter((d) => g.ducts.includes(d.duct)) }
  }),
)
const past = (d: SiteView['ducts'][number]) =>
  d.meetings.map((m) => {
    const service = props.view.services.find((s) => s.service === m.service)!
    return `${m.crosses ? 'crosses' : 'lies beside'} ${service.name} ${length(m.from_m)} to ${length(m.to_m)} from its start${service.found ? '' : ', not located yet'}`
  })
const ground = (rise: number) => (Math.abs(rise) < 0.005 ? 'level' : `${signed(rise, 2)} m`)
</script>

<template>
  <div class="words">
    <table v-if="rows.length" aria-label="Between buildings">
      <thead><tr><th>Between</th><th class="n">Apart</th><th class="n">Ground</th><th>In the ground</th></tr></thead>
      <tbody>
        <tr v-for="r in rows" :key="`${r.first}-${r.second}`" :class="{ chosen: building === r.mover }">
          <td><button class="plain" @click="emit('building', r.mover)">{{ nameOf(r.mover) }}</button> <span class="quiet">from</span> {{ nameOf(r.other) }}<span v-if="!r.clear" class="quiet">, another between</span></td>
          <td class="n"><NumberField v-if="r.gap_m > 0" label="" :name="`${nameOf(r.mover)} from ${nameOf(r.other)}`" :value="r.gap_m" :min="0.05" :max="1500" @change="emit('apart', r.mover, r.other, $event)" /><template v-else>touch</template></td>
          <td class="n figure">{{ ground(r.rise) }}</td>
          <td>
            <template v-if="!r.ways.length"><span class="quiet">no duct</span></template>
            <p v-for="d in r.ways" :key="d.duct">
              <button class="plain" @click="emit('choose', 'duct', d.duct)">{{ d.name }}</button> <span class="figure">{{ length(d.length_m) }}</span>{{ d.dug === 'there' ? ', lies there' : `, ${(d.dig_minutes / 60).toFixed(1)} h to dig${d.size.spoil_m3 ? `, ${d.size.spoil_m3} m³ of spoil` : ''}` }}
              <span v-for="(p, i) in past(d)" :key="i" class="by-hand">{{ p }}: by hand there.</span>
            </p>
          </td>
        </tr>
      </tbody>
    </table>
    <p v-else class="quiet">One building stands here. Another, such as a garden house, is drawn with Building above.</p>
    <p class="more">
      <template v-for="b in view.buildings" :key="b.building"><button class="plain" @click="emit('open', b.building)">Plan of {{ b.name }}</button> </template>
      <template v-for="s in view.services" :key="s.service"><button class="plain" @click="emit('choose', 'buried_service', s.service)">{{ CARRIED[s.carries].name }}: {{ s.name }}</button> </template>
    </p>
    <p class="quiet">What is not drawn here may lie there all the same: ask the owner and the utilities, and have it located before the ground is opened.</p>
  </div>
</template>

<style scoped>
.words {
  padding: 6px 12px 8px;
  border-top: 1px solid var(--granite-mid);
  font-size: 12.5px;
}
table {
  width: 100%;
  border-collapse: collapse;
}
th {
  text-align: left;
  font-weight: 600;
  color: var(--granite);
  padding: 2px 8px 2px 0;
}
td {
  padding: 3px 8px 3px 0;
  border-top: 1px solid var(--granite-light);
  vertical-align: middle;
}
.n {
  width: 96px;
  text-align: right;
}
tr.chosen td {
  background: var(--heather-wash);
}
td p {
  margin: 0 0 2px;
}
.by-hand {
  display: block;
  color: var(--rust);
}
.more {
  margin: 6px 0 2px;
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
}
</style>
