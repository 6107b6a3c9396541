import type { ChannelView, TeamPersonView, TeamView } from '#contract/views/teams.ts'
import { channelRights } from '#core/access/channels.ts'
import { actionsAt } from '#core/access/evaluate.ts'
import { placeOf } from '#core/access/place.ts'
import { peopleIn } from '#core/access/subject.ts'
import { allRows, rowsBy } from '#core/base/collection.ts'
import { knowsTeam, leadsTeam } from '#core/changes/context.ts'
import type { Instant } from '#core/base/instant.ts'
import { compareWords } from '#core/base/compare-words.ts'
import { lacksChannelChange, lacksCreatingChannels } from '#core/changes/edits/channel.ts'
import { archiveTime } from '#core/changes/edits/delete.ts'
import { lacksDeleting } from '#core/changes/edits/team-delete.ts'
import { teamRequestOf } from '#core/changes/requests/of.ts'
import { has, noActions, union } from '#core/levels/action.ts'
import type { Person, Team } from '#core/people/person.ts'
import { teamHomeOf } from '#core/state/state.ts'
import { type Asker, asks } from '../viewer/asker.ts'
import { principalName } from '../viewer/principal.ts'

/** The teams that the asker knows of. */
export function teamsView(asker: Asker): TeamView[] {
  return allRows(asker.snapshot.state.teams)
    .filter(team => knowsTeam(asker.snapshot, asker.person, team.id))
    .map(team => teamView(asker, team))
    .sort((a, b) => compareWords(a.name, b.name))
}

function teamView(asker: Asker, team: Team): TeamView {
  const { snapshot, person } = asker
  const { id, name, note, picture, joining, welcomesGuests, keptByDirectory, archived } = team
  const isMine = asker.subject.principals.has(`team:${id}`)
  const mayManage = leadsTeam(snapshot, person, id) || asks(asker, 'manage any team')
  return {
    id,
    name,
    note,
    picture,
    joining,
    welcomesGuests,
    keptByDirectory,
    isArchived: archived,
    deletableFrom: deletableFrom(asker, team),
    home: homeView(asker, team),
    mayManage,
    mayJoin: joining === 'open' && !isMine && !asker.subject.isGuest,
    isMine,
    ...askingFor(asker, team, isMine),
    channels: channelsView(asker, team),
    mayCreateChannels: mayCreateChannels(asker, team),
    people: isMine || asks(asker, 'view people') ? peopleView(asker, team) : [],
  }
}

function mayCreateChannels({ snapshot, person: author }: Asker, { id, archived }: Team): boolean {
  const context = { author, before: snapshot, now: snapshot }
  return !archived && lacksCreatingChannels(context, id) === undefined
}

function deletableFrom({ snapshot, person: author }: Asker, { id, archivedAt }: Team): Instant | null {
  const context = { author, before: snapshot, now: snapshot }
  const may = archivedAt !== null && lacksDeleting(context, id) === undefined
  return may ? archivedAt + archiveTime : null
}

/** What the asker asked for, and whether they may ask. */
function askingFor({ snapshot, person, subject }: Asker, team: Team, isMine: boolean) {
  const request = teamRequestOf(snapshot.state, team.id, person)
  const isByRequest = team.joining === 'request' && !team.keptByDirectory && !team.archived
  const isWaiting = request !== undefined && request.declined === null
  return {
    mayAsk: isByRequest && !isMine && !subject.isGuest && !isWaiting,
    myRequest:
      request === undefined
        ? null
        : { id: request.id, at: request.at, declined: request.declined?.comment ?? null },
  }
}

const peopleView = (asker: Asker, team: Team): TeamPersonView[] =>
  peopleIn(asker.snapshot, team)
    .map(({ person, lead }) => ({
      id: person.id,
      name: person.name || person.mail,
      kind: person.kind,
      status: person.status,
      lead,
      until: membershipEnd(asker, team, person),
    }))
    .sort((a, b) => Number(b.lead) - Number(a.lead) || compareWords(a.name, b.name))

/** The channels that the asker may read, and those that they keep as a lead. */
function channelsView(asker: Asker, team: Team): ChannelView[] {
  const { snapshot, subject, person: author } = asker
  const context = { author, before: snapshot, now: snapshot }
  return rowsBy(snapshot.state.channels, 'team', team.id)
    .flatMap(channel => {
      const { id, name, note, only, archived } = channel
      const rights = channelRights(snapshot, subject, channel)
      const mayChange = lacksChannelChange(context, channel, channel) === undefined
      if (!rights.read && !mayChange) return []
      const named = only === null ? null : only.map(each => principalName(asker, each))
      return [
        {
          ...{ id, name, note, only: named, mayChange },
          isArchived: archived,
          mayRead: rights.read,
          mayPost: rights.post,
        },
      ]
    })
    .sort((a, b) => compareWords(a.name, b.name))
}

function homeView(asker: Asker, team: Team): TeamView['home'] {
  const { snapshot, subject } = asker
  const home = teamHomeOf(snapshot.state, team.id)
  const place = home === undefined ? undefined : placeOf(snapshot, home.id)
  const actions = place === undefined ? noActions : actionsAt(snapshot, subject, place)
  if (place === undefined || !has(actions, 'see')) return null
  const levels = (['leads', 'team'] as const).map(who => ({
    who,
    actions: place.grants
      .filter(each => each.grant.principal === `${who}:${team.id}`)
      .reduce((set, each) => union(set, each.actions), noActions),
  }))
  return { id: place.node.id, levels: has(actions, 'share') ? levels : [] }
}

const membershipEnd = ({ snapshot }: Asker, team: Team, person: Person) =>
  rowsBy(snapshot.state.memberships, 'person', person.id).find(each => each.team === team.id)?.until ?? null
