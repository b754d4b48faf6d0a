<script setup lang="ts">
import Button from 'primevue/button'
import InputNumber from 'primevue/inputnumber'
import { computed, ref } from 'vue'
import Choices from '@/controls/Choices.vue'
import type { CableTestSaid } from '@/api/types'
import { useCableTests } from '@/answers/useCableTests'
import { fromShown, inUnits, lengthUnit, when } from '@/document/units'

/** What the tester said of each cable of a run. A test that was wrong is corrected by a later one. */
const props = defineProps<{ device: string }>()
const { cables, unsent, add } = useCableTests()
const mine = computed(() => cables.value.filter((c) => c.device === props.device))
const cable = ref(1)
const result = ref<CableTestSaid['result']>('pass')
const length = ref<number | null>(null)
const RESULTS = [{ value: 'pass', label: 'Pass' }, { value: 'marginal', label: 'Marginal' }, { value: 'fail', label: 'Fail' }]
const choices = computed(() => mine.value.map((c) => ({ value: c.cable, label: `Cable ${c.cable}` })))

const keptHere = (number: number) => unsent.value.filter((t) => t.device === props.device && (t.cable ?? 1) === number).at(-1)

function save(): void {
  const length_m = length.value === null ? null : Number(fromShown(length.value).toFixed(3))
  if (!add({ device: props.device, cable: cable.value, result: result.value, length_m })) return
  length.value = null
  cable.value = (mine.value.find((c) => c.verdict === 'untested' && !keptHere(c.cable)) ?? mine.value[0])?.cable ?? 1
}
</script>

<template>
  <section v-if="mine.length" class="tests" aria-label="Cable tests">
    <h3>Tested</h3>
    <p v-for="c in mine" :key="c.cable" :data-tested="c.cable">
      <template v-if="mine.length > 1">Cable {{ c.cable }}: </template>
      <span class="verdict" :class="c.verdict">{{ inUnits(c.reason) }}</span>
      <span v-if="c.last" class="quiet">, {{ when(c.last.at) }}<template v-if="c.tests > 1">, test {{ c.tests }}</template></span>
      <span v-if="keptHere(c.cable)" class="near">; {{ keptHere(c.cable)!.result }}, kept here</span>
    </p>
    <form @submit.prevent="save">
      <Choices v-if="choices.length > 1" v-model="cable" :options="choices" aria-label="Which cable" />
      <Choices v-model="result" :options="RESULTS" aria-label="What the tester said" />
      <div class="row">
        <InputNumber v-model="length" :min="0.1" :max-fraction-digits="1" :suffix="` ${lengthUnit()}`" size="small" fluid aria-label="Length measured" placeholder="Length measured" locale="en-GB" />
        <Button type="submit" label="Note the test" size="small" outlined />
      </div>
    </form>
  </section>
</template>

<style scoped>
.tests {
  border-top: 1px solid var(--granite-light);
  margin-top: 10px;
  padding-top: 8px;
  display: grid;
  gap: 4px;
}
form {
  display: grid;
  gap: 6px;
  justify-items: start;
  margin-top: 4px;
}
.row {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 8px;
  width: 100%;
}
.verdict {
  font-weight: 600;
}
.untested {
  color: var(--granite);
  font-weight: 400;
}
</style>
