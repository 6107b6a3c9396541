import type {
  ChannelView,
  HoldingView,
  PersonAct,
  PersonView,
  RoleView,
  TeamView,
  WorkspaceView,
} from '#contract/views.ts'
import { allRows, rowOf, rowsBy } from '#core/base/collection.ts'
import { channelRights } from '#core/access/channels.ts'
import { actionsAt } from '#core/access/evaluate.ts'
import { placeOf } from '#core/access/place.ts'
import { has, noActions, union } from '#core/levels/action.ts'
import { mayUse, powersOf, rungFor, wholeWorkspace } from '#core/access/powers.ts'
import { peopleIn, peopleOf, teamsOf } from '#core/access/subject.ts'
import { knowsTeam, leadsTeam } from '#core/changes/context.ts'
import { lacksOver } from '#core/changes/edits/person.ts'
import { allPrivileges, type Privilege } from '#core/levels/privilege.ts'
import type { Holding, Person, Team } from '#core/people/person.ts'
import { guestRole } from '#core/people/role.ts'
import { teamHomeOf, workspaceOf } from '#core/state/state.ts'
import { problemOf } from '../problem-error.ts'
import { teamPrincipal } from '#core/rules/principal.ts'
import { type Asker, asks, nameOf } from './asker.ts'
import { principalName } from './principal.ts'

export function workspaceView(asker: Asker): WorkspaceView {
  const { state } = asker.moment
  const { name, slug, timeZone } = workspaceOf(state)
  const { person } = asker.subject
  return {
    name,
    slug,
    timeZone,
    revision: state.revision,
    me: {
      id: person.id,
      name: person.name,
      kind: person.kind,
      privileges: allPrivileges.filter(privilege => asks(asker, privilege)),
    },
    ownLevels: allRows(state.levels).map(level => ({
      id: level.id,
      name: level.name,
      actions: level.actions,
    })),
    roles: rolesToOffer(asker),
  }
}

/** The roles that the asker may give: within rank, and holding nothing that the asker lacks. */
function rolesToOffer({ moment, person }: Asker): RoleView[] {
  const rung = rungFor(moment, person, { privilege: 'assign roles', target: wholeWorkspace })
  if (rung === undefined) return []
  const isOwner = mayUse(moment, person, 'own')
  const held = new Set(powersOf(moment, person).flatMap(power => [...power.privileges]))
  return allRows(moment.state.roles)
    .filter(role => role.id !== guestRole && (isOwner || role.rung < rung))
    .filter(role => role.privileges.every(privilege => held.has(privilege)))
    .sort((a, b) => a.rung - b.rung)
    .map(({ id, name, note }) => ({ id, name, note }))
}

/** Everyone in the workspace and everyone invited. */
export function peopleView(asker: Asker): PersonView[] {
  if (!asks(asker, 'view people')) throw problemOf('not-found')
  const people = [...peopleOf(asker.moment)].map(person => personView(asker, person))
  return people.sort((a, b) => a.name.localeCompare(b.name))
}

function personView(asker: Asker, person: Person): PersonView {
  const { moment } = asker
  const { state } = moment
  const [invitation] = rowsBy(state.invitations, 'person', person.id)
  const teams = teamsOf(moment, person).filter(({ team }) => knowsTeam(moment, asker.person, team))
  return {
    id: person.id,
    name: person.name || person.mail,
    mail: person.mail,
    kind: person.kind,
    status: person.status,
    title: person.title,
    roles: rowsBy(state.holdings, 'person', person.id).map(each => holdingView(asker, each)),
    teams: teams
      .map(({ team, lead }) => {
        const row = rowOf(state.teams, team)
        return { id: team, name: row?.name ?? '', lead, isForAll: row?.joining === 'everyone' }
      })
      .sort((a, b) => a.name.localeCompare(b.name)),
    joinedAt: person.joinedAt,
    until: person.until,
    invitation:
      invitation === undefined
        ? null
        : { by: nameOf(moment, invitation.by), at: invitation.at, until: invitation.until },
    may: actsOver(asker, person),
  }
}

