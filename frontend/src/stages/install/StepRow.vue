<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { computed, ref } from 'vue'
import { SAID } from '@/api/exchange'
import type { Step, Tick } from '@/api/types'
import type { Stand } from '@/answers/ticks'
import { useDesign } from '@/document/store'
import { inUnits } from '@/document/units'
import { clockOff } from '@/outbox/clocks'
import Excerpt from '@/sheet/Excerpt.vue'
import TickBox from './TickBox.vue'
import { useCautionsRead } from './useCautionsRead'

/** One step: a large box to tick and, in words, what can hurt there; behind it what it takes and what it waits for. */
const props = defineProps<{ step: Step; stand?: Stand; open: boolean; names: Map<string, string>; stands: Map<string, Stand>; phase: string; people: number[]; excerpt: boolean }>()
const emit = defineEmits<{ toggle: []; say: [words: Omit<Tick, 'key' | 'at' | 'by'>]; photo: [file: File] }>()
const store = useDesign()
const reason = ref('')
const note = ref(props.stand?.note ?? '')
const minutes = ref('')
const licensed = ref(props.stand?.licensed_by ?? '')
const asks = ref('')
const cautions = useCautionsRead()
const unread = computed(() => cautions.unread(props.step.cautions))
const state = computed(() => props.stand?.state ?? 'open')
const waits = computed(() => props.step.waits.filter((w) => props.stands.get(w)?.state !== 'done' && props.stands.get(w)?.state !== 'skipped'))
const MOST_MINUTES = SAID.step!['minutes']!.most!
const lasting = (minutes: number) => (minutes < 120 ? `${Math.round(minutes)} min` : `${Math.floor(minutes / 60)} h ${Math.round(minutes % 60)} min`)
const MARK = { open: '', done: '✓', skipped: '–', blocked: '!' } as const
const SAYS = { open: 'open', done: 'done', skipped: 'skipped', blocked: 'blocked' } as const

function say(to: Tick['state']): void {
  asks.value = ''
  if ((to === 'skipped' || to === 'blocked') && !reason.value.trim()) {
    asks.value = `Say why it is ${to}.`
    return
  }
  if (to === 'done' && unread.value.length) {
    asks.value = 'Read what can hurt here first.'
    return
  }
  if (to === 'done' && waits.value.length && !reason.value.trim()) {
    asks.value = `It waits for ${waits.value.map((w) => props.names.get(w)).join('; ')}. Say why it is done before.`
    if (!props.open) emit('toggle')
    return
  }
  if (to === 'done' && props.step.licensed && !licensed.value.trim()) {
    asks.value = 'This is work for licensed people: name who did it.'
    if (!props.open) emit('toggle')
    return
  }
  const taken = Number(minutes.value.replace(',', '.'))
  if (minutes.value.trim() && !(taken > 0 && taken <= MOST_MINUTES)) {
    asks.value = `Minutes taken should be a number up to ${MOST_MINUTES}.`
    return
  }
  emit('say', {
    step: props.step.id, state: to, reason: reason.value.trim(), note: note.value.trim(), licensed_by: licensed.value.trim(),
    minutes: taken > 0 ? taken : null, photo: null,
  })
}

async function photograph(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const photo = input.files?.[0]
  input.value = ''
  if (photo) emit('photo', photo)
}
const photos = computed(() => (props.stand?.photos ?? []).map((id) => `/api/projects/${store.id}/pictures/${id}`))
</script>

