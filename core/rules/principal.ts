import type { PersonId, TeamId } from '../base/ids.ts'

/** Whom a grant or a limit speaks of, in the form in which it is stored. */
export type Principal =
  | `person:${string}`
  | `team:${string}`
  | `leads:${string}`
  | 'everyone' // every active person who is not a guest
  | 'guests' // limits only
  | 'anyone' // members and guests; limits only

export const personPrincipal = (person: PersonId): Principal => `person:${person}`
export const teamPrincipal = (team: TeamId): Principal => `team:${team}`
export const leadsPrincipal = (team: TeamId): Principal => `leads:${team}`

export type PrincipalParts =
  | { readonly kind: 'person'; readonly person: PersonId }
  | { readonly kind: 'team' | 'leads'; readonly team: TeamId }
  | { readonly kind: 'everyone' | 'guests' | 'anyone' }

export function partsOf(principal: Principal): PrincipalParts {
  if (principal === 'everyone' || principal === 'guests' || principal === 'anyone') return { kind: principal }
  const colon = principal.indexOf(':')
  const id = principal.slice(colon + 1)
  const kind = principal.slice(0, colon) as 'person' | 'team' | 'leads'
  return kind === 'person' ? { kind, person: id as PersonId } : { kind, team: id as TeamId }
}
