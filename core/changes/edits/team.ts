import { rowOf } from '../../base/collection.ts'
import type { NodeId, PictureId, TeamId } from '../../base/ids.ts'
import { ok, refused } from '../../base/result.ts'
import { isSame } from '../../base/same.ts'
import type { Team } from '../../people/person.ts'
import { type RecordChange, rootOf, teamHomeOf } from '../../state/state.ts'
import type { ContentNode } from '../../tree/node.ts'
import {
  type Context,
  type EditRule,
  firstLack,
  isTaken,
  lacksPrivilege,
  lacksTeam,
  leadsTeam,
} from '../context.ts'
import type { Refusal } from '../refusal.ts'
import { createdNode } from './node.ts'
import { withdrawnBelow } from './node-state.ts'

export interface CreateTeam {
  readonly kind: 'team.create'
  readonly team: TeamId
  readonly home: NodeId
  readonly name: string
  readonly note: string
  readonly joining: Team['joining']
  readonly welcomesGuests: boolean
}

/** Makes a team and its home folder. Its first people and grants are edits of the same change set. */
export const createTeam: EditRule<CreateTeam> = {
  kind: 'team.create',
  lacks: context => lacksPrivilege(context, 'create teams'),
  apply: (context, edit) => {
    const { state, at } = context.now
    if (isTaken(state, 'teams', edit.team) || isTaken(state, 'nodes', edit.home))
      return refused({ code: 'already-there', what: 'id' })
    const team: Team = {
      id: edit.team,
      name: edit.name,
      note: edit.note,
      picture: null,
      joining: edit.joining,
      welcomesGuests: edit.welcomesGuests,
      archived: false,
      archivedAt: null,
      allowsPublishing: true,
      posting: 'everyone',
      addressing: 'leads',
      keptByDirectory: false,
      madeAt: at,
    }
    const home = createdNode(
      { id: edit.home, parent: rootOf(state).id, kind: 'folder', name: edit.name },
      { maker: context.author, madeAt: at },
    )
    return ok([
      { table: 'teams', id: team.id, before: null, after: team },
      { table: 'nodes', id: home.id, before: null, after: { ...home, home: { of: 'team', team: team.id } } },
    ])
  },
}

export interface ChangeTeam {
  readonly kind: 'team.change'
  readonly team: TeamId
  readonly name?: string | undefined
  readonly note?: string | undefined
  readonly joining?: Team['joining'] | undefined
  readonly welcomesGuests?: boolean | undefined
  readonly picture?: PictureId | null | undefined
  readonly allowsPublishing?: boolean | undefined
  readonly posting?: Team['posting'] | undefined
  readonly addressing?: Team['addressing'] | undefined
  readonly keptByDirectory?: boolean | undefined
}

export const changeTeam: EditRule<ChangeTeam> = {
  kind: 'team.change',
  lacks: (context, edit) =>
    lacksTeam(context, edit.team) ??
    (edit.keptByDirectory === undefined ? undefined : lacksPrivilege(context, 'directory')),
  apply: (context, edit) => {
    const before = rowOf(context.now.state.teams, edit.team)
    if (before === undefined) return refused({ code: 'unknown', what: 'team' })
    const after: Team = {
      ...before,
      allowsPublishing: edit.allowsPublishing ?? before.allowsPublishing,
      name: edit.name ?? before.name,
      note: edit.note ?? before.note,
      picture: edit.picture === undefined ? before.picture : edit.picture,
      joining: edit.joining ?? before.joining,
      welcomesGuests: edit.welcomesGuests ?? before.welcomesGuests,
      posting: edit.posting ?? before.posting,
      addressing: edit.addressing ?? before.addressing,
      keptByDirectory: edit.keptByDirectory ?? before.keptByDirectory,
    }
    return ok([{ table: 'teams', id: before.id, before, after }])
  },
}

export interface ArchiveTeam {
  readonly kind: 'team.archive'
  readonly team: TeamId
  readonly archived: boolean
}

/** Everything in an archived team's home stays readable and nothing there changes; its leads bring it back. */
export const archiveTeam: EditRule<ArchiveTeam> = {
  kind: 'team.archive',
  lacks: (context, edit) => lacksArchiving(context, edit.team),
  apply: (context, edit) => {
    const { state } = context.now
    const before = rowOf(state.teams, edit.team)
    if (before === undefined) return refused({ code: 'unknown', what: 'team' })
    const home = teamHomeOf(state, before.id)
    const isLeaving = edit.archived && home !== undefined
    const top = isLeaving && home.web === 'published' ? [withdrawn(home)] : []
    const below = isLeaving ? withdrawnBelow(state, home.id) : []
    const archivedAt = edit.archived ? context.now.at : null
    const after: Team = { ...before, archived: edit.archived, archivedAt }
    return ok([{ table: 'teams', id: before.id, before, after }, ...top, ...below])
  },
}

const withdrawn = (before: ContentNode): RecordChange => ({
  table: 'nodes',
  id: before.id,
  before,
  after: { ...before, web: null },
})

/** By a lead, or with *archive any team*: managing any team is not enough. */
export function lacksArchiving(context: Context, team: TeamId): Refusal | undefined {
  const isNew = rowOf(context.before.state.teams, team) === undefined
  const lacks = lacksTeam(context, team)
  if (isNew || lacks?.code === 'unknown' || leadsTeam(context.before, context.author, team)) return lacks
  return lacksPrivilege(context, 'archive any team') === undefined
    ? undefined
    : (lacks ?? { code: 'privilege-missing', privilege: 'archive any team' })
}

/** What a change of a team needs, field by field. */
export function lacksTeamChange(
  context: Context,
  before: Team | null,
  after: Team | null,
): Refusal | undefined {
  if (before === null || after === null) return lacksPrivilege(context, 'create teams')
  const { archived, archivedAt } = before
  return firstLack([
    [archived !== after.archived, () => lacksArchiving(context, before.id)],
    [before.keptByDirectory !== after.keptByDirectory, () => lacksPrivilege(context, 'directory')],
    [!isSame(before, { ...after, archived, archivedAt }), () => lacksTeam(context, before.id)],
  ])
}
