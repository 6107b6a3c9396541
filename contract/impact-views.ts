import type { ColumnAccess } from '#core/access/columns.ts'
import type { Instant } from '#core/base/instant.ts'
import type { Privilege } from '#core/levels/privilege.ts'
import type { PathView, PlaceName } from './views.ts'

/** What a change set would do, as far as its author may know. */
export interface PreviewView {
  readonly revision: number
  /** To be sent back with the change set: it is applied only if it still does the same. */
  readonly digest: string
  /** First now, then from each later instant on at which the difference is another one. */
  readonly impact: readonly ImpactAtView[]
  /** Whether its author may know of all that it does: of places that are hidden below, their number. */
  readonly isWhole: boolean
  /** For an undo: what it does not take back, and why. */
  readonly leftOut: readonly string[]
}

export interface ImpactAtView {
  readonly at: Instant
  readonly differences: readonly DifferenceView[]
  /** What all comes to, where it is too much to be told one by one: then there are no differences. */
  readonly counted: CountedView | null
  /** The same for restricted columns of boards. */
  readonly columns: readonly ColumnDifferenceView[]
  /** Places with a difference that the author shares in but cannot see. */
  readonly hiddenPlaces: number
  /** What people may do in the workspace, as far as the author may know of their roles. */
  readonly powers: readonly PowerDifferenceView[]
}

/** An effect on so many people and places that it is counted, with those named for whom most differs. */
export interface CountedView {
  readonly gains: CountedSum
  readonly losses: CountedSum
  /** At how many places anything differs. */
  readonly places: number
  /** What people had and have then, at how many places for how many of them, added up; the most first. */
  readonly turns: readonly { readonly before: number; readonly after: number; readonly times: number }[]
  readonly mostPeople: readonly {
    readonly person: PlaceName
    readonly gains: number
    readonly losses: number
  }[]
  readonly mostPlaces: readonly CountedPlaceView[]
  /** Whether restricted columns of boards lie there: those are not counted. */
  readonly hasColumns: boolean
}

export interface CountedSum {
  readonly people: number
  readonly places: number
  readonly isWeb: boolean
}

/** A place and all below it that answers alike. */
export interface CountedPlaceView {
  readonly place: PathView
  readonly places: number
  readonly gaining: number
  readonly losing: number
  /** 1 where the web comes to see it, -1 where it no longer does. */
  readonly web: number
}

/** What somebody may do more and no longer in the workspace, over whom. */
export interface PowerDifferenceView {
  readonly person: PlaceName
  /** The highest rank of their roles; 0 for none. */
  readonly rankBefore: number
  readonly rankAfter: number
  readonly parts: readonly {
    /** `null` for the whole workspace. */
    readonly over: string | null
    readonly gains: readonly Privilege[]
    readonly loses: readonly Privilege[]
  }[]
}

export interface ColumnDifferenceView {
  readonly person: PlaceName
  readonly column: PlaceName
  readonly place: PathView
  readonly before: ColumnAccess
  readonly after: ColumnAccess
}

export interface DifferenceView {
  readonly person: PlaceName
  readonly place: PathView
  /** How many places it speaks of: the place, and others in it that answer alike. */
  readonly places: number
  readonly before: number
  readonly after: number
}
