import { rowOf } from '../../base/collection.ts'
import type { ChannelId, TeamId } from '../../base/ids.ts'
import { ok, refused } from '../../base/result.ts'
import { isIn } from '../../access/channels.ts'
import { subjectOf } from '../../access/subject.ts'
import type { Channel } from '../../rules/channel.ts'
import {
  type Context,
  type EditOf,
  type EditRule,
  isTaken,
  knowsTeam,
  lacksPrivilege,
  lacksTeam,
  leadsTeam,
  unknownPrincipal,
} from '../context.ts'
import type { Refusal } from '../refusal.ts'
import type { Principal } from '../../rules/principal.ts'

export interface CreateChannel {
  readonly kind: 'channel.create'
  readonly channel: ChannelId
  readonly team: TeamId
  readonly name: string
  readonly note: string
  readonly only: readonly Principal[] | null
}

export const createChannel: EditRule<CreateChannel> = {
  kind: 'channel.create',
  lacks: (context, edit) => lacksCreatingChannels(context, edit.team) ?? unknownOnes(context, edit.only),
  apply: (context, { channel: id, team, name, note, only }) => {
    if (isTaken(context.now.state, 'channels', id)) return refused({ code: 'already-there', what: 'id' })
    const after: Channel = { id, team, name, note, only, archived: false }
    return ok([{ table: 'channels', id, before: null, after }])
  },
}

export interface ChangeChannel {
  readonly kind: 'channel.change'
  readonly channel: ChannelId
  readonly name?: string | undefined
  readonly note?: string | undefined
  readonly only?: readonly Principal[] | null | undefined
  readonly archived?: boolean | undefined
}

/** Settings and people of a channel. Of a restricted one only those in it know, and the leads of the team. */
export const changeChannel: EditRule<ChangeChannel> = {
  kind: 'channel.change',
  lacks: (context, edit) => {
    const before = rowOf(context.before.state.channels, edit.channel)
    return before === undefined
      ? { code: 'unknown', what: 'channel' }
      : (lacksChannelChange(context, before, { ...before, ...given(edit) }) ??
          unknownOnes(context, edit.only))
  },
  apply: (context, edit) => {
    const before = rowOf(context.now.state.channels, edit.channel)
    if (before === undefined) return refused({ code: 'unknown', what: 'channel' })
    return ok([{ table: 'channels', id: before.id, before, after: { ...before, ...given(edit) } }])
  },
}

const given = ({ name, note, only, archived }: EditOf<'channel.change'>): Partial<Channel> => ({
  ...(name === undefined ? {} : { name }),
  ...(note === undefined ? {} : { note }),
  ...(only === undefined ? {} : { only }),
  ...(archived === undefined ? {} : { archived }),
})

export function lacksChannelChange(
  context: Context,
  before: Channel | null,
  after: Channel | null,
): Refusal | undefined {
  const team = (after ?? before)?.team
  if (team === undefined) return { code: 'unknown', what: 'channel' }
  if (before === null || after === null) return lacksCreatingChannels(context, team)
  const subject = subjectOf(context.before, context.author)
  const isKnown =
    before.only === null ||
    leadsTeam(context.before, context.author, team) ||
    (subject !== undefined && isIn(subject, before))
  return isKnown ? lacksInTeam(context, team, 'moderate') : { code: 'unknown', what: 'channel' }
}

export const lacksCreatingChannels = (context: Context, team: TeamId): Refusal | undefined =>
  lacksInTeam(context, team, 'create channels')

/** Lead of the team, or the privilege, for a team that the author knows. */
function lacksInTeam(
  context: Context,
  team: TeamId,
  privilege: 'create channels' | 'moderate',
): Refusal | undefined {
  const lacks = lacksTeam(context, team)
  if (lacks === undefined || !knowsTeam(context.before, context.author, team)) return lacks
  return lacksPrivilege(context, privilege) === undefined ? undefined : lacks
}

const unknownOnes = (context: Context, only: Channel['only'] | undefined): Refusal | undefined =>
  (only ?? []).flatMap(each => unknownPrincipal(context, each) ?? [])[0]
