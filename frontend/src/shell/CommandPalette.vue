<script setup lang="ts">
import Dialog from 'primevue/dialog'
import InputText from 'primevue/inputtext'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { useDesign } from '@/document/store'
import { imperial } from '@/document/units'
import { openedFigure } from '@/figures/useFigures'
import { STAGES, type Stage } from '@/stages/registry'
import { tool, toolsOf } from '@/sheet/tools'
import { shortcuts } from './useShortcuts'

const mode = defineModel<'closed' | 'commands' | 'keys'>({ required: true })
const emit = defineEmits<{ go: [stage: Stage]; floor: [id: string] }>()
const store = useDesign()
const router = useRouter()
const query = ref('')
const at = ref(0)

interface Command {
  name: string
  run: () => void
}

const commands = computed<Command[]>(() => [
  ...STAGES.map((s) => ({ name: `Go to ${s.name}`, run: () => emit('go', s.id) })),
  ...store.floors.map((f) => ({ name: `Show ${f.name}`, run: () => emit('floor', f.id) })),
  ...toolsOf(store.catalogue).map((t) => ({
    name: `Tool: ${t.name}`,
    run: () => {
      tool.value = t.tool
      void router.push(`/p/${store.id}/plan`)
    },
  })),
  ...store.all('device').map((d) => ({
    name: `Select ${d.name}`,
    run: () => {
      emit('floor', d.floor)
      store.selection = { kind: 'device', id: d.id }
    },
  })),
  ...store.all('space').map((s) => ({
    name: `Select ${s.name}`,
    run: () => {
      emit('floor', s.floor)
      store.selection = { kind: 'space', id: s.id }
    },
  })),
  { name: 'Undo', run: store.undo },
  { name: 'Redo', run: store.redo },
  { name: 'Switch metres and feet', run: () => (imperial.value = !imperial.value) },
  { name: 'Figures of the trade', run: () => (openedFigure.value = '') },
  { name: 'List the shortcuts', run: () => setTimeout(() => (mode.value = 'keys')) },
])
const MOST = 9
const found = computed(() => {
  const words = query.value.toLowerCase().split(/\s+/).filter(Boolean)
  return commands.value.filter((c) => words.every((w) => c.name.toLowerCase().includes(w))).slice(0, MOST)
})

watch(mode, () => (query.value = ''))
watch(query, () => (at.value = 0))

function run(command: Command | undefined): void {
  mode.value = 'closed'
  command?.run()
}
</script>

<template>
  <Dialog
    :visible="mode === 'commands'" modal dismissable-mask position="top" header="What to do"
    :style="{ width: '460px' }" @update:visible="mode = 'closed'"
  >
    <InputText
      v-model="query" autofocus fluid placeholder="A stage, a tool, a room or a device" aria-label="Search commands"
      role="combobox" aria-expanded="true" aria-controls="commands" :aria-activedescendant="`command-${at}`"
      @keydown.down.prevent="at = Math.min(at + 1, found.length - 1)" @keydown.up.prevent="at = Math.max(at - 1, 0)"
      @keydown.enter="run(found[at])"
    />
    <ul id="commands" role="listbox" aria-label="Commands">
      <li
        v-for="(command, i) in found" :id="`command-${i}`" :key="command.name" role="option" :aria-selected="i === at"
        :class="{ at: i === at }" @click="run(command)"
      >{{ command.name }}</li>
    </ul>
    <p v-if="!found.length" class="quiet">Nothing is called that.</p>
  </Dialog>
  <Dialog :visible="mode === 'keys'" modal dismissable-mask header="Shortcuts" :pt="{ content: { tabindex: 0 } }" :style="{ width: '460px' }" @update:visible="mode = 'closed'">
    <table class="ledger">
      <tbody>
        <tr v-for="[keys, what] in shortcuts(store.catalogue)" :key="keys + what"><td class="figure">{{ keys }}</td><td>{{ what }}</td></tr>
      </tbody>
    </table>
  </Dialog>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 8px 0 0;
  padding: 0;
}
li {
  cursor: pointer;
  padding: 5px 8px;
  border-radius: 3px;
}
li.at,
li:hover {
  background: var(--heather-wash);
}
</style>
