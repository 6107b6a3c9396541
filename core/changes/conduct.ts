import type { NodeId, PersonId, TeamId } from '../base/ids.ts'
import type { Rows, TableName } from '../state/kinds.ts'
import type { RecordChange, State } from '../state/state.ts'
import type { LeadingChanges } from './consequences.ts'
import type { Context } from './context.ts'
import type { AuditCategory } from './audit-event.ts'
import type { Refusal } from './refusal.ts'

export type ChangeOf<T extends TableName> = Extract<RecordChange, { readonly table: T }>

/** What change sets know of a kind of record: who may change one, what is told of it, whose access can differ by it. */
export interface RecordConduct<T extends TableName = TableName> {
  /**
   * What a change needs that comes without an edit of its own kind: the same as that edit would. The context's later
   * state has all the changes made, so that what is new can be stood on.
   */
  readonly rights: (context: Context, before: Rows[T] | null, after: Rows[T] | null) => Refusal | undefined
  /** What a change is about; `undefined` where there is nothing to tell. */
  readonly about: (change: ChangeOf<T>) => About | undefined
  /** Whether it only goes along with what others of its change set tell. */
  readonly isConsequence?: (change: ChangeOf<T>, leading: LeadingChanges) => boolean
  /** The place that a record is a part of: in the bin with it, and edited as it is. */
  readonly standsAt?: (row: Rows[T]) => NodeId
  /** Whether nothing has taken the place of one that came back. */
  readonly hasItsPlace?: (state: State, row: Rows[T]) => boolean
  /** Whose access can differ by a change; nobody's where that is not said. */
  readonly people?: (change: ChangeOf<T>, states: BothStates) => readonly PersonId[] | 'everybody'
  /** The places at and below which access can differ. Not said of what never opens or closes a place. */
  readonly places?: (state: State, change: ChangeOf<T>) => readonly NodeId[]
  /** What a record becomes whose fields go back to what they were: some of what it says is said for ever. */
  readonly goneBack?: (current: Rows[T], back: Rows[T]) => Rows[T]
  /** It opens places to the web, or keeps it out. */
  readonly isOfWeb?: true
}

export interface About {
  readonly category: AuditCategory
  readonly place?: NodeId | undefined
  readonly person?: PersonId | undefined
  readonly team?: TeamId | undefined
  /** The place is named by its address, whether or not there is one. */
  readonly byAddress?: true
}

export interface BothStates {
  readonly before: State
  readonly after: State
}

/** Whatever carries the table of all kinds: a state, above all. */
export type Kinded = Pick<State, 'kinds'>

/** Every state carries the table of all kinds (core/records/all.ts), of which those who change records read this. */
export const conductOf = <T extends TableName>({ kinds }: Kinded, table: T): RecordConduct<T> =>
  kinds[table] as unknown as RecordConduct<T>
