<script setup lang="ts">
import { computed, ref } from 'vue'
import { api, file, taken } from '@/api/client'
import { useCableTests } from '@/answers/useCableTests'
import ListIn from '@/controls/ListIn.vue'
import { useDesign } from '@/document/store'
import { inUnits, length } from '@/document/units'

/** What the tester said of every cable, the worst first; its file is matched by the labels. */
const store = useDesign()
const { cables, show } = useCableTests()
const RANK = { not_met: 0, near: 1, untested: 2, met: 3 } as const
const MARK = { not_met: '✕', near: '≈', untested: '', met: '✓' } as const
const all = ref(false)
const rows = computed(() => [...cables.value].filter((c) => all.value || c.verdict !== 'met').sort((a, b) => RANK[a.verdict] - RANK[b.verdict]))
const count = (verdict: keyof typeof RANK) => cables.value.filter((c) => c.verdict === verdict).length

async function send(data: File, take: boolean) {
  const params = { path: { project_id: store.id }, ...(take ? { query: { take: '1' } } : {}) }
  const read = await taken(api.POST('/api/projects/{project_id}/tests/list', { params: params as never, ...file(data) }))
  if (read.taken) show(read.cables)
  return read
}
</script>

<template>
  <div class="tests">
    <p class="head"><b class="figure">{{ count('met') }} of {{ cables.length }}</b> passed<template v-if="count('not_met')">, <b class="not_met">{{ count('not_met') }} failed</b></template><template v-if="count('near')">, <b class="near">{{ count('near') }} only just or longer than planned</b></template><template v-if="count('untested')">, {{ count('untested') }} not tested yet</template></p>
    <ListIn label="Take a tester’s file in" what="tests" :send="send" />
    <p class="quiet">Columns label and result; wire_map, length_m, worst_margin_db, date, tester as they are there. Labels with or without /A and /B. <button class="plain all" :aria-pressed="all" @click="all = !all">{{ all ? 'Hide those that passed' : 'Show those that passed too' }}</button></p>
    <table v-if="rows.length" class="ledger">
      <thead><tr><th>Cable</th><th class="number">Planned</th><th class="number">Measured</th><th>What is found</th></tr></thead>
      <tbody>
        <tr v-for="c in rows" :key="`${c.device}/${c.cable}`" tabindex="0" :data-cable="`${c.device}/${c.cable}`" @click="store.selection = { kind: 'device', id: c.device }" @keydown.enter="store.selection = { kind: 'device', id: c.device }">
          <td>{{ c.name }}, cable {{ c.cable }}</td><td class="number">{{ length(c.planned_m) }}</td><td class="number">{{ c.last?.length_m ? length(c.last.length_m) : '' }}</td>
          <td :class="c.verdict">{{ MARK[c.verdict] }} {{ inUnits(c.reason) }}<template v-if="c.last?.note"><br><span class="quiet">{{ c.last.note }}</span></template></td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.tests {
  display: grid;
  gap: 8px;
}
.all {
  color: var(--heather);
}
</style>
