<script setup lang="ts">
import { computed } from 'vue'
import type { SettingsSheet } from '@/api/types'

const props = defineProps<{ sheet: SettingsSheet }>()
const used = computed(() => props.sheet.ports.filter((p) => p.enabled))
const off = computed(() => props.sheet.ports.length - used.value.length)
</script>

<template>
  <table class="ledger">
    <thead>
      <tr><th>Switch</th><th class="number">Port</th><th>Name</th><th class="number">Untagged</th><th>Tagged</th><th>Power</th><th>Why</th></tr>
    </thead>
    <tbody>
      <tr v-for="p in used" :key="`${p.switch}-${p.port}`">
        <td>{{ p.switch_name }}</td>
        <td class="number">{{ p.port }}</td>
        <td>{{ p.name }}</td>
        <td class="number">{{ p.untagged_vlan ?? '' }}</td>
        <td class="figure">{{ p.tagged_vlans.join(' ') }}</td>
        <td>{{ p.power ? 'on' : 'off' }}</td>
        <td class="quiet condensed">{{ p.reason }}</td>
      </tr>
    </tbody>
  </table>
  <p v-if="off" class="quiet">{{ off }} unused ports are switched off.</p>
  <p v-if="!sheet.ports.length" class="quiet">No switch is chosen yet; see Power.</p>
</template>
