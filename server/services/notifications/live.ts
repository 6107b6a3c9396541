import type { AccountId } from '#core/base/ids.ts'
import { type Message, type Stream } from '../../live/hub.ts'
import type { Parts } from '../../parts.ts'
import { problemOf } from '../../problem-error.ts'
import { type Asker, askerOf } from '../viewer/asker.ts'

interface Opening {
  readonly account: AccountId
  readonly slug: string
  readonly session: string
  readonly send: (message: Message) => void
  readonly close: () => void
}

/** Of one account, at one server. */
const streamsAtMost = 10

/** A stream for somebody who is in the workspace now; asked again at each event whether they still are. */
export function streamFor(parts: Parts, { account, slug, session, send, close }: Opening): Stream<Asker> {
  const { workspace } = askerOf(parts, account, slug)
  const own = [...parts.hub.streams].filter(each => each.account === account)
  if (own.length >= streamsAtMost) throw problemOf('many-streams')
  const listener = (): Asker | undefined => {
    try {
      return askerOf(parts, account, slug)
    } catch {
      return undefined
    }
  }
  const revision = () => parts.writer.states.published.get(workspace)?.snapshot.state.revision ?? 0
  return { workspace, account, session, listener, revision, send, close }
}
