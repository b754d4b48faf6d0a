import type { Site } from '@/api/types'

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
