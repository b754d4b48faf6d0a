<script setup lang="ts">
import { computed } from 'vue'
import type { SwitchUplink } from '@/api/types'
import { speed } from '@/document/units'

/** A switch's way up: where it leads, and what all behind it ask for over what it carries. */
const props = defineProps<{ way?: SwitchUplink | undefined }>()
const ratio = computed(() => (props.way ? props.way.load_mbps / props.way.speed_mbps : 0))
const OVER = { cord: 'a cord', copper: 'copper', fibre: 'fibre' } as const
</script>

<template>
  <p v-if="way" class="way" :data-way-up="way.switch">
    <span>port {{ way.port }} up to {{ way.to_name }}{{ way.to_port ? ` port ${way.to_port}` : '' }}</span>
    <span class="quiet">over {{ OVER[way.medium] }}</span>
    <span class="figure">{{ speed(way.speed_mbps) }}</span>
    <span class="quiet">behind it <span class="figure">{{ speed(way.load_mbps) }}</span>, {{ ratio >= 1 ? `${ratio.toFixed(1)} to 1` : 'all at once' }}</span>
    <span v-if="way.converter" class="near">wants a media converter</span>
  </p>
</template>

<style scoped>
.way {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
  font-size: 12px;
  margin-bottom: 2px;
}
</style>
