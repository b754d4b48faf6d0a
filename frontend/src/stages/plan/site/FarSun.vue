<script setup lang="ts">
import Button from 'primevue/button'
import { computed, ref } from 'vue'
import type { FarOffer } from '@/api/types'
import { useFigures } from '@/figures/useFigures'

/** A battery through a grey spell: its charge over the days, what is switched off, and when it is dark. */
const props = defineProps<{ sun: NonNullable<FarOffer['sun']> }>()
const { figures, standing, set } = useFigures()
const WIDE = 300
const HIGH = 118
const PAD = { left: 34, right: 6, top: 8, bottom: 18 }
const STEP_H = 6
const DAY_H = 24
const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec']

const spell = computed(() => props.sun.spell)
const x = (hour: number) => PAD.left + (hour / (spell.value.days * DAY_H)) * (WIDE - PAD.left - PAD.right)
const y = (charge: number) => PAD.top + (1 - charge) * (HIGH - PAD.top - PAD.bottom)
/** The charge is told every six hours, and at the hour in which all ends. */
const path = (charge: number[], end: number | null | undefined) => charge.map((c, k) => `${k ? 'L' : 'M'}${x(Math.min(k * STEP_H, end ?? Infinity)).toFixed(1)} ${y(c).toFixed(1)}`).join('')
const all = computed(() => path(spell.value.charge, spell.value.dark_h))
const shed = computed(() => path(spell.value.charge_shed, spell.value.shed_dark_h))
const differs = computed(() => (spell.value.shed ?? []).length > 0)
const days = computed(() => Array.from({ length: spell.value.days + 1 }, (_, k) => k).filter((k) => k === spell.value.days || (k < spell.value.days - 1 && (spell.value.days <= 10 || k % 5 === 0))))
const chargeAt = (hour: number) => spell.value.charge_shed[Math.min(spell.value.charge_shed.length - 1, Math.floor(hour / STEP_H))] ?? 0

const capital = (words: string) => words[0]!.toUpperCase() + words.slice(1)
const figure = (path: string) => figures.value.find((f) => f.path === path)
function step(path: string, by: number): void {
  const found = figure(path)
  if (!found) return
  const now = Math.max(found.least ?? 1, Number(standing(found).value) + by)
  void set('project', found, Math.min(now, found.most ?? now))
}
const months = computed(() => {
  const found = figure('far.sun_months')
  return found ? (standing(found).value as number[]) : []
})
const typed = ref<string | null>(null)
const trouble = ref('')
/** Twelve numbers as they stand in a table of the place, in a row or with commas. */
function takeMonths(): void {
  const found = figure('far.sun_months')
  const text = (typed.value ?? '').trim()
  // A comma parts numbers where decimals have points, else it is the decimals' own.
  const parts = text.split(text.includes('.') ? /[;,\s]+/ : /[;\s]+/).filter(Boolean)
  const rows = parts.map((t) => Number(t.replace(/,$/, '').replace(',', '.')))
  const bad = rows.some((h) => !Number.isFinite(h) || h < 0 || h > 12)
  trouble.value = rows.length !== 12 || bad ? `Twelve numbers from 0 to 12 are wanted, January first; these are ${rows.length}${bad ? ', and not all are such' : ''}.` : ''
  if (!found || trouble.value) return
  typed.value = null
  void set('project', found, rows)
}
</script>