<template>
  <article class="row" :class="[state, { unfolded: open }]" :data-step="step.id">
    <TickBox :mark="MARK[state]" :tone="state" :label="state === 'done' ? `Open again: ${step.title}` : `Done: ${step.title}`" :aria-pressed="state === 'done'" @click="say(state === 'done' ? 'open' : 'done')" />
    <button class="plain what" :aria-expanded="open" @click="emit('toggle')">
      <b>{{ step.title }}</b>
      <span class="quiet">{{ phase }}, <span class="figure">{{ lasting(step.minutes) }}</span><template v-if="step.rest_minutes">, {{ Math.round(step.rest_minutes) }} of them rest from the heat</template><template v-if="people.length > 1">, both</template><template v-else-if="people.length">, {{ people[0] === 1 ? 'first' : 'second' }} person</template><template v-else-if="step.people > 1">, for two</template><template v-if="step.licensed">, licensed people only</template><template v-if="waits.length">, after {{ waits.length }} open {{ waits.length === 1 ? 'step' : 'steps' }}</template></span>
      <span v-if="stand && state !== 'open'" class="said">{{ SAYS[state] }} by {{ stand.by }}<template v-if="stand.reason">: {{ stand.reason }}</template><template v-if="stand.unsent">, kept here</template><template v-else-if="stand.clock_ahead_s">; that device’s clock was {{ clockOff(stand.clock_ahead_s) }}</template></span>
    </button>
    <div v-if="step.cautions.length && (open || state === 'open' || state === 'blocked')" class="hurt" :class="{ unread: unread.length }">
      <ul class="cautions" aria-label="What can hurt here"><li v-for="c in step.cautions" :key="c">{{ inUnits(c) }}</li></ul>
      <Button v-if="unread.length" label="Read" size="small" outlined :aria-label="`Read what can hurt: ${step.title}`" @click="cautions.read(step.cautions); asks = ''" />
    </div>
    <p v-if="asks && !open" role="alert" class="asks here">{{ asks }}</p>
    <div v-if="open" class="more">
      <p v-if="step.cautions.length" class="quiet">Follow local codes; have licensed people do what the law keeps for them.</p>
      <Excerpt v-if="excerpt && step.floor" :floor="step.floor" :kind="step.kind" :element="step.element" />
      <dl>
        <template v-if="step.checks.length"><dt>See to</dt><dd><ul class="checks"><li v-for="c in step.checks" :key="c">{{ inUnits(c) }}</li></ul></dd></template>
        <template v-if="step.materials.length"><dt>Take</dt><dd>{{ step.materials.join(', ') }}</dd></template>
        <template v-if="step.tools.length"><dt>Tools</dt><dd>{{ step.tools.join(', ') }}</dd></template>
        <template v-if="waits.length"><dt>Waits for</dt><dd>{{ waits.map((w) => names.get(w)).join('; ') }}</dd></template>
      </dl>
      <div class="fields">
        <label v-if="step.licensed">Done by, with licence <InputText v-model="licensed" size="small" maxlength="120" fluid aria-label="Done by, with licence" /></label>
        <label>Note <InputText v-model="note" size="small" maxlength="300" fluid aria-label="Note" /></label>
        <label>Minutes taken <InputText v-model="minutes" size="small" inputmode="decimal" class="figure" fluid aria-label="Minutes taken" /></label>
        <label>Reason, if not done or out of turn <InputText v-model="reason" size="small" maxlength="300" fluid aria-label="Reason" /></label>
      </div>
      <p v-if="asks" role="alert" class="asks">{{ asks }}</p>
      <div class="acts">
        <Button label="Done" @click="say('done')" /><Button label="Skipped" outlined @click="say('skipped')" /><Button label="Blocked" outlined @click="say('blocked')" />
        <label class="choose-file">Photograph <input type="file" accept="image/png,image/jpeg" capture="environment" data-testid="photo" @change="photograph"></label>
      </div>
      <div v-if="photos.length" class="photos"><img v-for="p in photos" :key="p" :src="p" alt="Photograph taken at this step"></div>
    </div>
  </article>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: 48px 1fr auto;
  align-items: center;
  border-top: 1px solid var(--granite-light);
}
.row.unfolded {
  background: var(--paper-deep);
}
.what {
  display: grid;
  padding: 5px 0;
  min-height: 44px;
  align-content: center;
}
.what b {
  font-weight: 600;
}
.done .what b,
.skipped .what b {
  font-weight: 400;
  color: var(--granite);
}
.said {
  font: 600 12px var(--condensed);
  color: var(--moss);
}
.blocked .said {
  color: var(--rust);
}
.hurt {
  grid-column: 2 / -1;
  display: flex;
  align-items: center;
  gap: 10px;
  margin: 0 10px 6px 0;
  padding: 2px 0 2px 10px;
  border-left: 3px solid var(--granite-mid);
}
.hurt.unread {
  border-left-color: var(--rust);
}
.here {
  grid-column: 2 / -1;
  margin: 0 0 6px;
}
.checks {
  margin: 0;
  padding: 0;
  list-style: none;
}
.more {
  grid-column: 2 / -1;
  padding: 0 10px 10px 0;
}
.cautions {
  flex: 1;
  margin: 0;
  padding: 0;
  list-style: none;
  font-size: 13px;
  line-height: 1.35;
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 1px 12px;
  margin: 6px 0;
}
dt {
  color: var(--granite);
}
dd {
  margin: 0;
}
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(170px, 1fr));
  gap: 6px 12px;
  align-items: end;
}
.fields label {
  font: 400 12px/1.4 var(--condensed);
  color: var(--granite);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 8px;
}
.asks {
  color: var(--rust);
  font-weight: 600;
}
.photos {
  display: flex;
  gap: 6px;
  margin-top: 8px;
}
.photos img {
  height: 96px;
  border: 1px solid var(--granite-mid);
}
</style>
