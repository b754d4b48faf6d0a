<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { computed, ref } from 'vue'
import type { ControllerView } from '@/api/types'

/** A controller's gear as it hangs on one another: how each stands, its firmware, what of it is not as planned. */
type Row = ControllerView['devices'][number]
const props = defineProps<{ devices: readonly Row[]; standin: boolean }>()
const emit = defineEmits<{ on: [serial: string, doing: 'adopt' | 'update' | 'blink' | 'still' | 'release']; push: [device: string]; match: [device: string, serial: string] }>()
const STANDS: Record<string, string> = {
  found: 'found', held_elsewhere: 'held elsewhere', adopting: 'is adopted', updating: 'updates', online: 'online', offline: 'off', cut_off: 'cut off', scanning: 'listens',
}
const naming = ref('')
/** What tells nothing apart is shown where something that is managed hangs on it. */
const shown = computed(() => {
  const needed = new Set<string>()
  const byId = new Map(props.devices.map((d) => [d.id, d]))
  for (const d of props.devices) for (let at: Row | undefined = d.managed ? d : undefined; at && !needed.has(at.id); at = byId.get(at.parent ?? '')) needed.add(at.id)
  return props.devices.filter((d) => needed.has(d.id))
})
const word = (d: Row) => (d.managed ? (d.stand ? STANDS[d.stand]! : 'not seen yet') : 'plain')
const slow = (d: Row) => d.link_mbps && d.planned_mbps && d.link_mbps < d.planned_mbps

function named(device: string, event: Event): void {
  emit('match', device, (event.target as HTMLInputElement).value)
  naming.value = ''
}
</script>

<template>
  <ul class="tree" role="list">
    <li v-for="d in shown" :key="d.id" :class="[d.stand ?? (d.managed ? 'unseen' : 'plain'), { air: d.over_air }]" :style="{ paddingLeft: `${d.depth * 22}px` }" :data-gear="d.id">
      <span class="limb" aria-hidden="true"><i v-for="k in d.depth" :key="k" :class="{ last: k === d.depth }" /></span>
      <span class="light" aria-hidden="true" :class="{ blink: d.blinking }" />
      <span class="who"><b>{{ d.name }}</b><small :title="d.model"><template v-if="d.port">port {{ d.port }} · </template>{{ d.model }}</small><small v-if="d.elsewhere" class="not_met elsewhere" data-elsewhere>{{ d.elsewhere }}</small></span>
      <span class="state"><span class="word">{{ word(d) }}</span><small v-if="d.serial" class="figure">{{ d.serial }}</small></span>
      <span class="facts"><template v-if="d.stand === 'online'"><small>firmware {{ d.firmware }}<template v-if="d.offers"> → {{ d.offers }}</template></small><small v-if="d.link_mbps" :class="{ not_met: slow(d) }">{{ d.link_mbps }} Mb/s<template v-if="d.watts"> · {{ d.watts.toFixed(1) }} W</template></small></template></span>
      <span class="do">
        <Button v-if="d.stand === 'found'" label="Adopt" size="small" text @click="emit('on', d.serial, 'adopt')" />
        <Button v-else-if="d.stand === 'held_elsewhere' && standin" label="Release and reset" size="small" text @click="emit('on', d.serial, 'release')" />
        <Button v-else-if="d.stand === 'online' && d.differs" :label="`${d.differs} differ`" size="small" text :aria-label="`Push ${d.differs} settings to ${d.name}`" @click="emit('push', d.id)" />
        <span v-else-if="d.stand === 'online'" class="met">as planned</span>
        <Button v-if="d.stand && d.serial" :icon="d.blinking ? 'pi pi-eye-slash' : 'pi pi-lightbulb'" text size="small" :aria-label="d.blinking ? `${d.name} need not blink` : `Let ${d.name} blink`" @click="emit('on', d.serial, d.blinking ? 'still' : 'blink')" />
        <InputText v-if="naming === d.id" size="small" placeholder="serial" class="serial" :aria-label="`Serial of ${d.name}`" @change="named(d.id, $event)" @keydown.esc="naming = ''" />
        <Button v-else-if="d.managed && !d.serial" label="Serial" text size="small" :aria-label="`Type the serial of ${d.name}`" @click="naming = d.id" />
      </span>
    </li>
  </ul>
</template>

<style scoped>
.tree {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  position: relative;
  display: grid;
  grid-template-columns: 14px minmax(0, 1fr) 92px 92px auto;
  align-items: center;
  gap: 0 8px;
  min-height: 38px;
}
.limb {
  position: absolute;
  inset: 0 auto 0 0;
  pointer-events: none;
}
.limb i {
  position: absolute;
  top: 0;
  bottom: 0;
  width: 22px;
  border-left: 1px solid transparent;
}
.limb i:nth-child(1) { left: 7px; }
.limb i:nth-child(2) { left: 29px; }
.limb i:nth-child(3) { left: 51px; }
.limb i:nth-child(4) { left: 73px; }
.limb i.last {
  border-left: 1px solid var(--granite-mid);
  bottom: 50%;
  border-bottom: 1px solid var(--granite-mid);
  width: 14px;
}
.air .limb i.last {
  border-left-style: dashed;
  border-bottom-style: dashed;
}
.light {
  width: 12px;
  height: 12px;
  border: 2px solid var(--granite-mid);
  border-radius: 50%;
  background: var(--paper);
  z-index: 1;
}
.online .light {
  background: var(--moss-line);
  border-color: var(--moss-line);
}
.found .light {
  background: var(--gorse);
  border-color: var(--gorse);
}
.adopting .light,
.scanning .light,
.updating .light {
  border-color: var(--tarn);
  background: linear-gradient(90deg, var(--tarn) 50%, transparent 50%);
}
.offline .light,
.cut_off .light,
.held_elsewhere .light {
  border-color: var(--rust);
  border-radius: 2px;
}
.plain .light,
.unseen .light {
  border-style: dotted;
}
.blink {
  animation: blink 0.8s steps(2) infinite;
}
@keyframes blink {
  50% {
    opacity: 0.15;
  }
}
.who,
.state,
.facts {
  display: flex;
  flex-direction: column;
  min-width: 0;
}
small {
  font: 400 11px/1.3 var(--condensed);
  color: var(--granite);
}
.who small:not(.elsewhere) {
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.do {
  min-width: 112px;
}
.do :deep(.p-button) {
  padding: 3px 5px;
}
small.not_met {
  color: var(--rust);
}
small.figure {
  font-family: var(--mono);
}
.word {
  font: 600 12px var(--condensed);
}
.cut_off .word,
.offline .word,
.held_elsewhere .word {
  color: var(--rust);
}
.unseen .word,
.plain .word {
  color: var(--granite);
  font-weight: 400;
}
.do {
  display: flex;
  align-items: center;
  justify-content: flex-end;
  font: 400 12px var(--condensed);
}
.serial {
  width: 110px;
}
</style>
