import type { PortUse, Thing } from '@/api/types'

/** A rack to scale on the screen: 1 unit is 44.45 mm (IEC 60297). */
export const UNIT_MM = 44.45
export const FACE_MM = 440
const ONE_ROW = 24

export interface Face {
  thing: Thing
  x: number
  y: number
  width: number
  height: number
}

export interface Port {
  number: number
  x: number
  y: number
  size: number
}

/** Pixels to a millimetre, so that a frame of so many units fits. */
export function scaleFor(units: number, high: number): number {
  return Math.min(0.6, Math.max(0.2, high / (units * UNIT_MM)))
}

/** Faces of what has units of its own, and of what stands on a shelf, from the top of the frame down. */
export function facesOf(things: readonly Thing[], units: number, scale: number): Face[] {
  const unit = UNIT_MM * scale
  const top = (t: Thing) => (units - t.unit - t.units + 1) * unit
  const found: Face[] = []
  for (const thing of things.filter((t) => !t.on && t.unit)) {
    found.push({ thing, x: 0, y: top(thing), width: FACE_MM * scale, height: thing.units * unit })
  }
  const used = new Map<string, number>()
  for (const thing of things.filter((t) => t.on && t.unit)) {
    const shelf = found.find((f) => f.thing.thing === thing.on)
    if (!shelf) continue
    const x = used.get(thing.on) ?? 4
    const width = thing.wide_mm * scale
    used.set(thing.on, x + width + 6)
    const height = Math.min(shelf.height - 8, Math.max(0.9 * unit, 16))
    found.push({ thing, x, y: shelf.y + shelf.height - 5 - height, width, height })
  }
  return found
}

/** Where each port of a face lies, its middle in pixels. */
export function portsOf(face: Face): Port[] {
  const count = face.thing.ports ?? 0
  const rows = count > ONE_ROW ? 2 : 1
  const columns = Math.ceil(count / rows)
  const size = Math.max(3, Math.min(9, face.width / columns - 2, face.height / rows - 6))
  return Array.from({ length: count }, (_, k) => {
    const column = rows === 1 ? k : Math.floor(k / 2)
    const row = rows === 1 ? 0 : k % 2
    return {
      number: k + 1,
      x: face.x + (face.width * (column + 0.5)) / columns,
      y: face.y + face.height * (rows === 1 ? 0.62 : 0.34 + 0.36 * row),
      size,
    }
  })
}

export const useOf = (uses: readonly PortUse[], element: string, port: number) => uses.find((u) => u.switch === element && u.port === port)
