import { type Context, lacksPrivilege } from '../changes/context.ts'
import type { Refusal } from '../changes/refusal.ts'
import type { Handover } from '../people/asking.ts'
import { handoverWords } from '../words/role-events.ts'
import type { RecordKind } from './kind.ts'
import { id } from './references.ts'

export const handovers: RecordKind<'handovers'> = {
  fields: { id: 'text', from: 'text', to: 'text', at: 'number', reason: 'text', keeps: 'text' },
  indexes: {},
  references: [
    id('from', 'persons', { whenGone: 'goes along' }),
    id('to', 'persons', { whenGone: 'goes along' }),
    id('keeps', 'roles', { whenGone: 'forbids' }),
  ],
  rights: (context, before, after) => lacksHandover(context, before ?? after),
  about: ({ before, after }) => ({ category: 'roles', person: (after ?? before)?.to }),
  isConsequence: ({ before, after }, { leavers, given }) =>
    after === null &&
    [before?.from, before?.to].some(each => each !== undefined && (leavers.has(each) || given.has(each))),
  words: handoverWords,
}

const lacksHandover = (context: Context, handover: Handover | null): Refusal | undefined =>
  handover?.from === context.author ? lacksPrivilege(context, 'own') : { code: 'unknown', what: 'handover' }
