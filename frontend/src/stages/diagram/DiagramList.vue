<script setup lang="ts">
import { computed } from 'vue'
import { useDesign } from '@/document/store'
import { inUnits } from '@/document/units'
import { useDiagram } from './useDiagram'

/** The diagram in words, as a tree that the keyboard walks: each thing, its line of the reading, what hangs on it. */
const store = useDesign()
const { view, reading, nodes, chosen, below, kindOf } = useDiagram()
const rows = computed(() => {
  const depth = new Map<string, number>()
  return (view.value?.diagram.nodes ?? []).map((n) => {
    const deep = n.parent ? (depth.get(n.parent) ?? 0) + 1 : 0
    depth.set(n.id, deep)
    return { n, deep, many: below.value.get(n.id)?.length ?? 0 }
  })
})
function press(id: string): void {
  const node = nodes.value.get(id)
  const kind = node && kindOf(node)
  if (node && kind) store.selection = { kind, id: node.element! }
}
/** Up and down from thing to thing, left to what one hangs on. */
function walk(event: KeyboardEvent, k: number): void {
  const to = { ArrowDown: k + 1, ArrowUp: k - 1, Home: 0, End: rows.value.length - 1, ArrowLeft: rows.value.findIndex((r) => r.n.id === rows.value[k]!.n.parent), ArrowRight: rows.value[k]!.many ? k + 1 : k }[event.key]
  if (to === undefined || !rows.value[to]) return
  event.preventDefault()
  ;(event.currentTarget as HTMLElement).parentElement!.querySelectorAll<HTMLElement>('[role=treeitem]')[to]?.focus()
}
</script>

<template>
  <ul class="tree" role="tree" aria-label="The network, from the line to the last device">
    <li
      v-for="(r, k) in rows" :key="r.n.id" role="treeitem" :aria-level="r.deep + 1" :aria-selected="r.n.id === chosen" :tabindex="r.n.id === chosen || (!chosen && !k) ? 0 : -1"
      :class="{ chosen: r.n.id === chosen }" :style="{ paddingLeft: `${10 + r.deep * 14}px` }" :data-tree="r.n.id" @click="press(r.n.id)" @keydown.enter="press(r.n.id)" @keydown.space.prevent="press(r.n.id)" @keydown="walk($event, k)"
    ><b>{{ r.n.name }}</b><span v-if="r.many" class="quiet"> {{ r.many }} on it</span><small :class="{ not_met: r.n.joint?.verdict === 'not_met' }">{{ inUnits(r.n.says?.[reading] ?? '') }}</small></li>
  </ul>
</template>

<style scoped>
.tree {
  list-style: none;
  margin: 0;
  padding: 4px 0;
}
li {
  padding: 4px 10px;
  cursor: pointer;
  border-bottom: 1px solid var(--granite-light);
  font-size: 12.5px;
}
li.chosen {
  background: var(--heather-wash);
}
small {
  display: block;
  font: 400 11.5px/1.3 var(--condensed);
  color: var(--granite);
}
</style>
