import { mayUse, powersOf } from '../../access/powers.ts'
import { isActive } from '../../access/subject.ts'
import { allRows, rowOf, rowsBy } from '../../base/collection.ts'
import type { PersonId } from '../../base/ids.ts'
import { ok, refused } from '../../base/result.ts'
import { isAsleep } from '../../levels/privilege.ts'
import type { RoleRequest, WantedOf } from '../../people/request.ts'
import { guestRole, privilegesOf, type Role } from '../../people/role.ts'
import { gone } from '../../state/naming.ts'
import type { Snapshot } from '../../state/state.ts'
import type { Context } from '../context.ts'
import type { Offered } from '../edits/invite.ts'
import { lacksOver } from '../edits/person.ts'
import { assignRole, lacksRoleFor } from '../edits/role.ts'
import type { Refusal } from '../refusal.ts'
import { unknownRequest, type WantRule } from './rule.ts'

type RoleWanted = WantedOf<'role' | 'privilege'>

/**
 * A member asks for a role that they know of, or for what a privilege lets one do. Whoever may assign roles to them
 * answers; what is given has to be what was asked for, and theirs to give.
 */
export const roleRule: WantRule<RoleWanted> = {
  lacksAsking: ({ before, author }, wants) => {
    const person = rowOf(before.state.persons, author)
    if (person === undefined || !isActive(before, person)) return { code: 'unknown', what: 'person' }
    if (person.kind === 'guest') return { code: 'guest-rule', rule: 'no role', person: author }
    const isKnown = wants.of === 'privilege' || mayUse(before, author, 'view roles')
    return isKnown ? undefined : { code: 'unknown', what: 'role' }
  },
  whyPointless: (snapshot, person, wants) => {
    const { roles } = snapshot.state
    if (wants.of === 'role' && (rowOf(roles, wants.role) === undefined || wants.role === guestRole))
      return { code: 'unknown', what: 'role' }
    return hasWanted(snapshot, person, wants) ? { code: 'already-there', what: 'role' } : undefined
  },
  isOpen: request => request.declined === null,
  waits: (_snapshot, request) => request.declined === null,
  alreadyAsked: 'role request',
  lacksDeciding: (context, { person }) => lacksAssigning(context, person),
  lacksGiving: (context, { person: id }, given) => {
    const person = rowOf(context.before.state.persons, id)
    return given.of !== 'role' || person === undefined ? undefined : lacksRoleFor(context, given, person)
  },
  give: (context, request, given) => {
    const role = given.of === 'role' ? rowOf(context.now.state.roles, given.role) : undefined
    if (given.of !== 'role' || role === undefined || !answers(request.wants, role, given.scope))
      return refused({ code: 'not-asked-for' })
    const { holding, scope, until } = given
    const edit = {
      kind: 'role.assign',
      holding,
      person: request.person,
      role: role.id,
      scope,
      until,
    } as const
    const done = assignRole.apply(context, { ...edit, from: null })
    return done.ok ? ok([...done.value, gone('requests', request)]) : done
  },
}

function lacksAssigning(context: Context, person: PersonId): Refusal | undefined {
  if (person === context.author) return unknownRequest
  const lacks = lacksOver(context, person, 'assign roles')
  return lacks === undefined || lacks.code === 'outranked' ? lacks : unknownRequest
}

/** Whether a role over a scope is what somebody wants. */
const answers = (wants: RoleWanted, role: Role, { over }: Offered['scope']): boolean =>
  wants.of === 'role'
    ? role.id === wants.role
    : !isAsleep(wants.privilege, over) && privilegesOf(role).has(wants.privilege)

const hasWanted = (snapshot: Snapshot, person: PersonId, wants: RoleWanted): boolean =>
  wants.of === 'role'
    ? powersOf(snapshot, person).some(power => power.role === wants.role && power.scope.over === 'workspace')
    : mayUse(snapshot, person, wants.privilege)

/** Whoever may decide a request, by giving something that answers it. Costs what the holders of such privileges cost. */
export function decidersOnRole(snapshot: Snapshot, { person: asker, wants }: RoleRequest): PersonId[] {
  const person = rowOf(snapshot.state.persons, asker)
  if (person === undefined) return []
  const roles = allRows(snapshot.state.roles)
  const assigning = roles.filter(role => privilegesOf(role).has('assign roles'))
  const holders = assigning.flatMap(role => rowsBy(snapshot.state.holdings, 'role', role.id))
  const deciding = holders.filter(({ person: author, scope }) => {
    const context = { author, before: snapshot, now: snapshot }
    if (lacksAssigning(context, asker) !== undefined) return false
    return roles.some(
      role =>
        answers(wants, role, scope) && lacksRoleFor(context, { role: role.id, scope }, person) === undefined,
    )
  })
  return [...new Set(deciding.map(each => each.person))]
}
