/** Verdicts as a list says them. */
export const WORD: Record<string, string> = {
  met: 'met', near: 'near', not_met: 'not met', not_needed: 'not needed', test_first: 'test first', no_way: 'no way',
}

/** The kinds of site, as a page says them. */
export const SITE_KINDS: Record<string, string> = { home: 'Home', school: 'School', business: 'Small business' }
