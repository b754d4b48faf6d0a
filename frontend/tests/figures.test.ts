import { describe, expect, it } from 'vitest'
import { profileFigures } from '@/figures/useFigures'

const school = (label: string, figures: Record<string, string | number>, takes: { paths: string[]; value: number } | null = null) =>
  ({ label, reason: '', does: '', figures, site: {}, takes: takes && { ...takes, site: null, least: 1, most: 9, unit: '' } })
const MATTERS = {
  updates: { label: 'Updates', schools: { quiet: school('Quiet', { 'settings.updates': 'quiet' }), nightly: school('Nightly', { 'settings.updates': 'nightly' }) } },
  dtim: { label: 'DTIM', schools: { long: school('Long', {}, { paths: ['a', 'b'], value: 3 }), short: school('Short', {}, { paths: ['a', 'b'], value: 1 }) } },
}
const chosen = (matter: string, school: string, value: number | null = null) => ({ matter, school, value, reason: '' })

describe('the figures of a practice profile', () => {
  it('are those of the first schools where nothing is chosen', () => {
    const found = profileFigures(MATTERS, { choices: [] })
    expect([...found]).toEqual([['settings.updates', 'quiet'], ['a', 3], ['b', 3]])
  })

  it('are those of the schools that are chosen, with their number', () => {
    const found = profileFigures(MATTERS, { choices: [chosen('updates', 'nightly'), chosen('dtim', 'long', 5)] })
    expect([...found]).toEqual([['settings.updates', 'nightly'], ['a', 5], ['b', 5]])
  })

  it('are none without a profile, and none of a school that is not known any more', () => {
    expect(profileFigures(MATTERS, undefined).size).toBe(0)
    expect(profileFigures(MATTERS, { choices: [chosen('updates', 'gone')] }).has('settings.updates')).toBe(false)
  })
})
