<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import Slider from 'primevue/slider'
import { computed, ref, watch } from 'vue'
import { useProjectJob } from '@/answers/useJob'
import { ApiError, api, file, taken } from '@/api/client'
import type { ElementOf, Point } from '@/api/types'
import { put, removal } from '@/document/edits'
import { boundsOf, distance } from '@/document/geometry'
import { readLength } from '@/document/lengths'
import { useDesign } from '@/document/store'
import { onPicture, replaced, scaled, straightened } from '@/document/underlay'
import { length } from '@/document/units'
import { showSeen } from '@/sheet/seenWalls'
import { toCheck, toScale, toStraighten, underlayOf } from '@/sheet/underlays'
import ToolButton from './ToolButton.vue'

/** The client's plan as something to draw over: laid, brought to scale, turned straight, faded. */
const props = defineProps<{ floor: string }>()
const store = useDesign()
const picture = computed(() => underlayOf(store, props.floor))
const strength = ref(picture.value?.strength ?? 0.6)
const known = ref('')
const wrong = ref('')
const busy = ref(false)
const chosen = ref<{ data: File; pages: number } | null>(null)
const page = ref('1')
const FIRST_WIDTH_M = 20
const HOW_TO_WRITE = 'Write it as 4.2 m, 420 cm, 12\' 6" or 12-6.'
const GOOD_PERCENT = 2
const across = ref('')
const up = ref('')
/** What a second distance said of the scale. */
const checked = ref('')

watch(() => picture.value?.strength, (value) => (strength.value = value ?? 0.6))
watch(() => props.floor, () => (chosen.value = null))

function choose(event: Event): void {
  const input = event.target as HTMLInputElement
  const data = input.files?.[0]
  input.value = ''
  if (data) void lay(data, 1)
}

/** Keep the picture on the server; lay it down, or in the place of the one that is there. */
async function lay(data: File, number: number): Promise<void> {
  busy.value = true
  wrong.value = ''
  const form = new FormData()
  form.append('picture', data)
  form.append('page', String(number))
  try {
    const params = { path: { project_id: store.id } }
    const kept = await taken(api.POST('/api/projects/{project_id}/pictures', { params, ...file(form) }))
    chosen.value = { data, pages: kept.pages }
    page.value = String(number)
    const name = (kept.pages > 1 ? `${data.name}, page ${number}` : data.name).slice(0, 120)
    store.commit(`Lay ${name} under the sheet`, [put('underlay', picture.value ? replaced(picture.value, kept, name) : laid(kept, name))])
  } catch (error) {
    if (!(error instanceof ApiError)) throw error
    wrong.value = error.message
  } finally {
    busy.value = false
  }
}

/** Over what is drawn on the storey already, or where one begins to draw. */
function laid(kept: { id: string; width_px: number; height_px: number }, name: string): ElementOf<'underlay'> {
  const drawn = store.all('space').filter((s) => s.floor === props.floor).flatMap((s) => s.outline)
  const [west, south, east, north] = drawn.length ? boundsOf(drawn) : [0, 0, FIRST_WIDTH_M, (FIRST_WIDTH_M * kept.height_px) / kept.width_px]
  return {
    id: store.nextId('underlay', 'plan'), floor: props.floor, picture: kept.id, name, width_px: kept.width_px, height_px: kept.height_px,
    metres_per_px: Math.max((east - west) / kept.width_px, (north - south) / kept.height_px), at: [(west + east) / 2, (south + north) / 2] as Point,
    turn_deg: 0, crop: [0, 0, 0, 0], strength: 0.6, hidden: false,
  }
}

function set(change: Partial<ElementOf<'underlay'>>, what: string): void {
  if (picture.value) store.commit(what, [put('underlay', { ...picture.value, ...change })])
}

function scale(): void {
  const metres = readLength(known.value)
  if (metres === null) {
    wrong.value = HOW_TO_WRITE
    return
  }
  if (picture.value && toScale.value) {
    store.commit(`Scale of the client’s plan`, [put('underlay', scaled(picture.value, toScale.value.from, toScale.value.to, metres))])
  }
  toScale.value = null
  known.value = wrong.value = ''
}

/** The rectangle that was pressed, made straight and of its size. */
async function straighten(): Promise<void> {
  const [across_m, up_m] = [readLength(across.value), readLength(up.value)]
  const corners = toStraighten.value
  const slanted = picture.value
  if (across_m === null || up_m === null) {
    wrong.value = HOW_TO_WRITE
    return
  }
  if (!corners || !slanted) return
  busy.value = true
  wrong.value = ''
  try {
    const params = { path: { project_id: store.id, key: slanted.picture } }
    const body = { corners: corners.map((c) => onPicture(slanted, c)), across_m, up_m }
    const made = await taken(api.POST('/api/projects/{project_id}/pictures/{key}/straighten', { params, body }))
    store.commit('Straighten the client’s plan', [put('underlay', straightened(slanted, made, corners))])
    toStraighten.value = null
    across.value = up.value = checked.value = ''
  } catch (error) {
    if (!(error instanceof ApiError)) throw error
    wrong.value = error.words
  } finally {
    busy.value = false
  }
}

/** By how much a second distance that is known differs from the one on the plan. */
function check(): void {
  const metres = readLength(known.value)
  if (metres === null || !toCheck.value) {
    wrong.value = HOW_TO_WRITE
    return
  }
  const drawn = distance(toCheck.value.from, toCheck.value.to)
  const off = (drawn / metres - 1) * 100
  const good = Math.abs(off) <= GOOD_PERCENT
  checked.value = `On the plan they lie ${length(drawn, 2)} apart, ${Math.abs(off).toFixed(1)} % too ${off < 0 ? 'short' : 'long'}: ${good ? 'good enough to plan by' : 'straighten or scale it again'}.`
  toCheck.value = null
  known.value = wrong.value = ''
}

