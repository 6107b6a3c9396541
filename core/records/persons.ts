import { rowsBy } from '../base/collection.ts'
import { isSame } from '../base/same.ts'
import { type Context, firstLack } from '../changes/context.ts'
import { lacksInviting } from '../changes/edits/invitation.ts'
import { lacksDescribing, lacksOver } from '../changes/edits/person.ts'
import type { Refusal } from '../changes/refusal.ts'
import { isProfile, placesNaming, principalsOf } from '../changes/affected-scope.ts'
import type { Person } from '../people/person.ts'
import { nearingOf, startOf, endOf } from '../state/dates.ts'
import { personWords } from '../words/people-events.ts'
import { type RecordKind, spanFields } from './kind.ts'
import { id } from './references.ts'

export const persons: RecordKind<'persons'> = {
  fields: {
    id: 'text',
    account: 'text',
    name: 'text',
    mail: 'text',
    handle: 'text',
    title: 'text',
    department: 'text',
    country: 'text',
    picture: 'text',
    kind: 'text',
    status: 'text',
    contact: 'text',
    invitedBy: 'text',
    joinedAt: 'number',
    agreedAt: 'number',
    ...spanFields,
  },
  indexes: { account: row => row.account, mail: row => row.mail.toLowerCase() },
  references: [
    // Whoever leaves is replaced in the same edit, which asks by whom.
    id('contact', 'persons', { whenGone: 'stays' }),
    id('invitedBy', 'persons', {
      whenGone: 'stays',
      key: { none: 'a column that was added later: SQLite would write the whole table anew for a key' },
    }),
    id('handle', 'handles', { whenGone: 'forbids', key: { none: 'a handle has a key to its person' } }),
  ],
  dates: { starts: startOf, leavings: endOf, nearings: row => nearingOf(row, row.joinedAt) },
  rights: lacksPerson,
  about: change => ({ category: 'people', person: change.id }),
  people: change => (isProfile(change) ? [] : [change.id]),
  places: (state, change) => (isProfile(change) ? [] : placesNaming(state, principalsOf(state, change.id))),
  hasItsPlace: (state, row) => rowsBy(state.persons, 'mail', row.mail.toLowerCase()).length === 1,
  words: personWords,
}

/** The invited go and come back by inviting; who may invite them changes what they are offered. */
function lacksPerson(context: Context, before: Person | null, after: Person | null): Refusal | undefined {
  if (before === null || after === null) return lacksInviting(context, before ?? after ?? undefined)
  const isOffer = before.status === 'invited' && after.status === 'invited'
  if (isOffer && lacksInviting(context, before) === undefined) return undefined
  return firstLack([
    [!isSame(standingOf(before), standingOf(after)), () => lacksOver(context, before.id, 'suspend')],
    [before.contact !== after.contact, () => lacksOver(context, before.id, 'invite guests')],
    [!isSame(profileOf(before), profileOf(after)), () => lacksDescribing(context, before.id)],
  ])
}

const standingOf = ({ status, from, until }: Person) => [status, from, until]

const profileOf = ({ name, handle, title, department, country, picture }: Person) => [
  name,
  handle,
  title,
  department,
  country,
  picture,
]
