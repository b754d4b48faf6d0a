import { describe, expect, it } from 'vitest'
import type { Space } from '@/api/types'
import { overlaps, type Box } from '@/sheet/boxes'
import { placeNames, type Named } from '@/sheet/names'
import { useViewport } from '@/sheet/useViewport'

const room = (id: string, name: string, w: number, s: number, e: number, n: number) =>
  ({ id, name, outline: [[w, s], [e, s], [e, n], [w, n]] }) as unknown as Space
const sheet = (scale: number) => {
  const viewport = useViewport()
  viewport.scale.value = scale
  viewport.tx.value = 0
  viewport.ty.value = 600
  return viewport
}
const mark = (key: string, x: number, y: number, must = false): Named => ({ key, name: key, x, y, must })

/** All boxes of names, worked out anew: 6.1 px a letter, 13 px a line. */
function boxes(names: ReturnType<typeof placeNames>, marks: Named[]): Box[] {
  const box = (x: number, y: number, lines: string[], anchor: string): Box => {
    const wide = Math.max(...lines.map((l) => l.length)) * 6.1
    const left = anchor === 'start' ? x : anchor === 'end' ? x - wide : x - wide / 2
    return { left, right: left + wide, top: y - 9, bottom: y - 10 + lines.length * 13 }
  }
  return [
    ...marks.flatMap((m) => {
      const at = names.marks.get(m.key)
      return at ? [box(m.x + at.dx, m.y + at.dy, [m.name], at.anchor)] : []
    }),
    ...names.rooms.map((r) => box(r.x, r.y, r.lines, 'middle')),
  ]
}

describe('names on the sheet', () => {
  it('stand in the middle of an empty room, whole', () => {
    const viewport = sheet(20)
    const { rooms } = placeNames([room('a', 'Kitchen', 0, 0, 10, 8)], [], viewport)
    expect(rooms[0]).toMatchObject({ lines: ['Kitchen'] })
    expect([rooms[0]!.x, rooms[0]!.y]).toEqual(viewport.toScreen([5, 4]))
  })

  it('are broken, cut or left out where there is no room', () => {
    const written = (wide: number) => placeNames([room('a', 'Great kitchen', 0, 0, wide, 3)], [], sheet(20)).rooms[0]?.lines
    expect(written(6)).toEqual(['Great kitchen'])
    expect(written(3.4)).toEqual(['Great', 'kitchen'])
    expect(written(2)?.[0]).toMatch(/^Grea.*…$/)
    expect(written(1)).toBeUndefined()
    expect(placeNames([room('a', 'Practice 8', 0, 0, 2.6, 1.2)], [], sheet(20)).rooms[0]?.lines).toEqual(['Prac… 8'])
  })

  it('never lie on one another, on a mark or on the furniture, whatever the site', () => {
    let seed = 7
    const random = () => (seed = (seed * 16807) % 2147483647) / 2147483647
    for (let site = 0; site < 60; site++) {
      const viewport = sheet(6 + random() * 30)
      const spaces = Array.from({ length: 14 }, (_, k) => {
        const [w, s] = [(k % 5) * 4, Math.floor(k / 5) * 5]
        return room(`r${k}`, 'Practice room of the upper floor'.slice(0, 4 + Math.floor(random() * 26)).trim(), w, s, w + 4, s + 5)
      })
      const marks = Array.from({ length: 18 }, (_, k) => mark(`AP-${k}`, random() * 500, 600 - random() * 400))
      const furniture = [{ left: 0, top: 500, right: 150, bottom: 600 }]
      const names = placeNames(spaces, marks, viewport, furniture, 14)
      const all = [...boxes(names, marks), ...furniture]
      // Thousands of pairs: what lies on another is listed, and expected once to be nothing.
      const onOthers = all.flatMap((a, i) => all.slice(i + 1).filter((b) => overlaps(a, b)))
      const onMarks = boxes(names, marks).filter((text) => marks.some((m) => overlaps(text, { left: m.x - 9, right: m.x + 9, top: m.y - 9, bottom: m.y + 9 })))
      expect([...onOthers, ...onMarks]).toEqual([])
    }
  })

  it('of what is selected are shown whatever they cover', () => {
    const marks = [mark('AP-1', 100, 100), mark('AP-2', 101, 101), mark('AP-3', 100, 101), mark('AP-4', 101, 100), mark('AP-5', 100, 100, true)]
    expect(placeNames([], marks, sheet(20)).marks.has('AP-5')).toBe(true)
    expect(placeNames([], marks, sheet(20)).marks.size).toBeLessThan(5)
  })
})
