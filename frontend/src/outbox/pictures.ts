import type { Entry, Shot } from './entries'

const KEPT = 'heathrise-photos'
const PLACE = '/kept-photos'

const placeOf = (project: string, shot: Shot) => `${PLACE}/${project}/${shot.of}/${shot.key}?about=${encodeURIComponent(shot.about)}`

/** Pictures that wait for the server, in the browser's cache; their place says whose they are. */
export const pictures = {
  async keep(project: string, shot: Shot, picture: Blob): Promise<void> {
    await (await caches.open(KEPT)).put(placeOf(project, shot), new Response(picture))
  },

  async get(project: string, shot: Shot): Promise<Blob | null> {
    return (await (await caches.open(KEPT)).match(placeOf(project, shot)))?.blob() ?? null
  },

  async drop(project: string, shot: Shot): Promise<void> {
    await (await caches.open(KEPT)).delete(placeOf(project, shot))
  },

  /** Those that no entry speaks of: the page was closed while they were kept, or is newer than they are. */
  async without(entries: readonly Entry[]): Promise<{ project: string; shot: Shot }[]> {
    const known = new Set(entries.map((e) => e.row.key))
    const found = []
    for (const request of await (await caches.open(KEPT)).keys()) {
      const url = new URL(request.url)
      const [, , project, of, key] = url.pathname.split('/')
      if (!project || !key || known.has(key) || (of !== 'step' && of !== 'snag')) continue
      found.push({ project, shot: { key, of, about: url.searchParams.get('about') ?? '', by: '', at: new Date().toISOString() } as Shot })
    }
    return found
  },
}
