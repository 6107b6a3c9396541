import type { TeamId } from '../base/ids.ts'
import { isLeftOut } from '../changes/consequences.ts'
import { lacksChannelChange } from '../changes/edits/channel.ts'
import type { Channel } from '../rules/channel.ts'
import { channelWords } from '../words/people-events.ts'
import type { RecordKind } from './kind.ts'
import { id, principals } from './references.ts'

export const channels: RecordKind<'channels'> = {
  fields: { id: 'text', team: 'text', name: 'text', note: 'text', only: 'json', archived: 'boolean' },
  indexes: { team: row => row.team },
  references: [
    id('team', 'teams', { whenGone: 'goes along', index: 'team' }),
    // It stays restricted to whoever else it names; to nobody, if that is nobody.
    ...principals<Channel>('only', {
      of: ({ only }) => only ?? [],
      without: (row, isGone) => ({ ...row, only: row.only?.filter(each => !isGone(each)) ?? null }),
    }),
  ],
  rights: lacksChannelChange,
  about: ({ before, after }) => ({ category: 'teams', team: (after ?? before)?.team }),
  isConsequence: (change, leading) =>
    leading.goneTeams.has((change.after ?? change.before)?.team as TeamId) ||
    isLeftOut(change, ['only'], leading),
  words: channelWords,
}