const looking = useProjectJob()
const seen = ref('')
/** Look for walls on the plan; what is seen lies over it, to be taken or wiped. */
async function lookForWalls(): Promise<void> {
  seen.value = wrong.value = ''
  await store.flush()
  if (!picture.value) return
  const done = await looking.run('walls', { underlay: picture.value.id })
  if (!done?.result) return
  showSeen(store.id, done.result.floor, done.result.walls)
  seen.value = done.result.walls.length ? `${done.result.walls.length} walls are seen. Look at each on the sheet: a press takes one, its cross wipes it.` : 'No wall is seen that is not drawn already.'
}

function turnPage(): void {
  const number = Number(page.value)
  if (chosen.value && Number.isInteger(number) && number > 0) void lay(chosen.value.data, number)
}
</script>

<template>
  <div class="part">
    <p v-if="!picture" class="quiet">A photograph or scan of the client’s plan, PNG, JPEG or PDF, to draw over. Where it was taken is not kept.</p>
    <label class="choose-file">{{ picture ? 'Replace it' : 'Choose a plan' }} <input type="file" accept=".png,.jpg,.jpeg,.pdf" data-testid="plan-file" :disabled="busy" @change="choose"></label>
    <p v-if="busy" role="status" class="quiet">Reading it.</p>
    <form v-if="chosen && chosen.pages > 1" class="line" @submit.prevent="turnPage">
      <label>Page <InputText v-model="page" size="small" class="few figure" aria-label="Page" /></label> of {{ chosen.pages }}
      <Button type="submit" label="Take it" size="small" outlined />
    </form>
    <template v-if="picture">
      <div class="line"><span class="steps quiet">Taken at a slant</span><ToolButton of="plan_straighten" /></div>
      <div class="line"><span class="steps quiet">Straight from above</span><ToolButton of="plan_level" /><ToolButton of="plan_scale" /></div>
      <div class="line"><span class="steps quiet">Then</span><ToolButton of="plan_check" /><ToolButton of="plan_move" /><ToolButton of="plan_crop" /></div>
      <form v-if="toScale" class="line" @submit.prevent="scale">
        <label>These two points lie <InputText v-model="known" size="small" class="known figure" autofocus aria-label="Known distance" placeholder="4.2 m" /></label> apart
        <Button type="submit" label="Scale" size="small" />
      </form>
      <form v-if="toStraighten" class="line" @submit.prevent="straighten">
        <label>Its upper side is <InputText v-model="across" size="small" class="known figure" autofocus aria-label="Across" placeholder="4.2 m" /></label>
        <label>and it is <InputText v-model="up" size="small" class="known figure" aria-label="Up" placeholder="3.1 m" /></label> high
        <Button type="submit" label="Straighten" size="small" :disabled="busy" />
      </form>
      <form v-if="toCheck" class="line" @submit.prevent="check">
        <label>These two points lie <InputText v-model="known" size="small" class="known figure" autofocus aria-label="Known distance" placeholder="4.2 m" /></label> apart
        <Button type="submit" label="Check" size="small" />
      </form>
      <div class="line"><span class="steps quiet">Then, to scale</span><Button label="Look for walls on it" size="small" outlined :loading="looking.running.value" @click="lookForWalls" /></div>
      <p v-if="looking.running.value" role="status" class="quiet">Looking: some seconds, the first time some more. You can go on working.</p>
      <p v-if="seen" role="status" class="checked">{{ seen }}</p>
      <p v-if="checked" role="status" class="checked">{{ checked }}</p>
      <dl>
        <dt>It shows</dt><dd class="figure">{{ length(picture.metres_per_px * picture.width_px) }} × {{ length(picture.metres_per_px * picture.height_px) }}</dd>
        <dt>Turned</dt><dd class="figure">{{ picture.turn_deg.toFixed(1) }}°</dd>
      </dl>
      <label class="fade">Strength <Slider v-model="strength" :min="0.05" :max="1" :step="0.05" aria-label="Strength" @slideend="set({ strength }, 'Strength of the plan')" /></label>
      <div class="line">
        <Button :label="picture.hidden ? 'Show' : 'Hide'" size="small" outlined @click="set({ hidden: !picture.hidden }, picture.hidden ? 'Show the plan' : 'Hide the plan')" />
        <Button label="Whole picture" size="small" outlined @click="set({ crop: [0, 0, 0, 0] }, 'Whole picture')" />
        <Button label="Take it away" size="small" text @click="store.commit('Take the plan away', removal(store, 'underlay', picture.id))" />
      </div>
    </template>
    <p v-if="wrong" role="alert" class="wrong">{{ wrong }}</p>
  </div>
</template>

<style scoped>
.checked {
  margin: 0;
}
.part {
  display: grid;
  gap: 7px;
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 5px;
}
.few {
  width: 48px;
}
.known {
  width: 84px;
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 1px 10px;
  margin: 0;
}
dt {
  color: var(--granite);
}
dd {
  margin: 0;
  text-align: right;
}
.fade {
  display: grid;
  gap: 6px;
  padding: 0 6px 4px 0;
  color: var(--granite);
}
.wrong {
  border-left: 3px solid var(--rust);
  padding-left: 8px;
  overflow-wrap: anywhere;
}
</style>
