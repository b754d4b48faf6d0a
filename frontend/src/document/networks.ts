import type { ElementOf, SettingsSheet } from '@/api/types'
import { put, removal } from './edits'
import type { useDesign } from './store'

type Store = ReturnType<typeof useDesign>
type Membership = ElementOf<'membership'>
type End = Pick<Membership, 'device' | 'switch' | 'port' | 'given'>

/** What was said of an end, where somebody chose its network. */
export const memberAt = (store: Store, end: End): Membership | undefined =>
  store.all('membership').find((m) => m.device === end.device && m.switch === end.switch && m.port === end.port && m.given === end.given)

/** The changes that put an end on a network; without one it belongs where the plan says. */
export function joined(store: Store, end: End, network: string | null) {
  const held = memberAt(store, end)
  if (!network) return held ? removal(store, 'membership', held.id) : []
  return [put('membership', { ...end, id: held?.id ?? store.nextId('membership', 'member'), network })]
}

/** The end that a host is at, by its id: a socket, a device, a port that is given on, a port of a switch. */
export function endOf(host: string): End | null {
  const [kind, element, port] = host.split(':')
  if (kind === 'socket') return { device: element!, switch: null, port: Number(port), given: false }
  if (kind === 'device') return { device: element!, switch: null, port: 1, given: false }
  if (kind === 'given') return { device: element!, switch: null, port: Number(port), given: true }
  if (kind === 'port') return { device: null, switch: element!, port: Number(port), given: false }
  return null
}

/** What a wireless name asks of who joins. */
export const SECURITY: { value: ElementOf<'wireless_name'>['security']; label: string }[] = [
  { value: 'wpa3_wpa2', label: 'WPA3, WPA2 fallback' },
  { value: 'wpa3', label: 'WPA3' },
  { value: 'wpa2', label: 'WPA2' },
  { value: 'enterprise', label: 'Enterprise' },
  { value: 'open_portal', label: 'Open, portal' },
]

/** The colour of each network's lane by its VLAN, as screen, plan and paper have it. */
export function laneColours(networks: SettingsSheet['networks']): Map<number, string> {
  return new Map(networks.map((n) => [n.vlan, laneColour(n.tone)]))
}
export const laneColour = (tone: string | undefined) => `var(--${tone === 'moss' ? 'moss-line' : (tone ?? 'heather')})`
