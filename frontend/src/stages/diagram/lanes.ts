import type { ElementOf } from '@/api/types'

const COLOURS = ['var(--heather)', 'var(--tarn)', 'var(--gorse)', 'var(--rust)', 'var(--moss-line)', 'var(--granite)']

/** The colour of each network's lane by its VLAN, in the order in which they are listed. */
export function laneColours(networks: readonly ElementOf<'network'>[]): Map<number, string> {
  return new Map(networks.map((n, k) => [n.vlan, COLOURS[k % COLOURS.length]!]))
}
