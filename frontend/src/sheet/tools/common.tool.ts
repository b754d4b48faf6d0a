import { distance } from '@/document/geometry'
import { useMade } from '@/document/useMade'
import { length, signed } from '@/document/units'
import { common, commonTold } from '../common'
import type { Hand, SheetTool } from './hand'

const EACH = 2
const EXPECTS = [
  'press a point that both storeys have, such as a corner of the stair well',
  'press a second one, far from the first',
  'show the other storey, and press the first point there',
  'press the second point there: this storey is laid over the one before',
]

async function lay({ store }: Hand): Promise<void> {
  const [a, b, c, d] = common.value
  common.value = []
  if (!a || !b || !c || !d) return
  const moved = store.find('floor', c.floor)
  const made = useMade()
  const done = await made.make(`Lay ${moved?.name} over another storey`.slice(0, 120), { do: 'fit', floor: c.floor, are: [c.at, d.at], belong: [a.at, b.at] })
  const [here, there] = [distance(c.at, d.at), distance(a.at, b.at)]
  commonTold.value = done
    ? `the two points lie ${length(here, 2)} apart here and ${length(there, 2)} on the other storey: ${signed((here / there - 1) * 100, 1)} %`
    : made.why.value
}

/** Two points that two storeys have in common lay one over the other. */
export default {
  tool: 'common', name: 'Two common points', key: '', order: 901, stage: 'section', lines: 'M-7 5a2 2 0 1 0 .1 0M7 -5a2 2 0 1 0 .1 0',
  hint: EXPECTS[0]!,
  expects: () => EXPECTS[common.value.length] ?? '',
  press(hand, at) {
    commonTold.value = ''
    const before = common.value
    const first = before[0]?.floor
    // The first two lie on one storey, the others on another.
    const fits = before.length === 0 || (before.length < EACH ? first === hand.floor() : first !== hand.floor() && (before.length === EACH || before[EACH]!.floor === hand.floor()))
    if (!fits) return
    common.value = [...before, { floor: hand.floor(), at: hand.snap(at) }]
    if (common.value.length < 2 * EACH) return
    void lay(hand)
    hand.letGo()
  },
  move: (hand, at) => void hand.snap(at),
  cancel: () => (common.value = []),
} satisfies SheetTool
