<script setup lang="ts">
import { useNight } from '@/theme/useNight'
import Button from 'primevue/button'
import { computed, defineAsyncComponent, onMounted, ref } from 'vue'
import { ApiError, api, taken } from '@/api/client'
import type { DemoSite, ProjectLine } from '@/api/types'
import { editsKept } from '@/document/keeper'
import { KINDS, standWords } from '@/stages/words'
import OutboxButton from '@/outbox/OutboxButton.vue'
import OwnProjects from './OwnProjects.vue'
import SiteSketch from './SiteSketch.vue'

const NewProject = defineAsyncComponent(() => import('./NewProject.vue'))

/** Where one comes in: the projects, and the made-up sites to look at. */
const trouble = ref('')
const projects = ref<ProjectLine[] | null>(null)
const sites = ref<DemoSite[]>([])
const asking = ref(false)
const night = useNight()
const own = computed(() => {
  const demo = new Set(sites.value.map((s) => s.project))
  return (projects.value ?? []).filter((p) => !demo.has(p.id))
})

async function load(): Promise<void> {
  trouble.value = ''
  try {
    const [listed, shown] = await Promise.all([
      taken(api.GET('/api/projects')),
      taken(api.GET('/api/demo')),
    ])
    sites.value = shown.sites.filter((s) => listed.projects.some((p) => p.id === s.project))
    projects.value = listed.projects
  } catch (error) {
    trouble.value = error instanceof ApiError ? error.message : String(error)
  }
}

const kept = editsKept()
const keptWords = (project: string) => {
  const count = kept.get(project)
  return count ? `${count} ${count === 1 ? 'change' : 'changes'} kept here: open it to save ${count === 1 ? 'it' : 'them'}` : ''
}
/** Where a job stands, in the words of its last day. */
const stands = (project: string) => standWords((projects.value ?? []).find((p) => p.id === project)?.stand)
onMounted(load)
</script>

<template>
  <div class="start">
    <header>
      <img src="/mark.svg" alt="" width="28" height="28" />
      <b class="house">Heathrise</b>
      <OutboxButton />
      <span class="gap" />
      <Button :icon="night ? 'pi pi-sun' : 'pi pi-moon'" text size="small" aria-label="Switch the night scheme" @click="night = !night" />
      <Button label="New project" icon="pi pi-plus" size="small" @click="asking = true" />
    </header>
    <main v-if="trouble" class="trouble">
      <h1>{{ trouble }}</h1>
      <p>Nothing was lost. Start it with ./run demo, then try again.</p>
      <Button label="Try again" @click="load" />
    </main>
    <main v-else-if="projects">
      <h1>Projects</h1>
      <section v-if="sites.length" aria-labelledby="made-up">
        <h2 id="made-up">Made-up sites to look at: each job at another point of its way</h2>
        <ul class="cards">
          <li v-for="site in sites" :key="site.project">
            <RouterLink :to="`/p/${site.project}/plan`" class="card">
              <SiteSketch :site="site" />
              <span class="words">
                <span class="kind condensed">{{ KINDS.find((k) => k.value === site.kind)?.label }}</span>
                <b>{{ site.name }}</b>
                <b v-if="keptWords(site.project)" class="near">{{ keptWords(site.project) }}</b>
                <span class="stand" :class="stands(site.project).tone" data-stand>{{ stands(site.project).text }}</span>
                <span>{{ site.teaches }}</span>
                <span class="quiet condensed">{{ site.needed }} rooms to serve, {{ site.storeys }} storeys, {{ site.devices }} devices</span>
              </span>
            </RouterLink>
          </li>
        </ul>
      </section>
      <section aria-labelledby="own">
        <h2 id="own">Your own</h2>
        <OwnProjects :projects="own" :kept="keptWords" @changed="load" />
      </section>
    </main>
    <NewProject v-if="asking" v-model:visible="asking" />
  </div>
</template>

<style scoped>
.start {
  height: 100%;
  overflow: auto;
}
header {
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 8px 24px;
  border-bottom: 1px solid var(--granite-mid);
}
.house {
  font: 600 16px var(--sans);
}
.gap {
  flex: 1;
}
main {
  max-width: 1180px;
  margin: 0 auto;
  padding: 20px 24px 32px;
  display: grid;
  gap: 22px;
}
h1 {
  font: 600 22px/1.2 var(--sans);
}
h2 {
  margin-bottom: 10px;
  font: 400 13px var(--sans);
  color: var(--granite);
}
.trouble {
  max-width: 480px;
  justify-items: start;
  margin-top: 18vh;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.cards {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(250px, 1fr));
  gap: 18px;
}
.cards li {
  display: grid;
}
.card {
  display: grid;
  grid-template-rows: auto 1fr;
  border: 1px solid var(--granite-mid);
  border-radius: 3px;
  color: inherit;
  text-decoration: none;
  overflow: hidden;
}
.card:hover {
  border-color: var(--heather);
  background: var(--heather-wash);
}
.words {
  display: grid;
  align-content: start;
  gap: 6px;
  padding: 12px 14px 14px;
  border-top: 1px solid var(--granite-mid);
  line-height: 1.45;
}
.words b {
  font: 600 15px/1.25 var(--sans);
}
.words .quiet {
  margin-top: 2px;
}
.stand {
  font: 600 13px var(--condensed);
}
.kind {
  color: var(--heather);
  font-weight: 600;
}
</style>
