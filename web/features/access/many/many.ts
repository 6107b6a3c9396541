import type { PlacedGrantView } from '#contract/views/access.ts'
import type { OwnLevelView } from '#contract/views/workspace.ts'
import { endOfDay } from '#contract/dates.ts'
import type { EditRequest } from '#contract/edit-requests.ts'
import type { Given } from '../../../ui/LevelChoice.tsx'

/** Grants that are changed together: one row of a list, which may stand for several. */
export interface Row {
  readonly key: string
  readonly title: string
  readonly note: string
  readonly grants: readonly PlacedGrantView[]
  /** Cannot be changed here: it comes through a team. */
  readonly isFixed: boolean
}

export const acts = ['Level', 'End', 'Limit', 'Remove'] as const
export type Act = (typeof acts)[number]

export interface Wanted {
  readonly act: Act
  readonly gives: Given
  /** The last day; empty for none. */
  readonly through: string
  readonly allows: number
}

/** One edit a grant that it makes a difference to; what is more than the reader has at a place is left out there. */
export function editsFor(
  grants: readonly PlacedGrantView[],
  { act, gives, through, allows }: Wanted,
  { timeZone, own }: { readonly timeZone: string; readonly own: readonly OwnLevelView[] },
): EditRequest[] {
  const until = through === '' ? null : endOfDay(through, timeZone)
  switch (act) {
    case 'Level':
      return grants
        .filter(grant => grant.gives !== gives && isWithin(actionsOf(gives, own), grant.held))
        .map(({ id }) => ({ kind: 'grant.change', grant: id, gives }))
    case 'End':
      return grants
        .filter(grant => grant.until !== until)
        .map(({ id }) => ({ kind: 'grant.change', grant: id, until }))
    case 'Limit':
      return grants.map(({ place, principal }) => ({
        kind: 'limit.add',
        node: place.id,
        principal: principal,
        allows,
        sparesStewards: true,
        from: null,
        until,
      }))
    case 'Remove':
      return grants.map(({ id }) => ({ kind: 'grant.end', grant: id }))
  }
}

export const isWithin = (actions: number, held: number): boolean => (actions & ~held) === 0

export const actionsOf = (gives: Given, own: readonly OwnLevelView[]): number =>
  typeof gives === 'number' ? gives : (own.find(level => level.id === gives)?.actions ?? 0)
