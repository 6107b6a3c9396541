import type { NodeId, PersonId } from '#core/base/ids.ts'
import type { Fact } from '#core/changes/fact.ts'
import { type Asker, maySee } from './asker.ts'
import { knowsOf } from './fact.ts'

/** Whom something concerns: data alone, since an event is kept long after the states that it came from. */
export interface Concern {
  /** So much changed that nobody is left out. */
  readonly isAll?: boolean
  readonly people?: ReadonlySet<PersonId>
  /** All who know of one of these. */
  readonly facts?: readonly Fact[]
  /** All who see this place. */
  readonly node?: NodeId
}

export const concerns = (reader: Asker, { isAll = false, people, facts = [], node }: Concern): boolean =>
  isAll ||
  people?.has(reader.person) === true ||
  facts.some(fact => fact.person === reader.person || knowsOf(reader, fact)) ||
  (node !== undefined && maySee(reader, node))
