<script setup lang="ts">
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import { useDesign } from '@/document/store'
import OutboxRow from './OutboxRow.vue'
import { useOutbox } from './useOutbox'

/** What is kept on this device: the refused first, each with its reason and how to mend it. */
const visible = defineModel<boolean>('visible', { required: true })
const outbox = useOutbox()
const design = useDesign()
const sendAll = () => outbox.refused.slice().forEach((e) => outbox.sendAgain(e))
</script>

<template>
  <Dialog v-model:visible="visible" modal header="Kept on this device" :style="{ width: '640px' }" class="outbox-dialog">
    <p v-if="!outbox.entries.length && !design.refusals.length">All that was said here is at the server.</p>
    <template v-if="outbox.refused.length">
      <div class="head">
        <p><b class="not_met">{{ outbox.refused.length }} not taken.</b> Mend it and send it again, or throw it away. Nothing else waits for it.</p>
        <Button v-if="outbox.refused.length > 1" label="Send all again" size="small" outlined @click="sendAll" />
      </div>
      <OutboxRow v-for="e in outbox.refused" :key="e.row.key" :entry="e" />
    </template>
    <template v-if="design.refusals.length">
      <p class="head"><span><b class="not_met">{{ design.refusals.length }} edits of this plan were taken back.</b> Make one anew on the plan as it is now, or throw it away.</span></p>
      <article v-for="edit in design.refusals" :key="edit.id" class="edit" :data-kept="edit.id">
        <b>{{ edit.label }}</b>
        <span class="not_met" role="alert">{{ edit.why }}</span>
        <span class="acts">
          <Button label="Make it anew" size="small" @click="design.makeAnew(edit)" />
          <Button label="Throw away" size="small" outlined @click="design.throwAway(edit)" />
        </span>
      </article>
    </template>
    <template v-if="outbox.waiting.length">
      <p class="head"><span><b>{{ outbox.waiting.length }} to send.</b> {{ outbox.offline ? outbox.whyNot : 'It goes by itself.' }}</span></p>
      <OutboxRow v-for="e in outbox.waiting" :key="e.row.key" :entry="e" />
    </template>
  </Dialog>
</template>

<style scoped>
.head {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 12px;
  margin: 4px 0 6px;
}
.edit {
  display: grid;
  gap: 4px;
  padding: 8px 0 8px 10px;
  border-top: 1px solid var(--granite-light);
  border-left: 3px solid var(--rust);
  overflow-wrap: anywhere;
}
.acts {
  display: flex;
  gap: 8px;
}
</style>
