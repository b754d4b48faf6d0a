import type { BuriedService } from '@/api/types'

type Carries = NonNullable<BuriedService['carries']>

/** What a service in the ground carries: its letter on the sheet, and its name. */
export const CARRIED: Record<Carries, { letter: string; name: string }> = {
  electricity: { letter: 'E', name: 'Electricity' },
  gas: { letter: 'G', name: 'Gas' },
  water: { letter: 'W', name: 'Water' },
  drain: { letter: 'D', name: 'Drain' },
  telecom: { letter: 'T', name: 'Telephone' },
  heating: { letter: 'H', name: 'Heating' },
  unknown: { letter: '?', name: 'Nobody knows' },
}
