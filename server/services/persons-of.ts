import { isActive } from '#core/access/subject.ts'
import { rowsBy } from '#core/base/collection.ts'
import { compareWords } from '#core/base/compare-words.ts'
import type { AccountId } from '#core/base/ids.ts'
import type { Person } from '#core/people/person.ts'
import { type Snapshot, workspaceOf } from '#core/state/state.ts'
import type { Parts } from '../parts.ts'
import { snapshotAt } from '../store/states.ts'

interface Here {
  readonly snapshot: Snapshot
  readonly person: Person
}

/** Where an account is in, as whom; by the names of the workspaces. */
export function personsOf(parts: Parts, account: AccountId): Here[] {
  const found = snapshotsOf(parts).flatMap(snapshot => {
    const person = rowsBy(snapshot.state.persons, 'account', account).find(each => isActive(snapshot, each))
    return person === undefined ? [] : [{ snapshot, person }]
  })
  return found.sort((a, b) =>
    compareWords(workspaceOf(a.snapshot.state).name, workspaceOf(b.snapshot.state).name),
  )
}

export const snapshotsOf = (parts: Parts): Snapshot[] =>
  [...parts.writer.states.published.keys()].flatMap(
    id => snapshotAt(parts.writer.states, id, parts.clock()) ?? [],
  )
