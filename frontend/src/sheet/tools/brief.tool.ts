import type { ElementOf, Point } from '@/api/types'
import { newDevice, put } from '@/document/edits'
import { distance, rounded } from '@/document/geometry'
import { cropped, levelled } from '@/document/underlay'
import { foundModel, toCheck, toScale, toStraighten, underlayOf } from '../underlays'
import type { Hand, SheetTool } from './hand'

/** What the visit brings home, pressed on the sheet. None has a key: the notebook has a button for each. */
const NARROWEST_M = 0.5
const SHORTEST_M = 0.2
const STEP_M = 0.05

const PAINS: [kind: ElementOf<'pain'>['kind'], name: string][] = [
  ['dead', 'Nothing there'], ['slow', 'Slow'], ['drops', 'Drops while walking'], ['lags', 'Lags'],
  ['full_bars', 'Full bars, nothing loads'], ['clings', 'Clings to a far access point'],
  ['one_device', 'One device fails'], ['heap', 'Heap of wires'],
]

function base(tool: string, name: string, hint: string): SheetTool {
  return { tool, name, key: '', order: 300, stage: 'brief', hint }
}

const pains: SheetTool[] = PAINS.map(([kind, name]) => ({
  ...base(`pain_${kind}`, name, 'press where the client has it'),
  press({ store, floor, place, letGo }, at) {
    const id = store.nextId('pain', 'pain')
    place('pain', `Note ${name.toLowerCase()}`, [put('pain', { id, floor: floor(), kind, at: rounded(at, STEP_M), words: '' })], id)
    letGo()
  },
}))

const entry: SheetTool = {
  ...base('line_entry', 'Line', 'press where the line comes into the building'),
  press({ store, floor, place, letGo }, at) {
    const id = store.all('line_entry')[0]?.id ?? store.nextId('line_entry', 'line')
    place('line_entry', 'Mark the line', [put('line_entry', { id, floor: floor(), name: 'Line', at: rounded(at, STEP_M) })], id)
    letGo()
  },
}

const found: SheetTool = {
  ...base('found_gear', 'What is there', 'press where it hangs or stands'),
  press({ store, floor, place, letGo }, at) {
    const kind = Object.entries(store.catalogue?.devices ?? {}).find(([, models]) => foundModel.value in models)?.[0]
    if (!kind) return
    const model = store.catalogue!.devices[kind]![foundModel.value]!
    const id = store.nextId('device', 'found')
    const device = { ...newDevice(store, kind, floor(), rounded(at, STEP_M)), id, name: model.label.slice(0, 120), model: model.id, mount: model.mounts?.[0] ?? 'wall', height_m: 1.2, state: 'unknown' as const }
    place('device', `Note ${device.name}`, [put('device', device)], id)
    letGo()
  },
}

/** A tool that is dragged from one point to another. */
function dragged(info: SheetTool, shape: 'wall' | 'room', done: (hand: Hand, from: Point, to: Point) => void): SheetTool {
  return {
    ...info,
    press: ({ draft }, at) => {
      draft.value = { from: at, to: at, shape }
    },
    move: ({ draft }, at) => {
      if (draft.value) draft.value = { ...draft.value, to: at }
    },
    release: (hand) => {
      const drawn = hand.draft.value
      hand.draft.value = null
      if (drawn && distance(drawn.from, drawn.to) >= SHORTEST_M) done(hand, drawn.from, drawn.to)
    },
    cancel: ({ draft }) => {
      draft.value = null
    },
  }
}

function zone(kind: ElementOf<'zone'>['kind'], name: string, hint: string): SheetTool {
  return dragged(base(`zone_${kind}`, name, hint), 'room', ({ store, floor, place, letGo }, from, to) => {
    if (Math.abs(from[0] - to[0]) < NARROWEST_M || Math.abs(from[1] - to[1]) < NARROWEST_M) return
    const [a, b] = [rounded(from, STEP_M), rounded(to, STEP_M)]
    const id = store.nextId('zone', 'zone')
    const outline: Point[] = [[a[0], a[1]], [b[0], a[1]], [b[0], b[1]], [a[0], b[1]]]
    const few = kind === 'later' ? { access_points: 1, outlets: 2 } : { access_points: 0, outlets: 0 }
    place('zone', `Mark ${name.toLowerCase()}`, [put('zone', { id, floor: floor(), kind, name, outline, ...few, cameras: 0 })], id)
    letGo()
  })
}

const cable = dragged(
  base('old_cable', 'Cable there', 'drag from one of its ends to the other'), 'wall',
  ({ store, floor, place, letGo }, from, to) => {
    const id = store.nextId('old_cable', 'cable')
    const row = { id, floor: floor(), name: `Cable ${id.split('-').at(-1)}`, a: rounded(from, STEP_M), b: rounded(to, STEP_M), category: null, condition: 'untested' as const, tested_mbps: null, state: 'unknown' as const }
    place('old_cable', `Note ${row.name}`, [put('old_cable', row)], id)
    letGo()
  },
)

function underlay(tool: string, name: string, hint: string, shape: 'wall' | 'room', done: (picture: ElementOf<'underlay'>, from: Point, to: Point) => ElementOf<'underlay'>): SheetTool {
  return dragged(base(tool, name, hint), shape, ({ store, floor, letGo }, from, to) => {
    const picture = underlayOf(store, floor())
    if (picture) store.commit(`${name} of the client's plan`, [put('underlay', done(picture, from, to))])
    letGo()
  })
}

const CORNERS = 4

/** Of something rectangular on a photograph that was taken at a slant: a room, the frame of the drawing. */
const straight: SheetTool = {
  ...base('plan_straighten', 'Straighten', 'press the four corners, one after the other round it from any of them, of something rectangular whose sides you know: a room, the sheet’s own frame'),
  expects: ({ path }) => (path.value.length ? `the next corner round it; ${CORNERS - path.value.length} more` : ''),
  press({ path, letGo }, at) {
    path.value = [...path.value, at]
    if (path.value.length < CORNERS) return
    toStraighten.value = path.value
    path.value = []
    letGo()
  },
  cancel: ({ path }) => (path.value = []),
}

export default [
  straight,
  dragged(base('plan_check', 'Check', 'drag between two other points whose distance you know'), 'wall', ({ letGo }, from, to) => {
    toCheck.value = { from, to }
    letGo()
  }),
  ...pains, entry, found, cable,
  zone('later', 'Comes later', 'drag over what will be built out later'),
  zone('no_drilling', 'No drilling', 'drag over where nothing may be drilled'),
  dragged(base('plan_scale', 'Scale', 'drag between two points whose distance you know'), 'wall', ({ letGo }, from, to) => {
    toScale.value = { from, to }
    letGo()
  }),
  underlay('plan_level', 'Level', 'drag along a line that should be level or upright', 'wall', levelled),
  underlay('plan_crop', 'Crop', 'drag over the part that is wanted', 'room', cropped),
  underlay('plan_move', 'Move', 'drag from a point on the plan to where it belongs', 'wall', (picture, from, to) => ({
    ...picture, at: rounded([picture.at[0] + to[0] - from[0], picture.at[1] + to[1] - from[1]]),
  })),
] satisfies SheetTool[]
