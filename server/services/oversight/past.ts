import { Op } from 'sequelize'
import type { DiffQuery } from '#contract/requests.ts'
import type { ChangedView, DiffView } from '#contract/views/history.ts'
import type { NodeId, PersonId } from '#core/base/ids.ts'
import type { Instant } from '#core/base/instant.ts'
import type { ActionSet } from '#core/levels/action.ts'
import { snapshotOf } from '#core/state/snapshot.ts'
import {
  applyChangesLater,
  atRevision,
  inverseOf,
  type Snapshot,
  type RecordChange,
  type State,
} from '#core/state/state.ts'
import type { Steps } from '#core/changes/steps.ts'
import type { Parts } from '../../parts.ts'
import { problemOf } from '../../problem-error.ts'
import type { Asker } from '../viewer/asker.ts'
import { differenceView, inOrder } from './difference.ts'
import { newestFirst } from './audit-entries.ts'
import { impactKnown, isPlaceWithin } from './history.ts'
import { inTurns, readsAtOnce } from '../viewer/turns.ts'

/**
 * The workspace as it was at an instant: the present one with every later entry of the history taken back, in turns.
 * Before its first day there was none, and what is to come is not known.
 */
export async function snapshotOfPast(parts: Parts, asker: Asker, at: Instant): Promise<Snapshot> {
  if (at > parts.clock()) throw problemOf('not-found')
  return inTurns(parts, { asker, patience: {}, atOnce: readsAtOnce }, async turn => {
    let { state } = asker.snapshot
    let { revision } = state
    for await (const row of newestFirst(parts, asker, { span: { [Op.gt]: at }, attributes: ['changes'] })) {
      state = await turn.run(takenBack(state, JSON.parse(row.changes) as RecordChange[]))
      revision -= 1
    }
    if (revision < 1) throw problemOf('not-found')
    return snapshotOf(atRevision(state, revision), at)
  })
}

function* takenBack(state: State, changes: readonly RecordChange[]): Steps<State> {
  const inverse = inverseOf(changes)
  let next = state
  for (let from = 0; from < inverse.length; from += partLength) {
    next = applyChangesLater(next, inverse.slice(from, from + partLength))
    yield from / inverse.length
  }
  return next
}

/** So many records are changed between two looks at the time. */
const partLength = 100

/** Who gained and lost what between two instants, and by which entries of the history. */
export async function diffView(parts: Parts, asker: Asker, query: DiffQuery): Promise<DiffView> {
  const [from, to] = [Number(query.from), Number(query.to)]
  const span = { [Op.gt]: from, [Op.lte]: to }
  const changed = new Map<string, Changed>()
  const counted: number[] = []
  return inTurns(parts, { asker, patience: {}, atOnce: readsAtOnce }, async turn => {
    for await (const row of newestFirst(parts, asker, { span, attributes: ['impact'] })) {
      const impact = await turn.run(impactKnown(asker, row))
      if (impact.counted !== null) counted.push(row.revision)
      for (const each of impact.differences) {
        await turn.breathe()
        if (!fits(asker, each, query)) continue
        const key = `${each.person} ${each.node}`
        const later = changed.get(key)
        const by = [row.revision, ...(later?.by ?? [])]
        changed.set(key, { ...each, after: later?.after ?? each.after, by })
      }
    }
    return {
      revision: asker.snapshot.state.revision,
      counted: counted.toReversed(),
      changed: inOrder([...changed.values()].flatMap(each => changedView(asker, each))),
    }
  })
}

interface Changed {
  readonly person: PersonId
  readonly node: NodeId
  readonly nodes: number
  readonly before: ActionSet
  readonly after: ActionSet
  readonly by: readonly number[]
}

/** What went and came back is no difference between the two. */
const changedView = (asker: Asker, { by, ...difference }: Changed): ChangedView[] =>
  difference.before === difference.after ? [] : [{ ...differenceView(asker.snapshot, asker, difference), by }]

const fits = (asker: Asker, { person, node }: Pick<Changed, 'person' | 'node'>, query: DiffQuery): boolean =>
  (query.person === undefined || query.person === person) &&
  (query.place === undefined || isPlaceWithin(asker, node, query.place))
