import { Op } from 'sequelize'
import type { DiffQuery } from '#contract/requests.ts'
import type { ChangedView, DiffView } from '#contract/oversight-views.ts'
import type { NodeId, PersonId } from '#core/base/ids.ts'
import type { Instant } from '#core/base/instant.ts'
import type { ActionSet } from '#core/levels/action.ts'
import { momentOf } from '#core/state/moment.ts'
import { applyChanges, atRevision, inverseOf, type Moment, type RecordChange } from '#core/state/state.ts'
import type { Parts } from '../parts.ts'
import { problemOf } from '../problem-error.ts'
import type { ChangeSetRow } from '../store/tables.ts'
import type { Asker } from './asker.ts'
import { differenceView, inOrder } from './difference.ts'
import { effectKnown, isPlaceWithin } from './history.ts'

/**
 * The workspace as it was at an instant: the present one with every later entry of the history taken back.
 * Before its first day there was none.
 */
export async function momentOfPast(parts: Parts, asker: Asker, at: Instant): Promise<Moment> {
  const rows = await entriesWithin(parts, asker, { [Op.gt]: at })
  let { state } = asker.moment
  for (const row of rows.toReversed())
    state = applyChanges(state, inverseOf(JSON.parse(row.changes) as RecordChange[]))
  const revision = asker.moment.state.revision - rows.length
  if (revision < 1 || at > parts.clock()) throw problemOf('not-found')
  return momentOf(atRevision(state, revision), at)
}

/** Who gained and lost what between two instants, and by which entries of the history. */
export async function diffView(parts: Parts, asker: Asker, query: DiffQuery): Promise<DiffView> {
  const [from, to] = [Number(query.from), Number(query.to)]
  const rows = await entriesWithin(parts, asker, { [Op.gt]: from, [Op.lte]: to })
  const changed = new Map<string, Changed>()
  const counted: number[] = []
  for (const row of rows) {
    const effect = effectKnown(asker, row)
    if (effect.counted !== null) counted.push(row.revision)
    for (const each of effect.differences) {
      if (!fits(asker, each, query)) continue
      const key = `${each.person} ${each.node}`
      const earlier = changed.get(key)
      const by = [...(earlier?.by ?? []), row.revision]
      changed.set(key, { ...each, before: earlier?.before ?? each.before, by })
    }
  }
  return {
    revision: asker.moment.state.revision,
    counted,
    changed: inOrder([...changed.values()].flatMap(each => changedView(asker, each))),
  }
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
  difference.before === difference.after ? [] : [{ ...differenceView(asker.moment, asker, difference), by }]

const fits = (asker: Asker, { person, node }: Pick<Changed, 'person' | 'node'>, query: DiffQuery): boolean =>
  (query.person === undefined || query.person === person) &&
  (query.place === undefined || isPlaceWithin(asker, node, query.place))

async function entriesWithin(
  { writer }: Parts,
  { workspace }: Asker,
  at: { [Op.gt]: Instant; [Op.lte]?: Instant },
): Promise<ChangeSetRow[]> {
  return (await writer.tables.changeSets.findAll({
    where: { workspace, at },
    order: [['revision', 'ASC']],
    raw: true,
  })) as unknown as ChangeSetRow[]
}