const privilegeFor = {
  suspend: 'suspend',
  remove: 'remove',
  turn: 'invite members',
  assign: 'assign roles',
  describe: 'edit profiles',
} as const satisfies Record<PersonAct, Privilege>

/** What of these the asker may do about somebody who is here. */
function actsOver({ person: author, moment }: Asker, { id, status }: Person): PersonAct[] {
  if (status !== 'active' && status !== 'suspended') return []
  const context = { author, before: moment, now: moment }
  return (Object.keys(privilegeFor) as PersonAct[]).filter(
    act => lacksOver(context, id, privilegeFor[act]) === undefined,
  )
}

function holdingView(asker: Asker, { id, role, scope }: Holding): HoldingView {
  const { state } = asker.moment
  const team = scope.over === 'team' ? principalName(asker, teamPrincipal(scope.team)).name : null
  return {
    id,
    role,
    name: rowOf(state.roles, role)?.name ?? '',
    over: scope.over === 'guests' ? 'guests' : team,
  }
}

/** The teams that the asker knows of. */
export function teamsView(asker: Asker): TeamView[] {
  return allRows(asker.moment.state.teams)
    .filter(team => knowsTeam(asker.moment, asker.person, team.id))
    .map(team => teamView(asker, team))
    .sort((a, b) => a.name.localeCompare(b.name))
}

function teamView(asker: Asker, team: Team): TeamView {
  const { moment, person } = asker
  const isMine = asker.subject.principals.has(`team:${team.id}`)
  const people = isMine || asks(asker, 'view people') ? peopleIn(moment, team) : []
  return {
    id: team.id,
    name: team.name,
    note: team.note,
    joining: team.joining,
    welcomesGuests: team.welcomesGuests,
    home: homeView(asker, team),
    mayManage: leadsTeam(moment, person, team.id) || asks(asker, 'manage any team'),
    mayJoin: team.joining === 'open' && !isMine && !asker.subject.isGuest,
    isMine,
    isArchived: team.archived,
    channels: channelsView(asker, team),
    people: people
      .map(each => ({
        id: each.person.id,
        name: each.person.name || each.person.mail,
        kind: each.person.kind,
        status: each.person.status,
        lead: each.lead,
        until: membershipEnd(asker, team, each.person),
      }))
      .sort((a, b) => Number(b.lead) - Number(a.lead) || a.name.localeCompare(b.name)),
  }
}

/** The channels that the asker may read. */
function channelsView({ moment, subject }: Asker, team: Team): ChannelView[] {
  return rowsBy(moment.state.channels, 'team', team.id)
    .map(channel => ({ channel, rights: channelRights(moment, subject, channel) }))
    .filter(({ rights }) => rights.read)
    .map(({ channel: { id, name, only, archived }, rights }) => ({
      id,
      name,
      isRestricted: only !== null,
      isArchived: archived,
      mayPost: rights.post,
    }))
    .sort((a, b) => a.name.localeCompare(b.name))
}

function homeView(asker: Asker, team: Team): TeamView['home'] {
  const { moment, subject } = asker
  const home = teamHomeOf(moment.state, team.id)
  const place = home === undefined ? undefined : placeOf(moment, home.id)
  const actions = place === undefined ? noActions : actionsAt(moment, subject, place)
  if (place === undefined || !has(actions, 'see')) return null
  const levels = (['leads', 'team'] as const).map(who => ({
    who,
    actions: place.grants
      .filter(each => each.grant.principal === `${who}:${team.id}`)
      .reduce((set, each) => union(set, each.actions), noActions),
  }))
  return { id: place.node.id, levels: has(actions, 'share') ? levels : [] }
}

const membershipEnd = ({ moment }: Asker, team: Team, person: Person) =>
  rowsBy(moment.state.memberships, 'person', person.id).find(each => each.team === team.id)?.until ?? null
