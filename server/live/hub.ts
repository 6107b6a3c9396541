import { randomUUID } from 'node:crypto'

/**
 * What tells open pages that something changed for them. Events carry no content: only that there is
 * something to ask for, and the revision. Each stream gets only what concerns its listener, decided
 * when it is sent. The last events are kept, so that a stream that broke off goes on where it was; one
 * that asks for an event that is no longer kept, or from before a restart, is told to ask for everything.
 */
export interface Hub<Listener, Audience> {
  /** Stands for the moment before the first event. */
  begun: string
  readonly streams: Set<Stream<Listener>>
  readonly kept: Map<string, readonly KeptEvent<Audience>[]>
  readonly isInAudience: Concerns<Listener, Audience>
}

/** An event holds whom it concerns as data: a function would keep what it was made from for as long as the event. */
export interface LiveEvent<Audience> {
  readonly id: string
  readonly workspace: string
  readonly revision: number
  readonly audience: Audience
}

/** The one before the first concerns nobody. */
type KeptEvent<Audience> = LiveEvent<Audience | null>
type Concerns<Listener, Audience> = (listener: Listener, audience: Audience) => boolean

export interface Stream<Listener> {
  readonly workspace: string
  /** Whose it is. */
  readonly account: string
  /** The sign-in session that opened it, and ends it. */
  readonly session: string
  /** Whoever listens, as they are now; `undefined` once they may not any more. */
  readonly listener: () => Listener | undefined
  /** The revision of the workspace now. */
  readonly revision: () => number
  readonly send: (message: Message) => void
  readonly close: () => void
}

/** `gone`: whoever listens is not in the workspace any more. `all`: ask for everything anew. */
export interface Message {
  readonly event: 'here' | 'changed' | 'all' | 'gone'
  readonly id: string
  readonly revision: number
}

const keptAtMost = 1000

export const createHub = <Listener, Audience>(
  isInAudience: Concerns<Listener, Audience>,
): Hub<Listener, Audience> => ({
  begun: randomUUID(),
  streams: new Set(),
  kept: new Map(),
  isInAudience,
})

export function announce<Listener, Audience>(hub: Hub<Listener, Audience>, event: LiveEvent<Audience>): void {
  hub.kept.set(event.workspace, [...keptOf(hub, event.workspace), event].slice(-keptAtMost))
  for (const stream of hub.streams) if (stream.workspace === event.workspace) tell(hub, stream, event)
}

/** What was kept may lack something: everybody asks for everything anew. */
export function forgetEvents<Listener, Audience>(hub: Hub<Listener, Audience>): void {
  hub.kept.clear()
  hub.begun = randomUUID()
  for (const stream of hub.streams) stream.send({ event: 'all', id: hub.begun, revision: stream.revision() })
}

/** Opens a stream that goes on after the event with the id `after`, where it had one. */
export function listen<Listener, Audience>(
  hub: Hub<Listener, Audience>,
  stream: Stream<Listener>,
  after: string | undefined,
): void {
  hub.streams.add(stream)
  const kept = keptOf(hub, stream.workspace)
  const from = kept.findIndex(each => each.id === after)
  if (from !== -1) {
    for (const event of kept.slice(from + 1)) tell(hub, stream, event)
    return
  }
  const id = kept.at(-1)?.id ?? hub.begun
  stream.send({ event: after === undefined ? 'here' : 'all', id, revision: stream.revision() })
}

function keptOf<Listener, Audience>(
  hub: Hub<Listener, Audience>,
  workspace: string,
): readonly KeptEvent<Audience>[] {
  return hub.kept.get(workspace) ?? [{ id: hub.begun, workspace, revision: 0, audience: null }]
}

export function leave<Listener, Audience>(hub: Hub<Listener, Audience>, stream: Stream<Listener>): void {
  hub.streams.delete(stream)
}

/** Ends the streams of a sign-in session, or all of them. */
export function closeStreams<Listener, Audience>(hub: Hub<Listener, Audience>, session?: string): void {
  for (const stream of hub.streams)
    if (session === undefined || stream.session === session) {
      hub.streams.delete(stream)
      stream.close()
    }
}

function tell<Listener, Audience>(
  hub: Hub<Listener, Audience>,
  stream: Stream<Listener>,
  { id, revision, audience }: KeptEvent<Audience>,
) {
  const listener = stream.listener()
  if (listener === undefined) {
    stream.send({ event: 'gone', id, revision })
    hub.streams.delete(stream)
    stream.close()
  } else if (audience !== null && hub.isInAudience(listener, audience))
    stream.send({ event: 'changed', id, revision })
}
