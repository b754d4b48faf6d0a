<script setup lang="ts">
import Dialog from 'primevue/dialog'
import InputText from 'primevue/inputtext'
import { computed, nextTick, ref, watch } from 'vue'
import Choices from '@/controls/Choices.vue'
import { useDesign } from '@/document/store'
import FigureField from './FigureField.vue'
import { headOf, openedFigure, useFigures, type Whose } from './useFigures'

const store = useDesign()
const { parts, standing, set, differing } = useFigures()
const editing = ref<Whose>('project')
const part = ref('signal')
const query = ref('')
const FOR = [
  { value: 'project', label: 'This project' },
  { value: 'firm', label: 'The firm' },
]

watch(openedFigure, async (path) => {
  query.value = ''
  if (!path) return
  part.value = path.split('.')[0]!
  await nextTick()
  setTimeout(() => document.querySelector(`[data-figure="${path}"]`)?.scrollIntoView({ block: 'center' }), 60)
})

const words = computed(() => query.value.toLowerCase().split(/\s+/).filter(Boolean))
const groups = computed(() => {
  const shown = words.value.length ? parts.value : parts.value.filter((p) => p.key === part.value)
  return shown
    .flatMap((p) => p.groups)
    .filter((g) => words.value.every((w) => g.figures.some((f) => `${f.label} ${f.path}`.toLowerCase().includes(w))))
})
const sourceOf = (key: string) => store.catalogue?.rules.sources[key]?.name ?? key
</script>

<template>
  <Dialog :visible="openedFigure !== null" modal dismissable-mask header="Figures of the trade" :style="{ width: '860px' }" @update:visible="openedFigure = null">
    <div class="head">
      <InputText v-model="query" size="small" placeholder="Look for a figure" aria-label="Look for a figure" />
      <span class="gap" />
      <span class="quiet">A change holds for</span>
      <Choices v-model="editing" :options="FOR" aria-label="Whose view a change is" />
    </div>
    <nav aria-label="Parts of the figures">
      <button
        v-for="p in parts" :key="p.key" class="plain" :class="{ here: !words.length && part === p.key }"
        @click="((part = p.key), (query = ''))"
      >{{ p.title }}</button>
      <span class="gap" />
      <span class="quiet">{{ differing ? `${differing} seen differently` : 'all as shipped' }}</span>
    </nav>
    <div class="rows">
      <section v-for="g in groups" :key="g.path">
        <div>
          <h3>{{ headOf(g.figures[0]!) }}</h3>
          <p class="quiet">{{ sourceOf(g.figures[0]!.source) }}<template v-if="g.figures[0]!.about">; {{ g.figures[0]!.about }}</template></p>
        </div>
        <div class="fields">
          <FigureField
            v-for="f in g.figures" :key="f.path" :figure="f" v-bind="standing(f)" :editing="editing"
            :class="{ sought: f.path === openedFigure }" @set="set(editing, f, $event)"
          />
        </div>
      </section>
      <p v-if="!groups.length" class="quiet">No figure is called that.</p>
    </div>
  </Dialog>
</template>

<style scoped>
.head,
nav {
  display: flex;
  align-items: center;
  gap: 10px;
}
.head input {
  width: 260px;
}
.gap {
  flex: 1;
}
nav {
  gap: 2px;
  margin: 8px 0 0;
  border-bottom: 1px solid var(--granite-mid);
}
nav button {
  padding: 5px 10px;
  font-weight: 500;
}
nav button.here {
  color: var(--heather);
  box-shadow: inset 0 -2px var(--heather);
}
.rows {
  height: 470px;
  overflow: auto;
}
section {
  display: grid;
  grid-template-columns: 250px 1fr;
  gap: 18px;
  padding: 9px 4px;
  border-bottom: 1px solid var(--granite-light);
}
section p {
  font-size: 12px;
}
.fields {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 12px;
  align-items: start;
}
.sought {
  background: var(--heather-wash);
  box-shadow: 0 0 0 4px var(--heather-wash);
}
</style>
