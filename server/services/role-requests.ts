import type {
  MyRoleRequestView,
  RoleRequestsView,
  RoleRequestView,
  WantedView,
} from '#contract/role-views.ts'
import { powersOf } from '#core/access/powers.ts'
import { allRows, rowOf, rowsBy } from '#core/base/collection.ts'
import { lacksDeciding } from '#core/changes/edits/role-request.ts'
import type { RoleRequest, RoleWanted } from '#core/people/asking.ts'
import { guestRole } from '#core/people/role.ts'
import { type Asker, asks, knowsPerson, nameOf } from './asker.ts'

/** What is asked for about roles: of the asker, and by the asker. */
export function roleRequestsView(asker: Asker): RoleRequestsView {
  const { moment, person: author } = asker
  const { state } = moment
  const context = { author, before: moment, now: moment }
  const open = allRows(state.roleRequests)
    .filter(each => each.declined === null && lacksDeciding(context, each.id) === undefined)
    .sort((a, b) => a.at - b.at)
  const held = new Set(powersOf(moment, author).map(power => power.role))
  return {
    toDecide: open.map(request => requestView(asker, request)),
    mine: rowsBy(state.roleRequests, 'person', author).map(request => mineView(asker, request)),
    roles:
      asks(asker, 'view roles') && asker.subject.person.kind === 'member'
        ? allRows(state.roles)
            .filter(role => role.id !== guestRole && !held.has(role.id))
            .sort((a, b) => a.rung - b.rung)
            .map(({ id, name }) => ({ id, name }))
        : [],
  }
}

const requestView = (asker: Asker, { id, person, wants, at, word }: RoleRequest): RoleRequestView => ({
  id,
  person: { id: person, name: nameOf(asker.moment, person) },
  wants: wantsView(asker, wants),
  at,
  word,
})

function mineView(asker: Asker, { id, wants, at, word, declined }: RoleRequest): MyRoleRequestView {
  const by =
    declined !== null && knowsPerson(asker, declined.by) ? nameOf(asker.moment, declined.by) : 'Somebody'
  return {
    id,
    wants: wantsView(asker, wants),
    at,
    word,
    declined: declined === null ? null : { by, word: declined.word },
  }
}

/** A role by its name: whoever asked for it knew of it, and whoever decides may give it. */
function wantsView({ moment }: Asker, wants: RoleWanted): WantedView {
  return 'privilege' in wants
    ? wants
    : {
        role: {
          id: wants.role,
          name: rowOf(moment.state.roles, wants.role)?.name ?? 'a role that is no more',
        },
      }
}
