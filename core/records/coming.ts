import { rowOf } from '../base/collection.ts'
import type { PersonId } from '../base/ids.ts'
import type { Context } from '../changes/context.ts'
import type { Person } from '../people/person.ts'

/** Those who come or go in the same change set. */

export const isThere = ({ before }: Context, { id }: Person): boolean =>
  rowOf(before.state.persons, id) !== undefined

export const personOf = ({ before, now }: Context, id: PersonId | undefined): Person | undefined =>
  id === undefined ? undefined : (rowOf(before.state.persons, id) ?? rowOf(now.state.persons, id))