<template>
  <section class="sun" aria-label="Sun">
    <svg :viewBox="`0 0 ${WIDE} ${HIGH}`" role="img" :aria-label="spell.dark_h === null || spell.dark_h === undefined ? 'It stays up through the grey spell' : `Dark after ${spell.dark_h} hours of the grey spell`" data-sun-spell>
      <path v-for="c in [0, 0.5, 1]" :key="c" :d="`M${PAD.left} ${y(c)}H${WIDE - PAD.right}`" class="grid" />
      <text v-for="c in [0, 0.5, 1]" :key="`t${c}`" :x="PAD.left - 4" :y="y(c) + 4" text-anchor="end">{{ 100 * c }}%</text>
      <text v-for="d in days" :key="d" :x="x(d * DAY_H)" :y="HIGH - 4" :text-anchor="d === spell.days ? 'end' : 'middle'">{{ d === spell.days ? `day ${d}` : d }}</text>
      <path v-if="differs" :d="shed" class="shed" />
      <path :d="all" class="all" />
      <path v-if="spell.dark_h !== null && spell.dark_h !== undefined" :d="`M${x(spell.dark_h)} ${PAD.top}V${y(0)}`" class="dark" />
      <circle v-for="s in spell.shed" :key="s.name" :cx="x(s.hour)" :cy="y(chargeAt(s.hour))" r="4" class="off" />
    </svg>
    <p v-if="spell.dark_h !== null && spell.dark_h !== undefined" class="not_met">Dark after <b class="figure">{{ spell.dark_h }} h</b> of a grey spell of {{ spell.days }} days with {{ Math.round(100 * spell.share) }} % of the sun.</p>
    <p v-else>Stays up through {{ spell.days }} grey days with {{ Math.round(100 * spell.share) }} % of the sun; without any it is dark after <b class="figure">{{ sun.dark_h }} h</b>.</p>
    <p v-for="s in spell.shed" :key="s.name" class="quiet">{{ capital(s.name) }}, {{ s.watts }} W, off from hour {{ s.hour }} on{{ spell.dark_h === null || spell.dark_h === undefined ? ', if it is set so' : spell.shed_dark_h === null || spell.shed_dark_h === undefined ? ': the rest stays up' : `: the rest until hour ${spell.shed_dark_h}` }}</p>
    <p class="steps">
      <span>Batteries for <b class="figure">{{ sun.days }}</b> days of cloud</span>
      <Button icon="pi pi-minus" size="small" text aria-label="One day of cloud less" @click="step('far.cloud_days', -1)" />
      <Button icon="pi pi-plus" size="small" text aria-label="One day of cloud more" data-cloud-more @click="step('far.cloud_days', 1)" />
    </p>
    <p class="steps">
      <span>A grey spell of <b class="figure">{{ spell.days }}</b> days</span>
      <Button icon="pi pi-minus" size="small" text aria-label="One grey day less" @click="step('far.grey_days', -1)" />
      <Button icon="pi pi-plus" size="small" text aria-label="One grey day more" data-grey-more @click="step('far.grey_days', 1)" />
    </p>
    <p><b class="figure">{{ sun.panel_w }} W</b> of panels, {{ sun.wanted_w.toFixed(0) }} W wanted at {{ sun.hours }} h of sun a day {{ sun.month ? `in ${sun.month}` : 'in the worst month' }}.</p>
    <div v-if="sun.month" class="months" role="img" :aria-label="`Hours of sun by month, least in ${sun.month}`">
      <span v-for="(h, k) in months" :key="k" :class="{ worst: sun.month.startsWith(MONTHS[k]!) }"><i :style="{ height: `${Math.min(44, 6 * h)}px` }" /><small class="figure">{{ h }}</small>{{ MONTHS[k]![0] }}</span>
    </div>
    <p v-if="typed === null" class="steps"><Button :label="sun.month ? 'Another table of its sun' : 'Type its sun, month by month'" size="small" text data-sun-table @click="typed = sun.month ? months.join(' ') : ''" /></p>
    <form v-else @submit.prevent="takeMonths">
      <label>Hours of full sun a day, January to December<input v-model="typed" type="text" placeholder="0.7 1.3 2.4 3.6 4.6 4.9 4.8 4.2 3.0 1.8 0.9 0.5" data-sun-typed /></label>
      <p v-if="trouble" role="alert" class="not_met">{{ trouble }}</p>
      <Button label="Go by it" type="submit" size="small" outlined /> <Button label="Leave it" size="small" text @click="typed = null" />
    </form>
  </section>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
  background: var(--paper-deep);
}
.grid {
  stroke: var(--granite-light);
}
.all,
.shed {
  fill: none;
  stroke: var(--heather);
  stroke-width: 2;
}
.shed {
  stroke: var(--moss);
  stroke-dasharray: 5 3;
}
.dark {
  stroke: var(--rust);
  stroke-width: 1.6;
}
.off {
  fill: var(--paper);
  stroke: var(--moss);
  stroke-width: 2;
}
text {
  font: 500 11px var(--mono);
  fill: var(--ink);
}
p {
  margin: 3px 0;
}
.steps {
  display: flex;
  align-items: center;
  gap: 2px;
}
.steps span {
  flex: 1;
}
.months {
  display: flex;
  gap: 2px;
  align-items: end;
  margin: 4px 0;
}
.months span {
  flex: 1;
  text-align: center;
  font: 500 11px var(--condensed);
}
.months i {
  display: block;
  background: var(--gorse);
  opacity: 0.6;
}
.months .worst i {
  background: var(--rust);
  opacity: 1;
}
.months small {
  display: block;
  font-size: 10px;
}
label {
  display: grid;
  gap: 2px;
}
input {
  font: 500 12.5px var(--mono);
  padding: 5px 6px;
  border: 1px solid var(--granite-mid);
  background: var(--paper);
  color: var(--ink);
}
@media (pointer: coarse) {
  input {
    min-height: 44px;
  }
}
</style>
