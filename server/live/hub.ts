import { randomUUID } from 'node:crypto'

/**
 * What tells open pages that something changed for them. Events carry only of which topics there is
 * something to ask for, and the revision. Each stream gets only what concerns its listener, decided
 * when it is sent. The last events are kept, so that a stream that broke off goes on where it was; one
 * that asks for an event that is no longer kept, or from before a restart, is told to ask for everything.
 */
export interface Hub<Listener, Content> {
  /** Stands for the moment before the first event. */
  begun: string
  readonly streams: Set<Stream<Listener>>
  readonly kept: Map<string, readonly KeptEvent<Content>[]>
  readonly topicsFor: TopicsFor<Listener, Content>
}

/** An event holds what it is of, and whom it concerns, as data: a function would keep what it was made from for as long as the event. */
export interface LiveEvent<Content> {
  readonly id: string
  readonly workspace: string
  readonly revision: number
  readonly content: Content
}

/** The one before the first concerns nobody. */
type KeptEvent<Content> = LiveEvent<Content | null>
/** The topics of an event that concern a listener. */
type TopicsFor<Listener, Content> = (listener: Listener, content: Content) => readonly string[]

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
  /** Of what changed. */
  readonly topics?: readonly string[]
}

const keptAtMost = 1000

export const createHub = <Listener, Content>(
  topicsFor: TopicsFor<Listener, Content>,
): Hub<Listener, Content> => ({
  begun: randomUUID(),
  streams: new Set(),
  kept: new Map(),
  topicsFor,
})

export function announce<Listener, Content>(hub: Hub<Listener, Content>, event: LiveEvent<Content>): void {
  hub.kept.set(event.workspace, [...keptOf(hub, event.workspace), event].slice(-keptAtMost))
  for (const stream of hub.streams) if (stream.workspace === event.workspace) tell(hub, stream, event)
}

/** What was kept may lack something: everybody asks for everything anew. */
export function forgetEvents<Listener, Content>(hub: Hub<Listener, Content>): void {
  hub.kept.clear()
  hub.begun = randomUUID()
  for (const stream of hub.streams) stream.send({ event: 'all', id: hub.begun, revision: stream.revision() })
}

/** Opens a stream that goes on after the event with the id `after`, where it had one. */
export function listen<Listener, Content>(
  hub: Hub<Listener, Content>,
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

function keptOf<Listener, Content>(
  hub: Hub<Listener, Content>,
  workspace: string,
): readonly KeptEvent<Content>[] {
  return hub.kept.get(workspace) ?? [{ id: hub.begun, workspace, revision: 0, content: null }]
}

export function leave<Listener, Content>(hub: Hub<Listener, Content>, stream: Stream<Listener>): void {
  hub.streams.delete(stream)
}

/** Ends the streams of a sign-in session, or all of them. */
export function closeStreams<Listener, Content>(hub: Hub<Listener, Content>, session?: string): void {
  for (const stream of hub.streams)
    if (session === undefined || stream.session === session) {
      hub.streams.delete(stream)
      stream.close()
    }
}

function tell<Listener, Content>(
  hub: Hub<Listener, Content>,
  stream: Stream<Listener>,
  { id, revision, content }: KeptEvent<Content>,
) {
  const listener = stream.listener()
  if (listener === undefined) {
    stream.send({ event: 'gone', id, revision })
    hub.streams.delete(stream)
    stream.close()
  } else if (content !== null) {
    const topics = hub.topicsFor(listener, content)
    if (topics.length > 0) stream.send({ event: 'changed', id, revision, topics })
  }
}
