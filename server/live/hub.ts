import { randomUUID } from 'node:crypto'

/**
 * What tells open pages that something changed for them. Events carry no content: only that there is
 * something to ask for, and the revision. Each stream gets only what concerns its listener, decided
 * when it is sent. The last events are kept, so that a stream that broke off goes on where it was; one
 * that asks for an event that is no longer kept, or from before a restart, is told to ask for everything.
 */
export interface Hub<Listener, Concern> {
  /** Stands for the moment before the first event. */
  readonly begun: string
  readonly streams: Set<Stream<Listener>>
  readonly kept: Map<string, readonly KeptEvent<Concern>[]>
  readonly concerns: Concerns<Listener, Concern>
}

/** An event holds whom it concerns as data: a function would keep what it was made from for as long as the event. */
export interface LiveEvent<Concern> {
  readonly workspace: string
  readonly revision: number
  readonly concern: Concern
}

/** The one before the first concerns nobody. */
type KeptEvent<Concern> = LiveEvent<Concern | null> & { readonly id: string }
type Concerns<Listener, Concern> = (listener: Listener, concern: Concern) => boolean

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

export const createHub = <Listener, Concern>(
  concerns: Concerns<Listener, Concern>,
): Hub<Listener, Concern> => ({
  begun: randomUUID(),
  streams: new Set(),
  kept: new Map(),
  concerns,
})

export function announce<Listener, Concern>(hub: Hub<Listener, Concern>, event: LiveEvent<Concern>): void {
  const next = { ...event, id: randomUUID() }
  hub.kept.set(event.workspace, [...keptOf(hub, event.workspace), next].slice(-keptAtMost))
  for (const stream of hub.streams) if (stream.workspace === event.workspace) tell(hub, stream, next)
}

/** Opens a stream that goes on after the event with the id `after`, where it had one. */
export function listen<Listener, Concern>(
  hub: Hub<Listener, Concern>,
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

function keptOf<Listener, Concern>(
  hub: Hub<Listener, Concern>,
  workspace: string,
): readonly KeptEvent<Concern>[] {
  return hub.kept.get(workspace) ?? [{ id: hub.begun, workspace, revision: 0, concern: null }]
}

export function leave<Listener, Concern>(hub: Hub<Listener, Concern>, stream: Stream<Listener>): void {
  hub.streams.delete(stream)
}

/** Ends the streams of a sign-in session, or all of them. */
export function closeStreams<Listener, Concern>(hub: Hub<Listener, Concern>, session?: string): void {
  for (const stream of hub.streams)
    if (session === undefined || stream.session === session) {
      hub.streams.delete(stream)
      stream.close()
    }
}

function tell<Listener, Concern>(
  hub: Hub<Listener, Concern>,
  stream: Stream<Listener>,
  { id, revision, concern }: KeptEvent<Concern>,
) {
  const listener = stream.listener()
  if (listener === undefined) {
    stream.send({ event: 'gone', id, revision })
    hub.streams.delete(stream)
    stream.close()
  } else if (concern !== null && hub.concerns(listener, concern))
    stream.send({ event: 'changed', id, revision })
}
