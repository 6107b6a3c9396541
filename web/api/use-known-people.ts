import { skipToken } from '@reduxjs/toolkit/query'
import type { PersonName } from '#contract/views/names.ts'
import { usePeopleNamesQuery } from './api.ts'
import { useHere } from './use-here.ts'

/** Everybody whom one may find by name: nobody for who may not find people, as guests mostly. */
export function useKnownPeople(isWanted = true): readonly PersonName[] {
  const { slug, workspace } = useHere()
  const mayFind = workspace.managesPeople || workspace.me.privileges.includes('view people')
  const { data = nobody } = usePeopleNamesQuery(isWanted && mayFind ? slug : skipToken)
  return data
}

/** Those of them who are here now: the others are read, and not named anew. */
export const activeOf = (people: readonly PersonName[]): readonly PersonName[] =>
  people.filter(each => each.status === 'active')

const nobody: readonly PersonName[] = []
