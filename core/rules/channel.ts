import type { ChannelId, TeamId } from '../base/ids.ts'
import type { Principal } from './principal.ts'

/** A channel of a team, open to the whole team or to some of those in it. */
export interface Channel {
  readonly id: ChannelId
  readonly team: TeamId
  readonly name: string
  readonly note: string
  /** People and teams, of whom those in the channel's team are in; `null` for everyone in the team. */
  readonly only: readonly Principal[] | null
  readonly archived: boolean
}
