import { computed, ref } from 'vue'
import { ApiError, api, taken } from '@/api/client'
import type { Catalogue, ElementOf, Figure } from '@/api/types'
import { put } from '@/document/edits'
import { useDesign } from '@/document/store'
import { imperial } from '@/document/units'

type Matters = Catalogue['matters']
export type FigureValue = Figure['shipped']
export type Whose = 'firm' | 'project'
/** Whose value counts where nobody of the two sees it differently. */
export type Standing = Whose | 'shipped' | 'profile'

/** The figure that is looked at, or an empty path for all of them; null while none are. */
export const openedFigure = ref<string | null>(null)

const TITLES: Record<string, string> = {
  signal: 'Signal', bands: 'Channels and power', plan: 'Plan', camera: 'Cameras', cabling: 'Cable', power: 'Power', settings: 'Settings',
}
const FEET = 3.280839895

/** A figure of the trade as it stands, and how to see it differently. */
export function useFigures() {
  const store = useDesign()
  const figures = computed(() => Object.values(store.catalogue?.rules.figures ?? {}))
  const chosen = computed(() => new Map(store.all('own_figure').map((own) => [own.figure, own])))
  const profile = computed(() => profileFigures(store.catalogue?.matters, store.all('practice')[0]))

  /** The figures by discipline, and there by what they are figures of. */
  const parts = computed(() => {
    const found = new Map<string, Map<string, Figure[]>>()
    for (const figure of figures.value) {
      const [part, name] = figure.path.split('.') as [string, string]
      const groups = found.get(part) ?? new Map<string, Figure[]>()
      groups.set(name, [...(groups.get(name) ?? []), figure])
      found.set(part, groups)
    }
    return [...found].map(([key, groups]) => ({
      key,
      title: TITLES[key] ?? key,
      groups: [...groups].map(([name, rows]) => ({ path: `${key}.${name}`, figures: rows })),
    }))
  })
  const differing = computed(() => figures.value.filter((f) => !['shipped', 'profile'].includes(standing(f).whose)).length)

  /** Whose value counts: the project's, else the firm's, else the one that is shipped. */
  function standing(figure: Figure): { value: FigureValue; whose: Standing } {
    const own = chosen.value.get(figure.path)
    if (own) return { value: own.value, whose: 'project' }
    const theirs = profile.value.get(figure.path)
    if (theirs !== undefined) return { value: theirs, whose: 'profile' }
    if (figure.firm !== null && figure.firm !== undefined) return { value: figure.firm, whose: 'firm' }
    return { value: figure.shipped, whose: 'shipped' }
  }

  /** See a figure differently, or with null as it was before. */
  async function set(whose: Whose, figure: Figure, value: FigureValue | null): Promise<void> {
    if (whose === 'project') return setForProject(figure, value)
    try {
      store.catalogue = await taken(api.PUT('/api/firm/figures', { body: { figure: figure.path, value } }))
      await store.evaluateFully()
    } catch (error) {
      if (!(error instanceof ApiError)) throw error
      store.trouble = { message: error.message, detail: [] }
      store.catalogue = await taken(api.GET('/api/catalogue'))
    }
  }

  function setForProject(figure: Figure, value: FigureValue | null): void {
    const own = chosen.value.get(figure.path)
    const label = `Figure: ${figure.label}`.slice(0, 120)
    if (value !== null) {
      const id = own?.id ?? store.nextId('own_figure', 'figure')
      store.commit(label, [put('own_figure', { id, figure: figure.path, value })])
    } else if (own) {
      store.commit(label, [{ op: 'remove', kind: 'own_figure', id: own.id }])
    }
  }

  /** The value that counts, by the figure's path. */
  function valueOf(path: string): FigureValue | undefined {
    const figure = store.catalogue?.rules.figures[path]
    return figure && standing(figure).value
  }

  return { figures, parts, standing, valueOf, set, differing }
}

/** The figures that a practice profile stands for, as the server counts them. */
export function profileFigures(matters: Matters | undefined, practice: Pick<ElementOf<'practice'>, 'choices'> | undefined): Map<string, FigureValue> {
  const found = new Map<string, FigureValue>()
  if (!practice) return found
  for (const [key, matter] of Object.entries(matters ?? {})) {
    const choice = practice.choices.find((c) => c.matter === key)
    const school = matter.schools[choice?.school ?? Object.keys(matter.schools)[0]!]
    for (const [path, value] of Object.entries(school?.figures ?? {})) found.set(path, value)
    for (const path of school?.takes?.paths ?? []) found.set(path, choice?.value ?? school!.takes!.value)
  }
  return found
}

/** What all figures of a table are called together, and what one of them is called there. */
export const headOf = (figure: Figure) => figure.label.split(': ')[0]!
export const keyOf = (figure: Figure) => figure.label.split(': ')[1] ?? ''

/** How a unit is shown and turned back under the switch between metres and feet. */
export function shownIn(unit: string): { unit: string; to: (v: number) => number; from: (v: number) => number } {
  const same = (v: number) => v
  if (unit === 'share') return { unit: '%', to: (v) => v * 100, from: (v) => v / 100 }
  if (imperial.value && unit === 'm') return { unit: 'ft', to: (v) => v * FEET, from: (v) => v / FEET }
  if (imperial.value && unit === '°C') return { unit: '°F', to: (v) => v * 1.8 + 32, from: (v) => (v - 32) / 1.8 }
  return { unit, to: same, from: same }
}

/** A value with its unit, as a row shows it. */
export function said(value: FigureValue, unit: string): string {
  const shown = shownIn(unit)
  const round = (v: number) => String(Number(shown.to(v).toFixed(2)))
  const text = Array.isArray(value) ? value.map(round).join(', ') : typeof value === 'number' ? round(value) : value
  return `${text} ${shown.unit}`.trim()
}
