<script setup lang="ts">
import Select from 'primevue/select'
import Slider from 'primevue/slider'
import { computed } from 'vue'
import type { Ray, SpotView } from '@/api/types'
import { dbm, length } from '@/document/units'

/** The sum of a ray, line by line, and what would be if something else stood in one place. */
const props = defineProps<{ spot: SpotView; ray: Ray }>()
const instead = defineModel<Record<number, string>>({ required: true })
const DRAWN = 'as-drawn'
const chosen = (k: number) => props.ray.crossings[k]?.instead.find((o) => o.construction === instead.value[k])
/** What may stand in a place, from what takes least to what takes most; as drawn at its own place among them. */
const scales = computed(() =>
  props.ray.crossings.map((c) =>
    [{ construction: DRAWN, change_db: 0 }, ...c.instead].sort((a, b) => b.change_db - a.change_db).map((o) => o.construction),
  ),
)
const at = (k: number) => scales.value[k]!.indexOf(instead.value[k] ?? DRAWN)
function slide(k: number, step: number): void {
  const to = scales.value[k]![step]
  instead.value = to === undefined || to === DRAWN ? {} : { [k]: to }
}
const signed = (db: number) => `${db > 0 ? '+' : '−'}${Math.abs(db).toFixed(1)}`
const how = (k: number) => {
  const c = props.ray.crossings[k]!
  if (c.factor === 1) return ''
  return c.kind === 'wall' || c.kind === 'opening' ? `${c.loss_db} dB × ${c.factor.toFixed(2)} for the angle` : `${c.loss_db} dB × ${c.factor.toFixed(2)} for their number`
}
</script>

<template>
  <div class="sum" tabindex="0" role="region" aria-label="Sum of the ray">
    <table>
      <tbody>
        <tr><td></td><td>Distance, {{ length(ray.distance_m) }}</td><td class="figure">{{ ray.free_db.toFixed(1) }}</td></tr>
        <tr v-if="ray.antenna_db >= 0.05"><td></td><td>Beside the antenna’s axis</td><td class="figure">{{ ray.antenna_db.toFixed(1) }}</td></tr>
        <template v-for="(c, k) in ray.crossings" :key="k">
          <tr :data-crossing="c.element">
            <td class="figure number">{{ k + 1 }}</td>
            <td>
              <span v-if="c.kind === 'leaves'">{{ c.label }}</span>
              <Select
                v-else
                :model-value="instead[k] ?? DRAWN" :options="[{ construction: DRAWN, label: c.label, change_db: 0 }, ...c.instead]" option-label="label" option-value="construction" size="small" class="swap"
                :aria-label="`What stands at ${k + 1}`" @update:model-value="instead = $event === DRAWN ? {} : { [k]: $event }"
              >
                <template #option="{ option }"><span>{{ option.label }}</span> <span v-if="option.construction !== DRAWN" class="figure option">{{ signed(option.change_db) }} dB</span></template>
              </Select>
              <Slider
                v-if="c.instead.length" :model-value="at(k)" :min="0" :max="scales[k]!.length - 1" :step="1" class="lighter" :pt="{ handle: { 'aria-valuetext': chosen(k)?.label ?? c.label } }"
                :aria-label="`Lighter or heavier at ${k + 1}`" @update:model-value="slide(k, $event as number)"
              />
              <span v-if="how(k)" class="quiet how">{{ how(k) }}</span>
            </td>
            <td class="figure">{{ c.takes_db.toFixed(1) }}</td>
          </tr>
          <tr v-if="chosen(k)" class="then"><td></td><td colspan="2">With {{ chosen(k)!.label.toLowerCase() }}: <b class="figure">{{ dbm(chosen(k)!.level_dbm) }}</b>, {{ signed(chosen(k)!.change_db) }} dB</td></tr>
        </template>
        <tr class="all"><td></td><td>Lost on the way</td><td class="figure">{{ ray.loss_db.toFixed(1) }}</td></tr>
      </tbody>
    </table>
    <p>Down: {{ ray.power_dbm }} dBm + {{ ray.gain_dbi }} + {{ spot.client_gain_dbi }} dBi − {{ ray.loss_db.toFixed(1) }} = <b class="figure">{{ dbm(ray.downlink_dbm) }}</b></p>
    <p>Up, {{ spot.client.toLowerCase() }}: {{ spot.client_power_dbm }} dBm + {{ spot.client_gain_dbi }} + {{ ray.gain_dbi }} dBi − {{ ray.loss_db.toFixed(1) }} = <b class="figure">{{ dbm(ray.uplink_dbm) }}</b></p>
    <p class="quiet">{{ ray.name }}: {{ ray.power_reason }}. Over the noise: {{ (Math.min(ray.downlink_dbm, ray.uplink_dbm) - spot.noise_dbm).toFixed(0) }} dB.</p>
    <p v-for="u in spot.used" :key="u.figure" class="quiet">{{ u.label }}: {{ u.value }}<template v-if="u.whose !== 'shipped'">, the {{ u.whose }}’s</template></p>
  </div>
</template>

<style scoped>
.sum {
  overflow: auto;
  padding: 6px 10px;
  font-size: 12.5px;
}
table {
  width: 100%;
  border-collapse: collapse;
}
td {
  padding: 1px 4px;
  vertical-align: top;
}
td:last-child {
  text-align: right;
}
.number {
  font-weight: 600;
  width: 18px;
}
.swap {
  width: 236px;
}
.swap :deep(.p-select-label) {
  padding: 1px 6px;
}
.lighter {
  width: 216px;
  margin: 9px 10px 8px;
}
.how {
  display: block;
  font: 400 12px/1.3 var(--condensed);
}
.option {
  margin-left: auto;
  padding-left: 10px;
}
.then td {
  color: var(--heather);
}
.all td {
  border-top: 1px solid var(--granite-mid);
  font-weight: 600;
}
p.quiet {
  font: 400 12px/1.3 var(--condensed);
}
</style>
