import { onScopeDispose, ref, shallowRef } from 'vue'
import { api, taken } from '@/api/client'
import type { Job } from '@/api/types'

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
        now = await taken(api.GET('/api/jobs/{job_id}', { params: { path: { job_id: now.id } } }))
      }
    } finally {
      running.value = false
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
