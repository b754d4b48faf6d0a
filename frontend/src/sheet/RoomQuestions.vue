<script setup lang="ts">
import { computed } from 'vue'
import type { RoomQuestion } from '@/api/types'
import { useDesign } from '@/document/store'
import type { Viewport } from './useViewport'

/**
 * What only a person can say of rooms after an edit of walls: which part of a divided one keeps its name,
 * whether two that nothing parts are one. Left alone, the first answer holds.
 */
const props = defineProps<{ part: 'band' | 'marks'; floor: string; viewport: Viewport }>()
const store = useDesign()
const asked = computed(() => store.questions.find((q) => q.floor === props.floor))
const marks = computed(() =>
  (asked.value?.answers ?? []).flatMap((answer, k) => {
    if (!answer.at) return []
    const [x, y] = props.viewport.toScreen(answer.at)
    return [{ letter: letter(k), style: { left: `${x}px`, top: `${y}px` }, answer }]
  }),
)
const letter = (k: number) => String.fromCharCode(65 + k)

function answer(question: RoomQuestion, said: RoomQuestion['answers'][number]): void {
  const left = store.questions.filter((q) => q !== question)
  store.commit(question.text.slice(0, 120), said.changes, true)
  store.questions = left
}
</script>

<template>
  <div v-if="asked && part === 'band'" class="asked" role="group" :aria-label="asked.text" data-testid="room-question">
    <p>{{ asked.text }}</p>
    <div class="answers">
      <button v-for="(a, k) in asked.answers" :key="k" class="plain answer" @click="answer(asked, a)">
        <b v-if="a.at">{{ letter(k) }}</b>{{ a.label }}
      </button>
    </div>
  </div>
  <template v-else-if="asked">
    <button
      v-for="m in marks" :key="m.letter" class="plain mark" :style="m.style" :aria-label="`${m.letter}, ${m.answer.label}`"
      @click="answer(asked, m.answer)"
    >{{ m.letter }}</button>
  </template>
</template>

<style scoped>
.asked {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 4px 12px;
  padding: 6px 12px;
  border-top: 2px solid var(--heather);
  background: var(--heather-wash);
  font: 500 13px/1.3 var(--condensed);
}
p {
  margin: 0;
}
.answers {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.answer {
  display: flex;
  gap: 6px;
  align-items: center;
  padding: 3px 9px;
  min-height: 26px;
  border: 1px solid var(--granite-mid);
  border-radius: 3px;
  background: var(--paper);
  color: var(--heather);
}
.answer:hover {
  border-color: var(--heather);
}
.mark {
  position: absolute;
  width: 28px;
  height: 28px;
  margin: -14px 0 0 -14px;
  border: 1.5px solid var(--heather);
  border-radius: 3px;
  background: var(--paper);
  color: var(--heather);
  font: 600 14px/1 var(--condensed);
  text-align: center;
}
@media (pointer: coarse) {
  .answer,
  .mark {
    min-height: 44px;
    min-width: 44px;
  }
}
</style>
