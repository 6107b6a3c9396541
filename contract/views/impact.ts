import { Type } from '@sinclair/typebox'
import { PathView, PlaceName } from './names.ts'
import { columnAccess, instant, privilege } from '../terms.ts'
import { type View, orNull, strict, view } from '../pieces.ts'

export const DifferenceView = view('DifferenceView', {
  person: PlaceName,
  place: PathView,
  /** How many places it speaks of: the place, and others in it that answer alike. */
  places: Type.Number(),
  before: Type.Number(),
  after: Type.Number(),
})
export type DifferenceView = View<typeof DifferenceView>

export const CountedSum = view('CountedSum', {
  people: Type.Number(),
  places: Type.Number(),
  isWeb: Type.Boolean(),
})
export type CountedSum = View<typeof CountedSum>

/** A place and all below it that answers alike. */
export const CountedPlaceView = view('CountedPlaceView', {
  place: PathView,
  places: Type.Number(),
  gaining: Type.Number(),
  losing: Type.Number(),
  /** 1 where the web comes to see it, -1 where it no longer does. */
  web: Type.Number(),
})
export type CountedPlaceView = View<typeof CountedPlaceView>

/** An effect on so many people and places that it is counted, with those named for whom most differs. */
export const CountedView = view('CountedView', {
  gains: CountedSum,
  losses: CountedSum,
  /** At how many places anything differs. */
  places: Type.Number(),
  /** What people had and have then, at how many places for how many of them, added up; the most first. */
  turns: Type.Array(
    Type.Object({ before: Type.Number(), after: Type.Number(), times: Type.Number() }, strict),
  ),
  mostPeople: Type.Array(
    Type.Object({ person: PlaceName, gains: Type.Number(), losses: Type.Number() }, strict),
  ),
  mostPlaces: Type.Array(CountedPlaceView),
  /** Whether restricted columns of boards lie there: those are not counted. */
  hasColumns: Type.Boolean(),
})
export type CountedView = View<typeof CountedView>

export const ColumnDifferenceView = view('ColumnDifferenceView', {
  person: PlaceName,
  column: PlaceName,
  place: PathView,
  before: columnAccess,
  after: columnAccess,
})
export type ColumnDifferenceView = View<typeof ColumnDifferenceView>

/** What somebody may do more and no longer in the workspace, over whom. */
export const PowerDifferenceView = view('PowerDifferenceView', {
  person: PlaceName,
  /** The highest rank of their roles; 0 for none. */
  rankBefore: Type.Number(),
  rankAfter: Type.Number(),
  parts: Type.Array(
    Type.Object(
      {
        /** `null` for the whole workspace. */
        over: orNull(Type.String()),
        gains: Type.Array(privilege),
        loses: Type.Array(privilege),
      },
      strict,
    ),
  ),
})
export type PowerDifferenceView = View<typeof PowerDifferenceView>

export const ImpactAtView = view('ImpactAtView', {
  at: instant,
  differences: Type.Array(DifferenceView),
  /** What all comes to, where it is too much to be told one by one: then there are no differences. */
  counted: orNull(CountedView),
  /** The same for restricted columns of boards. */
  columns: Type.Array(ColumnDifferenceView),
  /** Places with a difference that the author shares in but cannot see. */
  hiddenPlaces: Type.Number(),
  /** What people may do in the workspace, as far as the author may know of their roles. */
  powers: Type.Array(PowerDifferenceView),
})
export type ImpactAtView = View<typeof ImpactAtView>

/** What a change set would do, as far as its author may know. */
export const PreviewView = view('PreviewView', {
  revision: Type.Number(),
  /** To be sent back with the change set: it is applied only if it still does the same. */
  digest: Type.String(),
  /** First now, then from each later instant on at which the difference is another one. */
  impact: Type.Array(ImpactAtView),
  /** Whether its author may know of all that it does: of places that are hidden below, their number. */
  isWhole: Type.Boolean(),
  /** For an undo: what it does not take back, and why. */
  leftOut: Type.Array(Type.String()),
})
export type PreviewView = View<typeof PreviewView>
