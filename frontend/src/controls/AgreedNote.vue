<script setup lang="ts">
import Button from 'primevue/button'
import { api, taken } from '@/api/client'
import { useProgress } from '@/answers/useProgress'
import { useWho } from '@/outbox/useOutbox'
import { useAttempt } from '@/answers/useAttempt'
import { useDesign } from '@/document/store'

/** Which revision the client has agreed to, and a way to note that it is this one: what is built is compared with it. */
const emit = defineEmits<{ agreed: [] }>()
const store = useDesign()
const attempt = useAttempt()
const who = useWho()
const { progress, load } = useProgress()

async function agree(): Promise<void> {
  const params = { path: { project_id: store.id } }
  const agreed = await attempt(() => taken(api.POST('/api/projects/{project_id}/agreed', { params, body: { revision: store.revision, by: who.value.trim() || 'installer' } })))
  if (!agreed) return
  await load()
  emit('agreed')
}
</script>

<template>
  <span v-if="progress" class="agreed">
    <span v-if="progress.agreed" class="quiet">Agreed: revision {{ progress.agreed }}</span>
    <Button
      v-if="progress.agreed !== store.revision" :label="progress.agreed ? `Revision ${store.revision} is agreed now` : `Note revision ${store.revision} as agreed`"
      size="small" :text="!!progress.agreed" :outlined="!progress.agreed" data-testid="agree" @click="agree"
    />
  </span>
</template>

<style scoped>
.agreed {
  display: inline-flex;
  align-items: center;
  gap: 6px;
}
</style>
