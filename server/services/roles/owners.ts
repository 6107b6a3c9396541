import type { HandoverView, OwnersView } from '#contract/views/roles.ts'
import { allRows, rowOf, rowsBy } from '#core/base/collection.ts'
import { compareWords } from '#core/base/compare-words.ts'
import type { Handover } from '#core/people/asking.ts'
import { guestRole, ownerRole } from '#core/people/role.ts'
import { problemOf } from '../../problem-error.ts'
import { type Asker, asks, nameOf } from '../viewer/asker.ts'
import { nameView } from '../people/people.ts'

/** The owners and what they have offered, for owners. */
export function ownersView(asker: Asker): OwnersView {
  if (!asks(asker, 'own')) throw problemOf('not-found')
  const { state } = asker.snapshot
  return {
    owners: rowsBy(state.holdings, 'role', ownerRole)
      .flatMap(holding => rowOf(state.persons, holding.person) ?? [])
      .filter(person => person.status !== 'removed')
      .map(nameView)
      .sort((a, b) => compareWords(a.name, b.name)),
    handovers: allRows(state.handovers).map(each => handoverView(asker, each)),
    roles: allRows(state.roles)
      .filter(role => role.id !== ownerRole && role.id !== guestRole)
      .sort((a, b) => b.rank - a.rank)
      .map(({ id, name }) => ({ id, name })),
  }
}

export const handoverView = (
  { snapshot }: Asker,
  { id, from, to, at, reason, keeps }: Handover,
): HandoverView => ({
  id,
  from: { id: from, name: nameOf(snapshot, from) },
  to: { id: to, name: nameOf(snapshot, to) },
  at,
  reason,
  keeps: rowOf(snapshot.state.roles, keeps)?.name ?? '',
})
