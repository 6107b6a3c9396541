import type { Context } from '../changes/context.ts'
import { lacksWithdrawingLink, offerOf } from '../changes/edits/join-link.ts'
import { lacksOffering } from '../changes/edits/welcome-set.ts'
import type { Refusal } from '../changes/refusal.ts'
import type { JoinLink } from '../rules/offer.ts'
import { joinLinkFields, madeWords } from '../words/changed-fields.ts'
import type { RecordKind } from './kind.ts'
import { offered } from './offered.ts'
import { id } from './references.ts'

export const joinLinks: RecordKind<'joinLinks'> = {
  fields: {
    id: 'text',
    name: 'text',
    by: 'text',
    at: 'number',
    until: 'number',
    domains: 'json',
    most: 'number',
    used: 'number',
    welcome: 'text',
    offer: 'json',
  },
  indexes: {},
  references: [
    id('by', 'persons', { whenGone: 'stays' }),
    id('welcome', 'welcomeSets', { whenGone: 'forbids' }),
    ...offered<JoinLink>(),
  ],
  rights: lacksLinkChange,
  about: () => ({ category: 'workspace' }),
  isConsequence: ({ before, after }, { people }) => before?.used !== after?.used && people.size > 0,
  words: change => madeWords('join link', change, joinLinkFields),
}

/** What one made oneself comes back as it was; a link is never another's to widen. */
function lacksLinkChange(
  context: Context,
  before: JoinLink | null,
  after: JoinLink | null,
): Refusal | undefined {
  if (after === null) return lacksWithdrawingLink(context, before ?? undefined)
  return after.by === context.author
    ? lacksOffering(context, offerOf(context.now.state, after))
    : { code: 'not-its-maker', what: 'link' }
}
