<script setup lang="ts">
import { computed } from 'vue'

/** The face of a thing to scale, as its fields say it: as wide and as many units as it is, its ports by what they give. */
const props = defineProps<{ values: Record<string, string> }>()
const WIDE = 240
const RACK_MM = 482.6
const UNIT_MM = 44.45
const scale = WIDE / RACK_MM
const number = (key: string) => Number((props.values[key] ?? '').replace(',', '.')) || 0
const ports = computed(() => {
  const said = props.values['groups'] || props.values['ports'] || ''
  return [...said.matchAll(/(\d+)\s*[x×*]\s*(\d+)(\s+class\s+\d)?(\s+cage)?/g)].flatMap((m) =>
    Array.from({ length: Math.min(Number(m[1]), 60) }, () => ({ fast: Number(m[2]) > 1000, fed: !!m[3], cage: !!m[4] })),
  )
})
const box = computed(() => {
  const wide = Math.min(Math.max(number('wide_mm') || 200, 40), RACK_MM) * scale
  const high = Math.max(number('units') || 1, 1) * UNIT_MM * scale
  return { wide: number('units') ? WIDE : wide, high: Math.min(high, 70) }
})
const faces = computed(() => {
  const rows = ports.value.length > 24 ? 2 : 1
  const columns = Math.max(1, Math.ceil(ports.value.length / rows))
  const size = Math.min(7, (box.value.wide - 10) / columns - 1.5)
  return ports.value.map((port, k) => ({ ...port, size, x: 6 + Math.floor(k / rows) * ((box.value.wide - 10) / columns), y: box.value.high / 2 - (rows === 2 ? size + 0.5 : size / 2) + (k % rows) * (size + 1) }))
})
</script>

<template>
  <svg :width="WIDE + 2" :height="box.high + 2" aria-hidden="true">
    <rect x="1" y="1" :width="box.wide" :height="box.high" rx="1.5" class="face" />
    <rect v-for="(p, k) in faces" :key="k" :x="p.x" :y="p.y" :width="p.size" :height="p.cage ? p.size * 0.6 : p.size" class="port" :class="{ fed: p.fed, fast: p.fast }" />
  </svg>
</template>

<style scoped>
.face {
  fill: var(--paper-deep);
  stroke: var(--granite);
}
.port {
  fill: var(--paper);
  stroke: var(--granite);
  stroke-width: 0.8;
}
.port.fed {
  fill: var(--tint-3);
}
.port.fast {
  stroke: var(--heather);
  stroke-width: 1.4;
}
</style>
