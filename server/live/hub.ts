import { randomUUID } from 'node:crypto'

/**
 * What tells open pages that something changed for them. Events carry no content: only that there is
 * something to ask for, and the revision. Each stream gets only what concerns its listener, decided
 * when it is sent. The last events are kept, so that a stream that broke off goes on where it was; one
 * that asks for an event that is no longer kept, or from before a restart, is told to ask for everything.
 */
export interface Hub<Listener> {
  /** Stands for the moment before the first event. */
  readonly begun: string
  readonly streams: Set<Stream<Listener>>
  readonly kept: Map<string, readonly KeptEvent<Listener>[]>
}

export interface LiveEvent<Listener> {
  readonly workspace: string
  readonly revision: number
  readonly concerns: (listener: Listener) => boolean
}

type KeptEvent<Listener> = LiveEvent<Listener> & { readonly id: string }

export interface Stream<Listener> {
  readonly workspace: string
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

export const createHub = <Listener>(): Hub<Listener> => ({
  begun: randomUUID(),
  streams: new Set(),
  kept: new Map(),
})

export function announce<Listener>(hub: Hub<Listener>, event: LiveEvent<Listener>): void {
  const next = { ...event, id: randomUUID() }
  hub.kept.set(event.workspace, [...keptOf(hub, event.workspace), next].slice(-keptAtMost))
  for (const stream of hub.streams) if (stream.workspace === event.workspace) tell(hub, stream, next)
}

/** Opens a stream that goes on after the event with the id `after`, where it had one. */
export function listen<Listener>(
  hub: Hub<Listener>,
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

function keptOf<Listener>(hub: Hub<Listener>, workspace: string): readonly KeptEvent<Listener>[] {
  const first = { id: hub.begun, workspace, revision: 0, concerns: () => false }
  return hub.kept.get(workspace) ?? [first]
}

export function leave<Listener>(hub: Hub<Listener>, stream: Stream<Listener>): void {
  hub.streams.delete(stream)
}

/** Ends the streams of a sign-in session, or all of them. */
export function closeStreams<Listener>(hub: Hub<Listener>, session?: string): void {
  for (const stream of hub.streams)
    if (session === undefined || stream.session === session) {
      hub.streams.delete(stream)
      stream.close()
    }
}

function tell<Listener>(
  hub: Hub<Listener>,
  stream: Stream<Listener>,
  { id, revision, concerns }: KeptEvent<Listener>,
) {
  const listener = stream.listener()
  if (listener === undefined) {
    stream.send({ event: 'gone', id, revision })
    hub.streams.delete(stream)
    stream.close()
  } else if (concerns(listener)) stream.send({ event: 'changed', id, revision })
}
