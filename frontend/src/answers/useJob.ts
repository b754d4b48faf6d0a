import { onScopeDispose, ref, shallowRef } from 'vue'
import { ApiError, api, taken } from '@/api/client'
import type { Job, JobKind, JobKinds } from '@/api/types'
import { useDesign } from '@/document/store'

const LOOK_AGAIN_MS = 250

/** A long task of the server: how far it is, and a way to stop it. One at a time. */
export function useJob() {
  const job = shallowRef<Job | null>(null)
  const running = ref(false)
  let left = false

  /** Wait for a job that was begun; null where its page was left meanwhile. */
  async function follow(begun: Promise<Job>): Promise<Job | null> {
    running.value = true
    left = false
    try {
      let now = await begun
      for (;;) {
        if (left) return null
        job.value = now
        if (now.state !== 'running') return now
        await new Promise((resume) => setTimeout(resume, LOOK_AGAIN_MS))
        now = await look(now)
      }
    } finally {
      running.value = false
    }
  }

  /** How a job stands by now; as it stood, while the server is out of reach. */
  async function look(job: Job): Promise<Job> {
    try {
      return await taken(api.GET('/api/jobs/{job_id}', { params: { path: { job_id: job.id } } }))
    } catch (error) {
      if (!(error instanceof ApiError) || !error.isOffline) throw error
      return job
    }
  }

  function stop(): void {
    if (job.value?.state === 'running') void taken(api.POST('/api/jobs/{job_id}/stop', { params: { path: { job_id: job.value.id } } }))
  }

  onScopeDispose(() => {
    left = true
    stop()
  })
  return { job, running, follow, stop }
}

/** What may be said with a job: what is left out is as the server has it. */
type Loose<T> = { [P in keyof T]?: T[P] extends unknown[] ? T[P] : T[P] extends object ? Loose<T[P]> : T[P] }

/** How a job of a kind ended. */
export interface Ended<K extends JobKind> {
  state: Job['state']
  result: JobKinds[K]['result'] | null
}

/** A job of the open project: begun by its kind, what goes wrong is told. */
export function useProjectJob() {
  const store = useDesign()
  const { job, running, follow, stop } = useJob()

  /** Wait for it; null where it failed, was not begun, or its page was left. */
  async function run<K extends JobKind>(kind: K, asked: Loose<JobKinds[K]['asked']> = {}): Promise<Ended<K> | null> {
    const params = { path: { project_id: store.id } }
    try {
      const done = await follow(taken(api.POST('/api/projects/{project_id}/jobs', { params, body: { kind, arguments: asked as Record<string, unknown> } })))
      if (done?.state !== 'failed') return done && { state: done.state, result: done.result as JobKinds[K]['result'] | null }
      store.trouble = { message: done.message, detail: [] }
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      store.trouble = { message: error.message, detail: [] }
    }
    return null
  }

  return { job, running, run, stop }
}
