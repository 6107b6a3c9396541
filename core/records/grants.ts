import { subjectIn } from '../changes/consequences.ts'
import { lacksGrantChange } from '../changes/edits/grant.ts'
import type { Grant } from '../rules/access-entry.ts'
import { endOf, nearingOf, startOf } from '../state/dates.ts'
import { grantWords } from '../words/content-events.ts'
import { isEntryConsequence, peopleOfEntry, placesOfEntry } from './entries.ts'
import { type RecordKind, spanFields } from './kind.ts'
import { id, principal } from './references.ts'

export const grants: RecordKind<'grants'> = {
  fields: {
    id: 'text',
    node: 'text',
    principal: 'text',
    gives: 'actions or level',
    by: 'text',
    at: 'number',
    copiedFrom: 'text',
    ...spanFields,
  },
  indexes: { node: row => row.node, principal: row => row.principal },
  references: [
    id('node', 'nodes', { whenGone: 'goes along', index: 'node' }),
    ...principal<Grant>(),
    {
      to: 'levels',
      field: 'gives',
      ids: ({ gives }) => (typeof gives === 'string' ? [gives] : []),
      whenGone: 'forbids',
      key: { none: 'a set of actions stands there as well' },
    },
    id('by', 'persons', { whenGone: 'stays' }),
    id('copiedFrom', 'nodes', {
      whenGone: 'stays',
      key: { none: 'a copy stays when what it was copied from is deleted' },
    }),
  ],
  dates: { starts: startOf, ends: endOf, nearings: row => nearingOf(row, row.at) },
  rights: lacksGrantChange,
  about: ({ before, after }) => {
    const { node: place, principal } = (after ?? before) as Grant
    return { category: 'sharing', place, ...subjectIn(principal) }
  },
  isConsequence: (change, leading) => {
    const { node, copiedFrom } = (change.before ?? change.after) as Grant
    const isPrivate = leading.folders.has(node) && leading.count > 1
    const isCopy = copiedFrom !== null && leading.breaks.has(node)
    return isPrivate || isCopy || isEntryConsequence(change, leading)
  },
  standsAt: row => row.node,
  people: peopleOfEntry,
  places: placesOfEntry,
  words: grantWords,
}
