import { rowsBy } from '../base/collection.ts'
import { lacksTeamChange } from '../changes/edits/team.ts'
import { placesNaming } from '../changes/affected-scope.ts'
import { isOfAccess } from '../index/advance.ts'
import { leadsPrincipal, teamPrincipal } from '../rules/principal.ts'
import { teamWords } from '../words/people-events.ts'
import type { RecordKind } from './kind.ts'

export const teams: RecordKind<'teams'> = {
  fields: {
    id: 'text',
    name: 'text',
    note: 'text',
    picture: 'text',
    joining: 'text',
    welcomesGuests: 'boolean',
    archived: 'boolean',
    archivedAt: 'number',
    allowsPublishing: 'boolean',
    posting: 'text',
    addressing: 'text',
    keptByDirectory: 'boolean',
    madeAt: 'number',
  },
  indexes: { joining: row => row.joining },
  references: [],
  rights: lacksTeamChange,
  about: change => ({ category: 'teams', team: change.id }),
  people: change => (isOfAccess('teams', change) ? 'everybody' : []),
  places: (state, { id }) => {
    const homes = rowsBy(state.nodes, 'home', teamPrincipal(id)).map(home => home.id)
    return [...homes, ...placesNaming(state, [teamPrincipal(id), leadsPrincipal(id)])]
  },
  isOfWeb: true,
  words: teamWords,
}
