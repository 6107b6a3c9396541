import type { PersonName, PrincipalName } from '#contract/views/names.ts'
import { usePeopleNamesQuery, useTeamsQuery } from './api.ts'

/** Who is about to get access. One with a `mail` is from outside and invited in the same act. */
export interface Receiver extends Pick<PrincipalName, 'principal' | 'name' | 'kind'> {
  readonly mail?: string
}

interface Receivers {
  readonly receivers: readonly Receiver[]
  readonly people: readonly PersonName[]
  /** What stands beside a name: the address, or what it is. */
  readonly noteOf: (receiver: Receiver) => string
}

/** Everybody to whom something can be given: all members, teams and their leads, and people, as far as one knows them. */
export function useReceivers(slug: string): Receivers {
  const { data: people = [] } = usePeopleNamesQuery(slug)
  const { data: teams = [] } = useTeamsQuery(slug)
  const mails = new Map(people.map(person => [`person:${person.id}`, person.mail]))
  return {
    people,
    noteOf: ({ principal, kind }) => mails.get(principal) ?? kindWords[kind],
    receivers: [
      { principal: 'everyone', name: 'All members', kind: 'everyone' },
      ...teams.map(({ id, name }) => ({ principal: `team:${id}`, name, kind: 'team' }) as const),
      ...teams.map(
        ({ id, name }) => ({ principal: `leads:${id}`, name: `Leads of ${name}`, kind: 'leads' }) as const,
      ),
      ...people.map(({ id, name, kind }) => ({ principal: `person:${id}`, name, kind }) as const),
    ],
  }
}

const kindWords: Readonly<Record<Receiver['kind'], string>> = {
  member: 'member',
  guest: 'guest',
  team: 'team',
  leads: 'leads',
  everyone: 'everyone but guests',
}
