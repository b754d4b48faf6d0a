import type { Change, ElementOf, PortUse } from '@/api/types'
import { put, removal } from '@/document/edits'
import type { useDesign } from '@/document/store'

type Store = ReturnType<typeof useDesign>
type Pin = ElementOf<'port_pin'>

/** Which cable of its device is in a port, from 1. */
export function cableOf(port: PortUse): number {
  return Number(port.link?.split('/')[1] ?? 1)
}

function pinAt(store: Store, port: PortUse): Pin | undefined {
  return store.all('port_pin').find((p) => p.device === port.device && p.cable === cableOf(port))
}

function pinned(store: Store, port: PortUse, to: number, id?: string): Change[] {
  if (!port.device) return []
  const old = pinAt(store, port)
  const pin: Pin = { id: old?.id ?? id ?? store.nextId('port_pin', 'pin'), switch: port.switch, port: to, device: port.device, cable: cableOf(port) }
  return [put('port_pin', pin)]
}

/** Keep every device of a switch at the port where it is. */
export function keepPorts(store: Store, ports: readonly PortUse[]): Change[] {
  let next = Number(store.nextId('port_pin', 'pin').split('-').at(-1))
  return ports.filter((p) => p.device && !p.pinned).flatMap((p) => pinned(store, p, p.port, `pin-${next++}`))
}

/** Put a way to another switch, or to the line, into another port; what a device has there goes elsewhere. */
export function moveWay(store: Store, from: PortUse, to: PortUse): Change[] {
  const old = wayPinAt(store, from)
  const pin = { id: old?.id ?? store.nextId('way_pin', 'way'), switch: from.switch, port: to.port, to: from.uplink_to ?? from.switch }
  const pins = store.all('port_pin').filter((p) => p.switch === to.switch && p.port === to.port)
  return [...pins.flatMap((p) => removal(store, 'port_pin', p.id)), put('way_pin', pin)]
}

const wayPinAt = (store: Store, port: PortUse) => store.all('way_pin').find((w) => w.switch === port.switch && w.to === (port.uplink_to ?? port.switch))

/** Leave the port of a way to the plan again. */
export function freeWay(store: Store, port: PortUse): Change[] {
  const pin = wayPinAt(store, port)
  return pin ? removal(store, 'way_pin', pin.id) : []
}

/** Leave the ports of a switch to the plan again. */
export function freePorts(store: Store, switchId: string): Change[] {
  const devices = store.all('port_pin').filter((p) => p.switch === switchId).flatMap((p) => removal(store, 'port_pin', p.id))
  return [...devices, ...store.all('way_pin').filter((w) => w.switch === switchId).flatMap((w) => removal(store, 'way_pin', w.id))]
}

/** Leave one device's port to the plan again. */
export function freePort(store: Store, port: PortUse): Change[] {
  const pin = pinAt(store, port)
  return pin ? removal(store, 'port_pin', pin.id) : []
}

/** Put a device into another port; what is there goes to where it came from. */
export function movePort(store: Store, from: PortUse, to: PortUse): Change[] {
  if (from.uplink) return moveWay(store, from, to)
  const first = pinned(store, from, to.port)
  if (!to.device || to.device === from.device && cableOf(to) === cableOf(from)) return first
  const taken = Number(store.nextId('port_pin', 'pin').split('-').at(-1)) + 1
  return [...first, ...pinned(store, to, from.port, `pin-${taken}`)]
}
