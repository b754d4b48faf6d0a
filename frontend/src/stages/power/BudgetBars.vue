<script setup lang="ts">
import { computed } from 'vue'
import type { SwitchBudget } from '@/api/types'

const props = defineProps<{ budget: SwitchBudget }>()

const most = computed(() => Math.max(props.budget.budget_w, props.budget.reserved_w, 1) * 1.05)
const rows = computed(() => [
  { name: 'Reserved by class', watts: props.budget.reserved_w, counts: props.budget.allocates === 'class' },
  { name: 'Rated, over each run', watts: props.budget.rated_w, counts: props.budget.allocates === 'negotiated' },
  { name: 'Expected', watts: props.budget.expected_w, counts: false },
])
const at = (watts: number) => `${(100 * watts) / most.value}%`

function tone(watts: number): string {
  if (watts > props.budget.budget_w) return 'not_met'
  return watts > props.budget.usable_w ? 'near' : 'met'
}
const WORD = { met: 'inside', near: 'eats the headroom', not_met: 'over' } as Record<string, string>
</script>

<template>
  <div class="bars" role="group" :aria-label="`Power of ${budget.name}`">
    <div v-for="row in rows" :key="row.name" class="row">
      <span :class="{ counts: row.counts }">{{ row.name }}<template v-if="row.counts"> (counts)</template></span>
      <div class="track">
        <div class="fill" :class="tone(row.watts)" :style="{ width: at(row.watts) }" />
        <div class="mark usable" :style="{ left: at(budget.usable_w) }" />
        <div class="mark" :style="{ left: at(budget.budget_w) }" />
      </div>
      <span class="figure watts">{{ row.watts.toFixed(1) }} W</span>
      <span class="quiet word">{{ WORD[tone(row.watts)] }}</span>
    </div>
    <p class="quiet">
      Budget <span class="figure">{{ budget.budget_w }} W</span>, of which <span class="figure">{{ budget.usable_w }} W</span> after
      headroom<template v-if="budget.tipped_by">; {{ budget.tipped_by }} tips it</template>.<template v-if="budget.dark_first?.length"> If the watts run out goes dark first: {{ budget.dark_first.join(', ') }}.</template>
    </p>
  </div>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: 204px minmax(60px, 1fr) 66px 104px;
  gap: 8px;
  align-items: center;
  min-height: 20px;
}
.counts {
  font-weight: 600;
}
.track {
  position: relative;
  height: 10px;
  background: var(--granite-light);
}
.fill {
  height: 100%;
  background: var(--moss-line);
}
.fill.near {
  background: var(--gorse);
}
.fill.not_met {
  background: var(--rust);
}
.mark {
  position: absolute;
  top: -3px;
  bottom: -3px;
  border-left: 2px solid var(--ink);
}
.mark.usable {
  border-left-style: dotted;
}
.watts {
  text-align: right;
}
.word {
  font: 400 12px var(--condensed);
}
</style>
