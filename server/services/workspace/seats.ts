import { Op } from 'sequelize'
import { nextMonth } from '#contract/dates.ts'
import type { SeatPart, SeatsView } from '#contract/views/roles.ts'
import { seatsTaken, takesSeat } from '#core/access/seats.ts'
import { peopleOf } from '#core/access/subject.ts'
import type { Instant } from '#core/base/instant.ts'
import type { Person } from '#core/people/person.ts'
import { snapshotOf } from '#core/state/snapshot.ts'
import {
  applyChanges,
  inverseOf,
  type Snapshot,
  type RecordChange,
  type State,
  workspaceOf,
} from '#core/state/state.ts'
import type { Parts } from '../../parts.ts'
import { problemOf } from '../../problem-error.ts'
import type { ChangeSetRow } from '../../store/tables.ts'
import { type Asker, asks } from '../viewer/asker.ts'

/** The plan is simulated: no payment is made. */
const centsPerMonth = 450

/** How many seats there are, who takes them, and how that came. */
export async function seatsView(parts: Parts, asker: Asker): Promise<SeatsView> {
  if (!asks(asker, 'view seats')) throw problemOf('not-found')
  const { snapshot } = asker
  const { seats: bought, seatsNext, suspendedHoldSeats, timeZone } = workspaceOf(snapshot.state)
  const counts: Record<SeatPart, number> = {
    here: 0,
    invited: 0,
    suspended: 0,
    'suspended without': 0,
    free: 0,
    guests: 0,
  }
  for (const person of peopleOf(snapshot)) counts[partOf(snapshot, person)] += 1
  return {
    bought,
    taken: seatsTaken(snapshot),
    next: seatsNext,
    nextPeriod: nextMonth(parts.clock(), timeZone),
    parts: counts,
    suspendedHoldSeats,
    mayChange: asks(asker, 'change seats'),
    centsPerMonth,
    past: await pastSeats(parts, asker),
  }
}

function partOf(snapshot: Snapshot, person: Person): SeatPart {
  if (person.kind === 'guest') return 'guests'
  const takes = takesSeat(snapshot, person)
  if (person.status === 'suspended') return takes ? 'suspended' : 'suspended without'
  if (!takes) return 'free'
  return person.status === 'invited' ? 'invited' : 'here'
}

const pointsAtMost = 60

/** Tables whose changes can take or free a seat. */
const counting = /"table":"(persons|holdings|roles|workspaces)"/

/**
 * Seats over the life of the workspace, at equal steps: the present state with later changes taken back, once over
 * the history.
 */
async function pastSeats(
  { writer, clock }: Parts,
  { workspace, snapshot }: Asker,
): Promise<SeatsView['past']> {
  const now = clock()
  const since = workspaceOf(snapshot.state).madeAt
  const step = Math.max(86_400_000, Math.ceil((now - since) / pointsAtMost))
  const found: { at: Instant; taken: number; bought: number | null }[] = [pointAt(snapshot.state, now)]
  const rows = (await writer.tables.changeSets.findAll({
    attributes: ['at', 'changes'],
    where: { workspace, revision: { [Op.lte]: snapshot.state.revision } },
    order: [['revision', 'DESC']],
    raw: true,
  })) as unknown as Pick<ChangeSetRow, 'at' | 'changes'>[]
  let state = snapshot.state
  let next = now - step
  for (const { at, changes } of rows) {
    for (; at <= next && next >= since; next -= step) found.push(pointAt(state, next))
    // The first day made the workspace: before it there is nothing to count.
    if (!counting.test(changes) || at <= since) continue
    const all = JSON.parse(changes) as RecordChange[]
    state = applyChanges(state, inverseOf(all.filter(each => counted.has(each.table))))
  }
  return found.toReversed()
}

const counted: ReadonlySet<string> = new Set(['persons', 'holdings', 'roles', 'workspaces'])

const pointAt = (state: State, at: Instant) => ({
  at,
  taken: seatsTaken(snapshotOf(state, at)),
  bought: workspaceOf(state).seats,
})
