import { peopleOf } from '../access/subject.ts'
import { eachRow, rowsBy } from '../base/collection.ts'
import type { NodeId, PersonId } from '../base/ids.ts'
import type { Instant } from '../base/instant.ts'
import { leadsPrincipal, personPrincipal, type Principal, teamPrincipal } from '../rules/principal.ts'
import type { Snapshot, RecordChange, State } from '../state/state.ts'
import { type ChangeOf, conductOf } from './conduct.ts'
import { type Place, placesBelow } from './places.ts'

/** The records that changed, and what they changed from and to. */
export interface Transition {
  readonly changes: readonly RecordChange[]
  readonly before: Snapshot
  readonly after: Snapshot
}

/** Where and for whom access can differ by some changes: never too few, often too many. */
export interface AffectedScope {
  /** All that lies below these. */
  readonly roots: ReadonlySet<NodeId>
  readonly people: ReadonlySet<PersonId> | 'everybody'
  /** Whether it can differ for visitors without an account. */
  readonly isWeb: boolean
}

export const affectedScopeOf = (transition: Transition): AffectedScope => ({
  roots: affectedRoots(transition),
  people: affectedPeople(transition),
  isWeb: transition.changes.some(each => conductOf(transition.after.state, each.table).isOfWeb === true),
})

/** Whether access of somebody can differ. */
export function isAffected(transition: Transition, person: PersonId): boolean {
  const people = affectedPeople(transition)
  return people === 'everybody' || people.has(person)
}

/** All people, in either state. */
export const everybodyIn = ({ before, after }: Pick<Transition, 'before' | 'after'>): PersonId[] => [
  ...new Set([...peopleOf(before), ...peopleOf(after)].map(person => person.id)),
]

/** Whom a grant or limit names, whose own records changed, or else everybody. */
function affectedPeople({ changes, before, after }: Transition): ReadonlySet<PersonId> | 'everybody' {
  const found = new Set<PersonId>()
  for (const change of changes) {
    const { people: affected } = conductOf(after.state, change.table)
    const people = affected?.(change, { before: before.state, after: after.state }) ?? []
    if (people === 'everybody') return people
    for (const person of people) found.add(person)
  }
  return found
}

/** All that lies below the places whose entries changed, or that name a person or team that did. */
export const affectedPlaces = (transition: Transition): Place[] =>
  placesBelow(transition.before.state, transition.after.state, affectedRoots(transition))

/** The places below which all that is touched lies. */
export function affectedRoots({ changes, before, after }: Transition): ReadonlySet<NodeId> {
  // Who is in a team says nothing of where it is named.
  const isOfMembers = changes.every(each => each.table === 'memberships')
  const states = isOfMembers ? [after.state] : [before.state, after.state]
  return new Set(states.flatMap(state => changes.flatMap(change => rootsOf(state, change))))
}

const rootsOf = (state: State, change: RecordChange): readonly NodeId[] =>
  conductOf(state, change.table).places?.(state, change) ?? []

/** How somebody is called and reached makes no difference to what they may do. */
export const isProfile = ({ before, after }: ChangeOf<'persons'>): boolean =>
  before !== null &&
  after !== null &&
  before.kind === after.kind &&
  before.status === after.status &&
  before.from === after.from &&
  before.until === after.until &&
  before !== after

export const isPolicy = ({ before, after }: ChangeOf<'workspaces'>): boolean =>
  before?.guestCeiling !== after?.guestCeiling || before?.allowsPublishing !== after?.allowsPublishing

/** Every principal that can ever match a person, whenever their memberships begin and end. */
export function principalsOf(state: State, person: PersonId): Principal[] {
  const joined = rowsBy(state.memberships, 'person', person).map(each => each.team)
  const forAll = rowsBy(state.teams, 'joining', 'everyone').map(each => each.id)
  return [
    personPrincipal(person),
    'everyone',
    'guests',
    'anyone',
    ...[...joined, ...forAll].flatMap(team => [teamPrincipal(team), leadsPrincipal(team)]),
  ]
}

export function placesNaming(state: State, principals: readonly Principal[]): NodeId[] {
  const named = new Set(principals)
  const places: NodeId[] = []
  for (const each of principals) {
    for (const grant of rowsBy(state.grants, 'principal', each)) places.push(grant.node)
    for (const limit of rowsBy(state.limits, 'principal', each)) places.push(limit.node)
  }
  for (const { board, viewers, editors } of eachRow(state.columns))
    if ([viewers, editors].some(some => some?.some(each => named.has(each)) === true)) places.push(board)
  return places
}

/** After the last end there is no later one: what still stands then stands for good. */
export const afterAllEnds: Instant = Number.POSITIVE_INFINITY
