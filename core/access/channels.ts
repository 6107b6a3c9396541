import { rowOf } from '../base/collection.ts'
import type { Channel } from '../rules/channel.ts'
import type { Snapshot } from '../state/state.ts'
import { mayUse } from './powers.ts'
import type { Subject } from './subject.ts'

/** What a person may do in a channel. Content levels have no part in it, and no privilege opens one. */
export interface ChannelRights {
  readonly read: boolean
  readonly post: boolean
  /** Takes messages away and pauses people. */
  readonly moderate: boolean
  readonly addressEveryone: boolean
}

const nothing: ChannelRights = { read: false, post: false, moderate: false, addressEveryone: false }

export function channelRights(snapshot: Snapshot, subject: Subject, channel: Channel): ChannelRights {
  const team = rowOf(snapshot.state.teams, channel.team)
  if (team === undefined || !isIn(subject, channel)) return nothing
  const leads = subject.principals.has(`leads:${team.id}`)
  const may = (privilege: 'moderate' | 'address everyone') =>
    leads || mayUse(snapshot, subject.person.id, privilege)
  const mayPost = team.posting === 'everyone' || leads || (team.posting === 'members' && !subject.isGuest)
  const post = mayPost && !team.archived && !channel.archived
  return {
    read: true,
    post,
    moderate: may('moderate'),
    addressEveryone: post && (team.addressing === 'everyone' || may('address everyone')),
  }
}

/** In the team, and where the channel is restricted, named by it. */
export const isIn = ({ isActive, principals }: Subject, { team, only }: Channel): boolean =>
  isActive && principals.has(`team:${team}`) && (only === null || only.some(each => principals.has(each)))
