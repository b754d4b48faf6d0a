import type { Site, Standing } from '@/api/types'

/** Verdicts as a list says them. */
export const WORD: Record<string, string> = {
  met: 'met', near: 'near', not_met: 'not met', not_needed: 'not needed', test_first: 'test first', no_way: 'no way',
}

/** The kinds of site and the domains of radio rules, as a page says them. */
export const KINDS: { value: Site['kind']; label: string }[] = [
  { value: 'home', label: 'Home' }, { value: 'school', label: 'School' }, { value: 'clinic', label: 'Clinic or practice' },
  { value: 'shop', label: 'Shop or café' }, { value: 'workshop', label: 'Workshop' }, { value: 'office', label: 'Office' },
  { value: 'guest_house', label: 'Guest house' },
]
export const DOMAINS: { value: Site['domain']; label: string }[] = [{ value: 'europe', label: 'Europe' }, { value: 'americas', label: 'Americas' }]

/** Where a job stands, for a list of jobs. */
export function standWords(stand: Standing | undefined): { text: string; tone: '' | 'met' } {
  const on = stand?.on ? new Date(stand.on).toLocaleDateString(undefined, { day: 'numeric', month: 'short', year: 'numeric' }) : ''
  switch (stand?.stage) {
    case 'received': return { text: `Handed over on ${on}, signed for by ${stand.by}`, tone: 'met' }
    case 'handed_over': return { text: `Handed over on ${on}, not signed for yet`, tone: '' }
    case 'installed': return { text: `Being installed, last noted on ${on}`, tone: '' }
    case 'agreed': return { text: `Agreed with the client on ${on}`, tone: '' }
    default: return { text: 'Planned, not agreed yet', tone: '' }
  }
}

/** So many of something that takes an s. */
export const many = (count: number, what: string) => `${count} ${what}${count === 1 ? '' : 's'}`
