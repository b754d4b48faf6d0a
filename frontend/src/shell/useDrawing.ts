import { ref, shallowRef } from 'vue'
import { ApiError, api, file, taken } from '@/api/client'
import type { useJob } from '@/answers/useJob'
import type { Inspection } from '@/api/types'

/** What was chosen of a drawing's layers. */
export interface DrawingChoice {
  units: string | null
  layers: Record<string, string>
  ceiling_height_m: number
}

/** A drawing that is looked at and then read, into a project of its own or into a building of this one. */
export function useDrawing(follow: ReturnType<typeof useJob>['follow']) {
  const drawing = shallowRef<File | null>(null)
  const inspection = ref<Inspection | null>(null)
  const name = () => drawing.value?.name.replace(/\.dxf$/i, '') ?? ''

  function leave(): void {
    drawing.value = inspection.value = null
  }

  async function look(chosen: File): Promise<void> {
    inspection.value = await taken(api.POST('/api/import/dxf/inspect', file(chosen)))
    drawing.value = chosen
  }

  /** Read it; null where it was stopped. */
  async function read(choice: DrawingChoice, into?: { project: string; building: string }): Promise<Record<string, unknown> | null> {
    const form = new FormData()
    form.append('drawing', drawing.value!)
    form.append('choice', JSON.stringify({ ...choice, name: name() }))
    if (into) form.append('building', into.building)
    const done = await follow(
      into
        ? taken(api.POST('/api/projects/{project_id}/import/dxf', { params: { path: { project_id: into.project } }, ...file(form) }))
        : taken(api.POST('/api/import/dxf', file(form))),
    )
    if (done?.state === 'failed') throw new ApiError(422, done.message)
    return done?.state === 'done' ? (done.result as Record<string, unknown>) : null
  }

  return { drawing, inspection, name, leave, look, read }
}

/** The file that was chosen in a field, which is ready for the next one. */
export function chosenFile(event: Event): File | null {
  const input = event.target as HTMLInputElement
  const found = input.files?.[0] ?? null
  input.value = ''
  return found
}
