import { publishedPlaces } from '#core/access/by-id.ts'
import type { SecuredRoleView, SettingsView } from '#contract/views/workspace.ts'
import { isActive, peopleOf } from '#core/access/subject.ts'
import { allRows, rowOf, rowsBy } from '#core/base/collection.ts'
import { isLive } from '#core/base/instant.ts'
import { compareWords } from '#core/base/compare-words.ts'
import type { Role } from '#core/people/role.ts'
import { noActions } from '#core/levels/action.ts'
import { rootOf, type State, workspaceOf } from '#core/state/state.ts'
import type { Parts } from '../../parts.ts'
import { problemOf } from '../../problem-error.ts'
import { type Asker, asks, nameOf } from '../viewer/asker.ts'

/** The settings, for whoever changes some of them. */
export function settingsView(parts: Parts, asker: Asker): SettingsView {
  if (!asks(asker, 'edit settings') && !asks(asker, 'security')) throw problemOf('not-found')
  const current = asker.snapshot.state
  const workspace = workspaceOf(current)
  const roles = allRows(current.roles).sort((a, b) => b.rank - a.rank || compareWords(a.name, b.name))
  return {
    name: workspace.name,
    timeZone: workspace.timeZone,
    picture: workspace.picture,
    defaultRole: workspace.defaultRole,
    invitationDays: workspace.invitationDays,
    houseRules: workspace.houseRules,
    guestCeiling: workspace.guestCeiling,
    allowsPublishing: workspace.allowsPublishing,
    largestFile: workspace.largestFile,
    storageQuota: workspace.storageQuota,
    versionsKept: workspace.versionsKept,
    marksPreviews: workspace.marksPreviews,
    memberDomains: workspace.memberDomains,
    guestDomains: workspace.guestDomains,
    twoStepFor: workspace.twoStepFor,
    signInDays: workspace.signInDays,
    idleHours: workspace.idleHours,
    roles: roles.map(role => roleView(parts, asker, role)),
    guests: [...peopleOf(asker.snapshot)].filter(person => person.kind === 'guest').length,
    published: publishedIn(current),
    closing: asks(asker, 'security') ? closingView(asker) : null,
  }
}

/** How many places are published themselves. */
const publishedIn = (state: State): number =>
  [...publishedPlaces(state)].filter(id => rowOf(state.nodes, id)?.binned === null).length

/** A limit on guests at the top that leaves nothing closes everything to them, and to the web. */
function closingView({ snapshot }: Asker): SettingsView['closing'] {
  const { state, at } = snapshot
  const whole = rootOf(state).id
  const limit = rowsBy(state.limits, 'node', whole).find(
    each => each.principal === 'guests' && each.allows === noActions && isLive(each, at),
  )
  return {
    whole,
    closed: limit === undefined ? null : { limit: limit.id, by: nameOf(snapshot, limit.by), at: limit.at },
  }
}

function roleView({ secured }: Parts, { snapshot }: Asker, { id, name }: Role): SecuredRoleView {
  const people = rowsBy(snapshot.state.holdings, 'role', id)
    .filter(holding => isLive(holding, snapshot.at))
    .flatMap(holding => rowOf(snapshot.state.persons, holding.person) ?? [])
    .filter(person => isActive(snapshot, person))
  const without = people.filter(({ account }) => account === null || !secured.has(account))
  return {
    id,
    name,
    people: people.length,
    without: without.map(person => ({ id: person.id, name: nameOf(snapshot, person.id) })),
  }
}
