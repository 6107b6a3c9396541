import type { PersonId } from '#core/base/ids.ts'
import { ok } from '#core/base/result.ts'
import { announce } from '../live/hub.ts'
import type { Parts } from '../parts.ts'
import { type Prepared, submit } from '../store/writer.ts'
import type { Asker } from './asker.ts'

export interface Book {
  readonly write: Prepared<void>['write']
  /** Whom it concerns besides the asker. */
  readonly others?: readonly PersonId[]
}

/** Written without a change of the state, so without history; the open pages of those whose it is hear of it. */
export async function keepBook(
  parts: Parts,
  { workspace, person, snapshot }: Asker,
  { write, others = [] }: Book,
): Promise<void> {
  const after = () =>
    announce(parts.hub, {
      workspace,
      revision: snapshot.state.revision,
      concern: { people: new Set([person, ...others]) },
    })
  await submit(parts.writer, () => ok({ value: undefined, write, after }))
}
