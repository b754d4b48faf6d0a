<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, useTemplateRef } from 'vue'
import type { Order } from '@/api/types'
import { money } from '@/document/units'

/** The price as a measured bar: what of it is parts, work, travel and tax, and where the budget ends. */
const props = defineProps<{ sum: Order['sum']; currency: string; budget: number | null }>()
const frame = useTemplateRef<HTMLElement>('frame')
const { width } = useElementSize(frame)
const most = computed(() => Math.max(props.sum.total, props.budget ?? 0, 1))
const x = (amount: number) => (amount / most.value) * Math.max(width.value - 2, 0)
const pieces = computed(() => {
  let from = 0
  return [
    { key: 'parts', name: 'Parts', says: 'with margin', amount: props.sum.parts },
    { key: 'work', name: 'Work', says: `${(props.sum.minutes / 60).toFixed(1)} h`, amount: props.sum.labour },
    { key: 'travel', name: 'Travel', says: `${props.sum.days} ${props.sum.days === 1 ? 'day' : 'days'}`, amount: props.sum.travel },
    { key: 'tax', name: 'Tax', says: '', amount: props.sum.tax },
  ].map((p) => {
    const piece = { ...p, from }
    from += p.amount
    return piece
  })
})
const over = computed(() => (props.budget === null ? 0 : props.sum.total - props.budget))
</script>

<template>
  <div class="price">
    <p class="total"><b class="figure">{{ money(sum.total) }}</b> {{ currency }} with tax
      <span v-if="budget !== null" :class="over > 0 ? 'not_met' : 'met'">{{ over > 0 ? `${money(over)} over the budget` : `${money(-over)} under the budget` }}</span>
    </p>
    <div ref="frame">
      <svg :width="width" height="30" role="img" :aria-label="`Parts ${money(sum.parts)}, work ${money(sum.labour)}, travel ${money(sum.travel)}, tax ${money(sum.tax)} ${currency}`">
        <rect v-for="p in pieces" :key="p.key" :x="1 + x(p.from)" y="6" :width="x(p.amount)" height="16" :class="p.key" />
        <path v-if="budget !== null" :d="`M${1 + x(budget)} 0V28`" class="budget" />
      </svg>
    </div>
    <dl>
      <div v-for="p in pieces" :key="p.key"><dt><span class="swatch" :class="p.key" />{{ p.name }} <span class="quiet">{{ p.says }}</span></dt><dd class="figure">{{ money(p.amount) }}</dd></div>
      <div v-if="budget !== null"><dt><span class="swatch line" />Budget</dt><dd class="figure">{{ money(budget) }}</dd></div>
    </dl>
  </div>
</template>

<style scoped>
.price {
  margin-bottom: 12px;
}
.total b {
  font-size: 18px;
  font-weight: 500;
}
.total span {
  margin-left: 10px;
  font-weight: 600;
}
svg {
  display: block;
}
rect {
  stroke: var(--ink);
  stroke-width: 1;
}
.parts {
  fill: var(--tint-3);
  background: var(--tint-3);
}
.work {
  fill: var(--tint-5);
  background: var(--tint-5);
}
.travel {
  fill: var(--tarn);
  background: var(--tarn);
}
.tax {
  fill: var(--granite-light);
  background: var(--granite-light);
}
.budget {
  stroke: var(--rust);
  stroke-width: 2.5;
}
dl {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 22px;
  margin: 2px 0 0;
}
dl div {
  display: flex;
  gap: 8px;
}
dd {
  margin: 0;
}
.swatch {
  display: inline-block;
  width: 12px;
  height: 10px;
  border: 1px solid var(--ink);
  margin-right: 5px;
}
.swatch.line {
  width: 0;
  border: 0;
  border-left: 2.5px solid var(--rust);
}
</style>
