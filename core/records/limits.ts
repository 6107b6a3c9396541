import { subjectIn } from '../changes/consequences.ts'
import { type Context, lacksSharing } from '../changes/context.ts'
import { lacksLimitChange } from '../changes/edits/limit.ts'
import type { Refusal } from '../changes/refusal.ts'
import type { Limit } from '../rules/access-entry.ts'
import { endOf, startOf } from '../state/dates.ts'
import { limitWords } from '../words/content-events.ts'
import { isEntryConsequence, peopleOfEntry, placesOfEntry } from './entries.ts'
import { type RecordKind, spanFields } from './kind.ts'
import { id, principal } from './references.ts'

export const limits: RecordKind<'limits'> = {
  fields: {
    id: 'text',
    node: 'text',
    principal: 'text',
    allows: 'number',
    sparesStewards: 'boolean',
    by: 'text',
    at: 'number',
    ...spanFields,
  },
  indexes: { node: row => row.node, principal: row => row.principal },
  references: [
    id('node', 'nodes', { whenGone: 'goes along', index: 'node' }),
    ...principal<Limit>(),
    id('by', 'persons', { whenGone: 'stays' }),
  ],
  dates: { starts: startOf, ends: endOf },
  rights: lacksLimit,
  about: ({ before, after }) => {
    const { node: place, principal } = (after ?? before) as Limit
    return { category: 'limits', place, ...subjectIn(principal) }
  },
  isConsequence: isEntryConsequence,
  standsAt: row => row.node,
  people: peopleOfEntry,
  places: placesOfEntry,
  isOfWeb: true,
  words: limitWords,
}

function lacksLimit(context: Context, before: Limit | null, after: Limit | null): Refusal | undefined {
  if (before !== null) return lacksLimitChange(context, before, after)
  return after === null ? undefined : lacksSharing(context, after.node)
}
