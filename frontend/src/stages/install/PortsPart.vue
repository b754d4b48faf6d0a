<script setup lang="ts">
import { computed, ref } from 'vue'
import { usePorts } from '@/answers/usePorts'
import ListIn from '@/controls/ListIn.vue'
import { useDesign } from '@/document/store'

/** What came up at each port, the worst first: speed and watts beside those planned. */
const store = useDesign()
const { ports, switches, send } = usePorts()
const RANK = { not_met: 0, near: 1, unread: 2, met: 3 } as const
const MARK = { not_met: '✕', near: '≈', unread: '', met: '✓' } as const
const all = ref(false)
const rows = computed(() => [...ports.value].filter((p) => all.value || p.verdict !== 'met').sort((a, b) => RANK[a.verdict] - RANK[b.verdict]))
const count = (verdict: keyof typeof RANK) => ports.value.filter((p) => p.verdict === verdict).length
const MOST_PX = 190
/** Watts of each switch on one scale: what may be given, what was expected, what is drawn. */
const bars = computed(() => {
  const most = Math.max(1, ...switches.value.map((s) => Math.max(s.usable_w, s.drawn_w)))
  return switches.value.filter((s) => s.fed).map((s) => ({ ...s, wide: (s.usable_w / most) * MOST_PX, drawn: (s.drawn_w / most) * MOST_PX, expected: (s.expected_w / most) * MOST_PX }))
})
const speed = (mbps: number) => (mbps >= 1000 ? `${mbps / 1000} Gb/s` : mbps ? `${mbps} Mb/s` : 'no link')

function choose(port: (typeof rows.value)[number]): void {
  store.selection = port.device ? { kind: 'device', id: port.device } : { kind: 'switch', id: port.switch }
}
</script>

<template>
  <div class="ports">
    <p class="head"><b class="figure">{{ count('met') }} of {{ ports.length }}</b> came up as planned<template v-if="count('not_met')">, <b class="not_met">{{ count('not_met') }} did not</b></template><template v-if="count('near')">, <b class="near">{{ count('near') }} to look at</b></template><template v-if="count('unread')">, {{ count('unread') }} not read yet</template></p>
    <dl v-if="bars.length" class="bars">
      <template v-for="b in bars" :key="b.switch">
        <dt>{{ b.name }}</dt>
        <dd>
          <svg :width="MOST_PX + 4" height="16" role="img" :aria-label="`${b.name}: ${b.drawn_w} W drawn, ${b.expected_w} W expected, ${b.usable_w} W within the headroom`">
            <rect x="1" y="3" :width="b.wide" height="10" class="may" />
            <rect x="1" y="5" :width="b.drawn" height="6" :class="['drawn', b.verdict]" />
            <path v-if="b.read" :d="`M${b.expected + 1} 1V15`" class="expected" />
          </svg>
          <span class="figure">{{ b.read ? `${b.drawn_w} W` : '' }}</span> <span class="quiet">{{ b.read ? `drawn, ${b.expected_w} W expected, ${b.read} of ${b.fed} read` : `${b.fed} powered ports, none read yet` }}, {{ b.usable_w }} W may be given</span>
        </dd>
      </template>
    </dl>
    <ListIn label="Take a switch’s or meter’s file in" what="ports" :send="send" />
    <p class="quiet">Columns switch and port, or label; link_mbps and watts as they are there, date, meter. <button class="plain all" :aria-pressed="all" @click="all = !all">{{ all ? 'Hide those as planned' : 'Show those as planned too' }}</button></p>
    <table v-if="rows.length" class="ledger">
      <thead><tr><th>Port</th><th>In it</th><th class="number">Planned</th><th class="number">Came up</th><th class="number">W expected</th><th class="number">W drawn</th><th>What is found</th></tr></thead>
      <tbody>
        <tr v-for="p in rows" :key="`${p.switch}/${p.port}`" tabindex="0" :data-port="`${p.switch}/${p.port}`" @click="choose(p)" @keydown.enter="choose(p)">
          <td class="place">{{ p.switch_name }} <span class="figure">{{ p.port }}</span></td><td>{{ p.name }}</td><td class="number">{{ speed(p.planned_mbps) }}</td>
          <td class="number">{{ p.last && p.last.mbps !== null && p.last.mbps !== undefined ? speed(p.last.mbps) : '' }}</td>
          <td class="number">{{ p.expected_w !== null ? p.expected_w.toFixed(1) : '' }}</td><td class="number">{{ p.last?.watts ?? '' }}</td>
          <td :class="p.verdict">{{ MARK[p.verdict] }} {{ p.verdict === 'met' ? 'as planned' : p.reason }}</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.ports {
  display: grid;
  gap: 8px;
}
.bars {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 2px 12px;
  align-items: center;
  margin: 0;
}
.bars dd {
  margin: 0;
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 2px 6px;
}
.may {
  fill: var(--paper-deep);
  stroke: var(--granite);
}
.drawn {
  fill: var(--tint-5);
}
.drawn.not_met {
  fill: var(--rust);
}
.expected {
  stroke: var(--ink);
  stroke-width: 2;
}
.place {
  white-space: nowrap;
}
.all {
  color: var(--heather);
}
</style>
