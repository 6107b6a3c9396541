import type { NodeId, PersonId, TeamId } from '../base/ids.ts'
import { isSame } from '../base/same.ts'
import { noActions } from '../levels/action.ts'
import { requestKey } from '../people/request.ts'
import { partsOf, type Principal } from '../rules/principal.ts'
import type { RecordChange } from '../state/state.ts'
import { type ChangeOf, conductOf, type Kinded } from './conduct.ts'

/** What others of the same change set go along with. */
export interface LeadingChanges {
  readonly count: number
  readonly people: ReadonlySet<PersonId>
  /** Who left, or became a guest or a member. */
  readonly leavers: ReadonlySet<PersonId>
  /** What came to whom, or is asked for anew: the keys of requests for it. */
  readonly answered: ReadonlySet<string>
  /** Who was given a role. */
  readonly given: ReadonlySet<PersonId>
  readonly hasTeam: boolean
  /** Teams that are no more. */
  readonly goneTeams: ReadonlySet<TeamId>
  /** Places that are no more. */
  readonly gone: ReadonlySet<NodeId>
  /** Places that are new. */
  readonly made: ReadonlySet<NodeId>
  readonly folders: ReadonlySet<NodeId>
  readonly breaks: ReadonlySet<NodeId>
}

export function leadingChangesIn(changes: readonly RecordChange[]): LeadingChanges {
  const of = <T extends RecordChange['table']>(table: T) =>
    changes.filter(change => change.table === table) as Extract<RecordChange, { table: T }>[]
  const persons = of('persons')
  const nodes = of('nodes')
  return {
    count: changes.length,
    people: new Set(persons.map(change => change.id)),
    leavers: new Set(persons.filter(isTurned).map(change => change.id)),
    answered: new Set([
      ...madeIn(of('memberships')).map(({ person, team }) =>
        requestKey({ person, wants: { of: 'team', team } }),
      ),
      ...madeIn(of('grants')).flatMap(({ principal, node }) => {
        const { person } = subjectIn(principal)
        return person === undefined
          ? []
          : [requestKey({ person, wants: { of: 'access', node, actions: noActions } })]
      }),
      ...madeIn(of('requests')).map(requestKey),
    ]),
    given: new Set(madeIn(of('holdings')).map(each => each.person)),
    hasTeam: of('teams').length > 0,
    goneTeams: new Set(of('teams').flatMap(change => (change.after === null ? [change.id] : []))),
    gone: new Set(nodes.filter(change => change.after === null).map(change => change.id)),
    made: new Set(madeIn(nodes).map(node => node.id)),
    folders: new Set(nodes.filter(change => homeIn(change) === 'person').map(change => change.id)),
    breaks: new Set(nodes.filter(isBreak).map(change => change.id)),
  }
}

const madeIn = <Row>(
  changes: readonly { readonly before: Row | null; readonly after: Row | null }[],
): Row[] => changes.flatMap(({ before, after }) => (before === null && after !== null ? [after] : []))

export const isBreak = ({ before, after }: NodeChange): boolean =>
  before !== null && !isSame(before.broken, after?.broken)

export const isTurned = ({ before, after }: ChangeOf<'persons'>): boolean =>
  before !== null && after !== null && (before.kind !== after.kind || after.status === 'removed')

/** Whether a record only goes along with what others of its change set tell. */
export const isConsequence = (kinds: Kinded, change: RecordChange, leading: LeadingChanges): boolean =>
  conductOf(kinds, change.table).isConsequence?.(change, leading) === true

/** Whether something is a part of a board that goes, or comes, in the same change set. */
export const isPartOfGone = (
  { before, after }: { readonly before: OfBoard | null; readonly after: OfBoard | null },
  { gone, made }: LeadingChanges,
): boolean => {
  const board = (after ?? before)?.board
  return board !== undefined && (gone.has(board) || made.has(board))
}

interface OfBoard {
  readonly board: NodeId
}

type NodeChange = ChangeOf<'nodes'>

export const homeIn = ({ before, after }: NodeChange) => (before ?? after)?.home?.of

export const isMadeOrUnmade = ({ before, after }: RecordChange) => before === null || after === null

/** Whether of a list of names somebody is left out who leaves in the same change set, and nothing else is changed. */
export const isLeftOut = <Row extends object>(
  { before, after }: { readonly before: Row | null; readonly after: Row | null },
  lists: readonly (keyof Row)[],
  { leavers }: LeadingChanges,
): boolean =>
  leavers.size > 0 &&
  before !== null &&
  after !== null &&
  (Object.keys(after) as (keyof Row)[]).every(
    field => lists.includes(field) || isSame(before[field], after[field]),
  )

/** The person or team that a principal names. */
export function subjectIn(principal: Principal): { person?: PersonId; team?: TeamId } {
  const parts = partsOf(principal)
  if (parts.kind === 'person') return { person: parts.person }
  return parts.kind === 'team' || parts.kind === 'leads' ? { team: parts.team } : {}
}
