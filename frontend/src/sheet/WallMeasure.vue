<script setup lang="ts">
import InputText from 'primevue/inputtext'
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import type { Point, Wall } from '@/api/types'
import { bearing, distance } from '@/document/geometry'
import { readLengthAndAngle } from '@/document/lengths'
import { length, lengthUnit } from '@/document/units'
import { useMade } from '@/document/useMade'
import type { Viewport } from './useViewport'

/** Length and angle of the wall that is chosen, beside it on the drawing: pressed, they are typed. */
const props = defineProps<{ wall: Wall; viewport: Viewport }>()
const gestures = useMade()
const OFF_PX = 20
const typed = ref<string | null>(null)
const field = useTemplateRef<{ $el: HTMLInputElement }>('field')

const words = computed(() => {
  const { a, b } = props.wall as { a: Point; b: Point }
  return `${length(distance(a, b), 2)} ∠ ${bearing(a, b).toFixed(0)}°`
})
const style = computed(() => {
  const [a, b] = [props.wall.a, props.wall.b].map((p) => props.viewport.toScreen(p as Point)) as [Point, Point]
  const size = Math.max(1, Math.hypot(b[0] - a[0], b[1] - a[1]))
  // Beside it, and never on its handles.
  const [x, y] = [(a[0] + b[0]) / 2 - ((b[1] - a[1]) / size) * OFF_PX, (a[1] + b[1]) / 2 + ((b[0] - a[0]) / size) * OFF_PX]
  return { left: `${x}px`, top: `${y}px` }
})

watch(() => props.wall.id, () => (typed.value = null))

async function open(): Promise<void> {
  typed.value = ''
  await nextTick()
  field.value?.$el.focus()
}

async function take(): Promise<void> {
  const said = readLengthAndAngle(typed.value ?? '')
  if (!said) return
  const done = await gestures.make('Length of wall', { do: 'measure', wall: props.wall.id, hold: 'a', length_m: said.metres, angle_deg: said.angle ?? null })
  if (done) typed.value = null
}
</script>

<template>
  <div class="measure" :style="style" data-measure>
    <InputText
      v-if="typed !== null" ref="field" v-model="typed" size="small" class="figure" maxlength="20" :placeholder="`${lengthUnit()}, angle`"
      aria-label="Length and angle of this wall" @keydown.enter.prevent="take" @keydown.esc.stop.prevent="typed = null" @blur="typed = null"
    />
    <button v-else class="plain" :aria-label="`${words}: type it`" @click="open">{{ words }}</button>
    <p v-if="gestures.why.value" role="alert">{{ gestures.why.value }}</p>
  </div>
</template>

<style scoped>
.measure {
  position: absolute;
  transform: translate(-50%, -50%);
}
button {
  padding: 1px 6px;
  border: 1px solid var(--heather);
  border-radius: 3px;
  background: var(--paper);
  color: var(--heather);
  font: 500 12px/1.4 var(--mono);
  white-space: nowrap;
}
.figure {
  width: 116px;
}
p {
  margin: 2px 0 0;
  padding: 2px 6px;
  max-width: 220px;
  background: var(--paper);
  color: var(--rust);
  font: 500 12px/1.3 var(--condensed);
}
@media (pointer: coarse) {
  button {
    min-height: 44px;
  }
}
</style>
