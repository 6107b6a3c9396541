import type { PersonId, TeamId } from '../base/ids.ts'
import type { Context } from '../changes/context.ts'
import { lacksInviting } from '../changes/edits/invitation.ts'
import { lacksRoleFor } from '../changes/edits/role.ts'
import type { Refusal } from '../changes/refusal.ts'
import type { Holding } from '../people/person.ts'
import { guestRole } from '../people/role.ts'
import { endOf, startOf } from '../state/dates.ts'
import { workspaceOf } from '../state/state.ts'
import { holdingWords } from '../words/role-events.ts'
import { isThere, personOf } from './coming.ts'
import { type RecordKind, spanFields } from './kind.ts'
import { id, within } from './references.ts'

export const holdings: RecordKind<'holdings'> = {
  fields: { id: 'text', person: 'text', role: 'text', scope: 'json', ...spanFields },
  indexes: { person: row => row.person, role: row => row.role },
  references: [
    id('person', 'persons', { whenGone: 'goes along', index: 'person' }),
    id('role', 'roles', { whenGone: 'forbids', index: 'role' }),
    within('scope', 'teams', {
      ids: ({ scope }) => (scope.over === 'team' ? [scope.team] : []),
      whenGone: 'goes along',
    }),
  ],
  dates: { starts: startOf, ends: endOf },
  rights: lacksHolding,
  about: ({ before, after }) => ({ category: 'roles', person: (after ?? before)?.person }),
  isConsequence: ({ before, after }, { people, goneTeams }) =>
    people.has((after ?? before)?.person as PersonId) || (after === null && goneTeams.has(scopeTeam(before))),
  people: ({ before, after }) => [(before ?? after)?.person as PersonId],
  words: holdingWords,
}

const scopeTeam = (row: Holding | null) => (row?.scope.over === 'team' ? row.scope.team : '') as TeamId

function lacksHolding(context: Context, before: Holding | null, after: Holding | null): Refusal | undefined {
  const holding = after ?? before
  const person = personOf(context, holding?.person)
  if (person === undefined || holding === null) return { code: 'unknown', what: 'person' }
  const usual = [guestRole, workspaceOf(context.before.state).defaultRole]
  // With an invitation goes the role that it offers.
  if (person.status === 'invited' || !isThere(context, person))
    return (
      lacksInviting(context, person) ??
      (usual.includes(holding.role) ? undefined : lacksRoleFor(context, holding, person))
    )
  return lacksRoleFor(context, holding, person)
}
