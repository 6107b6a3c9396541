import { isActive } from '#core/access/subject.ts'
import { rowsBy } from '#core/base/collection.ts'
import { compareWords } from '#core/base/compare-words.ts'
import type { AccountId } from '#core/base/ids.ts'
import type { Person } from '#core/people/person.ts'
import { type Moment, workspaceOf } from '#core/state/state.ts'
import type { Parts } from '../parts.ts'
import { momentAt } from '../store/states.ts'

interface Here {
  readonly moment: Moment
  readonly person: Person
}

/** Where an account is in, as whom; by the names of the workspaces. */
export function personsOf(parts: Parts, account: AccountId): Here[] {
  const found = momentsOf(parts).flatMap(moment => {
    const person = rowsBy(moment.state.persons, 'account', account).find(each => isActive(moment, each))
    return person === undefined ? [] : [{ moment, person }]
  })
  return found.sort((a, b) =>
    compareWords(workspaceOf(a.moment.state).name, workspaceOf(b.moment.state).name),
  )
}

export const momentsOf = (parts: Parts): Moment[] =>
  [...parts.writer.states.published.keys()].flatMap(
    id => momentAt(parts.writer.states, id, parts.clock()) ?? [],
  )
