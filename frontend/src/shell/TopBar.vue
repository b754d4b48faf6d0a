<script setup lang="ts">
import { useNight } from '@/theme/useNight'
import Button from 'primevue/button'
import Menu from 'primevue/menu'
import { computed, defineAsyncComponent, ref, useTemplateRef } from 'vue'
import { FORMATS } from '@/api/exchange'
import { useDesign } from '@/document/store'
import { imperial } from '@/document/units'
import OutboxButton from '@/outbox/OutboxButton.vue'
import ProjectList from './ProjectList.vue'
import RevisionList from './RevisionList.vue'

const NewProject = defineAsyncComponent(() => import('./NewProject.vue'))

defineEmits<{ palette: []; keys: [] }>()
const store = useDesign()
const night = useNight()
const listing = ref(false)
const making = ref(false)
const looking = ref(false)
const menu = useTemplateRef<InstanceType<typeof Menu>>('menu')

const items = computed(() => [
  { label: 'Everything: revisions, records, pictures, papers', icon: 'pi pi-box', url: `/api/projects/${store.id}/whole.zip`, 'data-export': 'whole.zip' },
  ...FORMATS.out.map(({ file, label, icon }) => ({
    label,
    icon: `pi ${icon}`,
    url: `/api/projects/${store.id}/export/${file}`,
    'data-export': file,
  })),
])
</script>

<template>
  <header class="top">
    <RouterLink to="/" class="home" aria-label="All projects"><img src="/mark.svg" alt="" width="24" height="24" /></RouterLink>
    <h1>
      <button class="plain project" aria-haspopup="dialog" @click="listing = true">
        <span class="name">{{ store.name || 'Opening' }}</span> <i class="pi pi-angle-down" />
      </button>
    </h1>
    <Button icon="pi pi-undo" text size="small" aria-label="Undo" :disabled="!store.canUndo" @click="store.undo" />
    <Button icon="pi pi-refresh" text size="small" aria-label="Redo" :disabled="!store.canRedo" @click="store.redo" />
    <button class="plain state" title="What the plan has been" :class="{ offline: store.offline || store.conflict }" aria-haspopup="dialog" @click="looking = true">
      <span role="status" data-testid="save-state"><i :class="store.offline ? 'pi pi-cloud' : 'pi pi-check-circle'" /> {{ store.saveState }}</span> <i class="pi pi-history" aria-hidden="true" />
    </button>
    <OutboxButton />
    <span class="gap" />
    <Button label="New" aria-label="New" icon="pi pi-plus" text size="small" @click="making = true" />
    <Button label="Export" aria-label="Export" icon="pi pi-download" text size="small" aria-haspopup="true" @click="menu?.toggle($event)" />
    <Menu ref="menu" :model="items" popup />
    <Button :label="imperial ? 'Feet' : 'Metres'" text size="small" aria-label="Switch between metres and feet" @click="imperial = !imperial" />
    <Button :icon="night ? 'pi pi-sun' : 'pi pi-moon'" text size="small" aria-label="Switch the night scheme" @click="night = !night" />
    <Button icon="pi pi-search" text size="small" aria-label="Command palette" @click="$emit('palette')" />
    <Button icon="pi pi-question-circle" text size="small" aria-label="Shortcuts" @click="$emit('keys')" />
    <ProjectList v-model:visible="listing" @new="((listing = false), (making = true))" />
    <RevisionList v-model:visible="looking" />
    <NewProject v-if="making" v-model:visible="making" />
  </header>
</template>

<style scoped>
.top {
  grid-area: top;
  display: flex;
  align-items: center;
  gap: 4px;
  padding: 0 10px;
  border-bottom: 1px solid var(--granite-mid);
}
h1 {
  display: flex;
  min-width: 0;
}
.home {
  display: grid;
  place-items: center;
}
.project {
  display: flex;
  align-items: center;
  gap: 6px;
  padding: 4px 8px;
  margin: 0 8px 0 6px;
  max-width: 340px;
  min-width: 0;
}
.name {
  font: 600 15px var(--sans);
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.state {
  display: inline-flex;
  align-items: center;
  gap: 5px;
  color: var(--granite);
  font-size: 12px;
  margin-left: 8px;
  white-space: nowrap;
}
.state i {
  font-size: 14px;
  vertical-align: -2px;
}
.state.offline {
  color: var(--rust);
  font-weight: 600;
}
.gap {
  flex: 1;
}
@media (max-width: 1000px) {
  .top :deep(.p-button:has(.p-button-icon) .p-button-label) {
    display: none;
  }
  .top > :not(h1, .gap) {
    flex: none;
  }
  .project {
    margin: 0;
  }
  .state {
    margin-left: 0;
  }
}
@media (max-width: 1000px), (pointer: coarse) {
  .home,
  .state {
    min-width: 44px;
    min-height: 44px;
  }
}
</style>
