import type { Catalogue, DeviceModel, Role } from '@/api/types'

/** What a kind of device can do, as the catalogue has it. */
export function roleOf(catalogue: Catalogue | null, kind: string): Role | undefined {
  return catalogue?.roles[kind]
}

export function modelsOf(catalogue: Catalogue | null, kind: string): DeviceModel[] {
  return Object.values(catalogue?.devices[kind] ?? {})
}

/** Whether clients hear what this device sends. */
export function hasAir(catalogue: Catalogue | null, device: { kind: string; model: string }): boolean {
  return !!catalogue?.devices[device.kind]?.[device.model]?.air
}
