import { checkIn } from '#core/access/evaluate.ts'
import { createEvaluation, type EvaluationContext } from '#core/access/evaluation-context.ts'
import { answerAt, answersFor, countsOf } from '#core/access/what.ts'
import { forEachWithAccess } from '#core/access/who.ts'
import { sizeOf } from '#core/base/vector.ts'
import { buildIndex } from '#core/index/build.ts'
import { type AccessIndex, vectorNames } from '#core/index/layout.ts'
import { createRandom } from '#demo/random.ts'
import { type Size, sizes } from '#demo/large.ts'
import type { FigureId } from './figures.ts'
import { impactsAt } from './impacts.ts'
import { largeSource } from './large-index.ts'
import { middle, middleOf, type Reading } from './measure.ts'

/** What the core alone takes, on workspaces of each size, beside one lookup in a map of a million numbers. */

const now = 1_790_000_000_000
const floorWords = 'one lookup in a map of a million numbers'

/** Of one size. */
export function coreReadings(name: keyof typeof sizes): Reading[] {
  const size = sizes[name]
  const source = largeSource(size, now)
  const building = middleOf(5, () => buildIndex(source))
  const index = buildIndex(source)
  const { lookup, ...figures } = figuresOf(index, size)
  const floor = { what: floorWords, value: lookup }
  const took = (id: FigureId, value: number): Reading => ({ id, size: name, unit: 'ms', value, floor })
  const memory = (id: FigureId, bytes: number): Reading => ({
    id,
    size: name,
    unit: 'MiB',
    value: bytes / 2 ** 20,
  })
  return [
    ...entriesOf(figures).map(([id, value]) => took(id, value)),
    took('build', building),
    memory(
      'memory.index',
      vectorNames.reduce((sum, column) => sum + sizeOf(index[column]), 0),
    ),
    memory('memory.ids', idsOf(index)),
    ...timedReadings(name, figures),
  ]
}

/** What starts and ends cost: the same where nothing starts or ends is the floor. */
function timedReadings(name: keyof typeof sizes, figures: Figures): Reading[] {
  const plain = figuresOf(buildIndex(largeSource(sizes[name], now, false)), sizes[name])
  return entriesOf(figures).map(([id, value]) => ({
    id: `${id}.timed` as const,
    size: name,
    unit: 'ms',
    value,
    floor: { what: 'the same where nothing does', value: plain[id] },
  }))
}

/** By what it is, milliseconds. */
function figuresOf(index: AccessIndex, size: Size) {
  const evaluation = createEvaluation(index, now)
  const random = createRandom(7)
  const { cold, warm, lookup } = checks(evaluation, size)
  return {
    lookup,
    'check.cold': cold,
    'check.warm': warm,
    who: middleOf(2000, () => forEachWithAccess(evaluation, random.whole(size.nodes), ignored)),
    'what.counted': middleOf(40, () => countsOf(answersFor(evaluation, random.whole(size.people)))),
    ...impactsAt(evaluation, size),
  }
}

type Figures = Omit<ReturnType<typeof figuresOf>, 'lookup'>
const entriesOf = (figures: Figures) => Object.entries(figures) as [keyof Figures, number][]

const ignored = (): void => {}

const idsOf = ({ nodes: { packed } }: AccessIndex): number =>
  packed.lines.byteLength + packed.starts.byteLength + packed.slots.byteLength

/** What one of each takes, the middle of some rounds: they take turns, so that what else the machine does meets all. */
function checks(
  evaluation: EvaluationContext,
  { people, nodes }: Size,
): { lookup: number; cold: number; warm: number } {
  const random = createRandom(11)
  const count = 300_000
  const numbers = new Map(Array.from({ length: 1_000_000 }, (_, number) => [number * 7, number]))
  const keys = Int32Array.from({ length: count }, () => random.whole(1_000_000) * 7)
  const who = Int32Array.from({ length: count }, () => random.whole(people))
  const where = Int32Array.from({ length: count }, () => random.whole(nodes))
  const answers = answersFor(evaluation, random.whole(people))
  let sum = 0
  const rounds = Array.from({ length: 15 }, () => ({
    lookup: taking(() => {
      for (let each = 0; each < count; each += 1) sum += numbers.get(keys[each] as number) as number
    }),
    cold: taking(() => {
      for (let each = 0; each < count; each += 1)
        sum += checkIn(evaluation, who[each] as number, where[each] as number)
    }),
    warm: taking(() => {
      for (let each = 0; each < count; each += 1) sum += answerAt(answers, where[each] as number)
    }),
  }))
  if (sum < 0) throw new Error('never')
  const one = (kind: keyof (typeof rounds)[number]) => middle(rounds.map(round => round[kind])) / count
  return { lookup: one('lookup'), cold: one('cold'), warm: one('warm') }
}

function taking(act: () => void): number {
  const began = performance.now()
  act()
  return performance.now() - began
}
