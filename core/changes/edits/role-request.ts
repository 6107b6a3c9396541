import { mayUse, powersOf } from '../../access/powers.ts'
import { isActive } from '../../access/subject.ts'
import { allRows, rowOf, rowsBy } from '../../base/collection.ts'
import type { PersonId, RoleRequestId } from '../../base/ids.ts'
import { isSame } from '../../base/same.ts'
import { ok, refused } from '../../base/result.ts'
import { isAsleep } from '../../levels/privilege.ts'
import type { RoleRequest, RoleWanted } from '../../people/asking.ts'
import { guestRole, privilegesOf, type Role } from '../../people/role.ts'
import type { Moment } from '../../state/state.ts'
import { type Context, type EditOf, type EditRule, isTaken } from '../context.ts'
import type { Refusal } from '../refusal.ts'
import { gone } from '../../state/naming.ts'
import type { Offered } from './invite.ts'
import { lacksOver } from './person.ts'
import { giveRole, lacksRoleFor } from './role.ts'

/** A member asks for a role that they know of, or for what a privilege lets one do. */
export const askForRole: EditRule<EditOf<'role.ask'>> = {
  kind: 'role.ask',
  lacks: ({ before, author }, { wants }) => {
    const person = rowOf(before.state.persons, author)
    if (person === undefined || !isActive(before, person)) return { code: 'unknown', what: 'person' }
    if (person.kind === 'guest') return { code: 'guest-rule', rule: 'no role', person: author }
    const isKnown = 'privilege' in wants || mayUse(before, author, 'view roles')
    return isKnown ? undefined : { code: 'unknown', what: 'role' }
  },
  apply: ({ now, author }, { request: id, wants, word }) => {
    const { state, at } = now
    if ('role' in wants && (rowOf(state.roles, wants.role) === undefined || wants.role === guestRole))
      return refused({ code: 'unknown', what: 'role' })
    if (hasWanted(now, author, wants)) return refused({ code: 'already-there', what: 'role' })
    const earlier = rowsBy(state.roleRequests, 'person', author).find(each => isSame(each.wants, wants))
    if (earlier?.declined === null || isTaken(state, 'roleRequests', id))
      return refused({ code: 'already-there', what: 'role request' })
    const after: RoleRequest = { id, person: author, wants, at, word, declined: null }
    return ok([
      ...(earlier === undefined ? [] : [gone('roleRequests', earlier)]),
      { table: 'roleRequests', id, before: null, after },
    ])
  },
}

export const takeBackRoleRequest: EditRule<EditOf<'role.unask'>> = {
  kind: 'role.unask',
  lacks: ({ before, author }, { request }) =>
    rowOf(before.state.roleRequests, request)?.person === author
      ? undefined
      : { code: 'unknown', what: 'request' },
  apply: ({ now }, { request }) => {
    const before = rowOf(now.state.roleRequests, request)
    return before === undefined
      ? refused({ code: 'unknown', what: 'request' })
      : ok([gone('roleRequests', before)])
  },
}

/** By whoever may assign roles to who asks; what is given has to be what was asked for, and theirs to give. */
export const answerRoleRequest: EditRule<EditOf<'role.answer'>> = {
  kind: 'role.answer',
  lacks: (context, { request, gives }) => {
    const lacks = lacksDeciding(context, request)
    const asked = rowOf(context.before.state.roleRequests, request)
    const person = asked === undefined ? undefined : rowOf(context.before.state.persons, asked.person)
    if (lacks !== undefined || gives === null || person === undefined) return lacks
    return lacksRoleFor(context, gives, person)
  },
  apply: (context, { request, gives, holding, word }) => {
    const { now, author } = context
    const before = rowOf(now.state.roleRequests, request)
    if (before?.declined !== null) return refused({ code: 'unknown', what: 'request' })
    if (gives === null) {
      const after: RoleRequest = { ...before, declined: { by: author, at: now.at, word } }
      return ok([{ table: 'roleRequests', id: request, before, after }])
    }
    const role = rowOf(now.state.roles, gives.role)
    if (role === undefined || !answers(before.wants, role, gives.scope))
      return refused({ code: 'not-asked-for' })
    const given = giveRole.apply(context, {
      kind: 'role.give',
      holding,
      person: before.person,
      ...gives,
      from: null,
    })
    return given.ok ? ok([...given.value, gone('roleRequests', before)]) : given
  },
}

/** A request that one may not decide is refused like one that is not there. */
export function lacksDeciding(context: Context, id: RoleRequestId): Refusal | undefined {
  const asked = rowOf(context.before.state.roleRequests, id) ?? rowOf(context.now.state.roleRequests, id)
  if (asked === undefined || asked.person === context.author) return { code: 'unknown', what: 'request' }
  const lacks = lacksOver(context, asked.person, 'assign roles')
  return lacks === undefined || lacks.code === 'outranked' ? lacks : { code: 'unknown', what: 'request' }
}

/** Whether a role over a scope is what somebody wants. */
export const answers = (wants: RoleWanted, role: Role, { over }: Offered['scope']): boolean =>
  'role' in wants
    ? role.id === wants.role
    : !isAsleep(wants.privilege, over) && privilegesOf(role).has(wants.privilege)

const hasWanted = (moment: Moment, person: PersonId, wants: RoleWanted): boolean =>
  'role' in wants
    ? powersOf(moment, person).some(power => power.role === wants.role && power.scope.over === 'workspace')
    : mayUse(moment, person, wants.privilege)

/** Whoever may decide a request, by giving something that answers it. Costs what the holders of such privileges cost. */
export function decidersOf(moment: Moment, { id, person: asker, wants }: RoleRequest): PersonId[] {
  const person = rowOf(moment.state.persons, asker)
  if (person === undefined) return []
  const roles = allRows(moment.state.roles)
  const assigning = roles.filter(role => privilegesOf(role).has('assign roles'))
  const holders = assigning.flatMap(role => rowsBy(moment.state.holdings, 'role', role.id))
  const deciding = holders.filter(({ person: author, scope }) => {
    const context = { author, before: moment, now: moment }
    if (lacksDeciding(context, id) !== undefined) return false
    return roles.some(
      role =>
        answers(wants, role, scope) && lacksRoleFor(context, { role: role.id, scope }, person) === undefined,
    )
  })
  return [...new Set(deciding.map(each => each.person))]
}
