<script setup lang="ts">
import Dialog from 'primevue/dialog'
import InputText from 'primevue/inputtext'
import { computed, ref, watch } from 'vue'
import { useDesign } from '@/document/store'
import { imperial } from '@/document/units'
import { openedFigure } from '@/figures/useFigures'
import type { Shortcut } from './keys'

const props = defineProps<{ shortcuts: Shortcut[] }>()
const mode = defineModel<'closed' | 'commands' | 'keys'>({ required: true })
const emit = defineEmits<{ floor: [id: string] }>()
const store = useDesign()
const query = ref('')
const at = ref(0)

/** What has a name on the sheet and can be found by it. */
const NAMED = ['device', 'space', 'equipment_room', 'duct', 'panel', 'socket', 'light', 'mains_route', 'zone', 'line_entry'] as const

interface Command {
  name: string
  run: () => void
}

const commands = computed<Command[]>(() => [
  ...props.shortcuts.flatMap((s) => (s.command && s.run ? [{ name: s.command, run: s.run }] : [])),
  ...store.floors.map((f) => ({ name: `Show ${f.name}`, run: () => emit('floor', f.id) })),
  ...NAMED.flatMap((kind) =>
    store.all(kind).map((element) => ({
      name: `Select ${element.name}`,
      run: () => {
        emit('floor', 'floor' in element ? element.floor : 'from_floor' in element ? element.from_floor : '')
        store.selection = { kind, id: element.id }
      },
    })),
  ),
  { name: 'Switch metres and feet', run: () => (imperial.value = !imperial.value) },
  { name: 'Figures of the trade', run: () => (openedFigure.value = '') },
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
  setTimeout(() => command?.run()) // once this dialog has closed, since it may open another
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
        <tr v-for="s in shortcuts.filter((k) => k.keys.length)" :key="s.said + s.what"><td class="figure">{{ s.said }}</td><td>{{ s.what }}</td></tr>
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
