import type { PersonId } from '#core/base/ids.ts'
import { ok } from '#core/base/result.ts'
import { announce } from '../live/hub.ts'
import type { Parts } from '../parts.ts'
import { type Prepared, submit } from '../store/writer.ts'
import type { Asker } from './asker.ts'

export interface Bookkeeping {
  readonly write: Prepared<void>['write']
  /** Whom it concerns besides the asker. */
  readonly others?: readonly PersonId[]
}

/** Written without a change of the state, so without history; the open pages of those whose it is hear of it. */
export async function writeBookkeeping(
  parts: Parts,
  { workspace, person, snapshot }: Asker,
  { write, others = [] }: Bookkeeping,
): Promise<void> {
  const after = () =>
    announce(parts.hub, {
      workspace,
      revision: snapshot.state.revision,
      audience: { people: new Set([person, ...others]) },
    })
  await submit(parts.writer, () => ok({ value: undefined, write, after }))
}
