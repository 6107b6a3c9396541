import { useEffect } from 'react'
import { type AppDispatch, useAppDispatch } from '../store/store.ts'
import { api, tagOf } from './api.ts'
import { placesBelow } from './places-below.ts'

/** As the server sends it, and as the tab that hears it passes it on to the others. */
interface Message {
  readonly event: 'here' | 'changed' | 'all' | 'gone'
  readonly id: string
  readonly revision: number
  /** Of what something changed. */
  readonly topics?: readonly string[]
}

const retryAfter = 2000
/** The server beats every 15 seconds: without one for this long the connection is dead. */
const deadAfter = 40_000
/** What changes together is asked for together. */
const togetherWithin = 15

/**
 * Keeps what is shown true to what others do. One tab of a browser holds the stream, by a lock, and passes
 * what it hears on to the others; when it closes, the next one goes on after the last event.
 */
export function useLive(slug: string, isOpen: boolean): void {
  const dispatch = useAppDispatch()
  useEffect(() => {
    if (!isOpen) return
    let lastId = ''
    let gathering: ReturnType<typeof setTimeout> | undefined
    const waiting = new Set<string>()
    // From the first event on, not after the last: where others change things all the time it still shows.
    const askAnew = (...topics: readonly string[]) => {
      for (const topic of topics) waiting.add(topic)
      gathering ??= setTimeout(ask, togetherWithin)
    }
    const ask = () => {
      clearTimeout(gathering)
      gathering = undefined
      if (waiting.size > 0) dispatch(askFor([...waiting]))
      waiting.clear()
    }
    const receive = ({ event, id, revision, topics = [] }: Message) => {
      lastId = id
      if (event === 'gone') askAnew('session', 'own')
      else if (event === 'changed') {
        dispatch(noteRevision(slug, revision))
        askAnew(...topics)
      } else if (event === 'all' || !dispatch(isAtRevision(slug, revision))) askAnew('own')
    }
    const name = `noskel live ${slug}`
    const channel = new BroadcastChannel(name)
    channel.onmessage = (message: MessageEvent<Message>) => receive(message.data)
    const leaving = new AbortController()
    const lead = () =>
      holdStream(slug, leaving.signal, {
        lastId: () => lastId,
        onMessage: message => {
          receive(message)
          channel.postMessage(message)
        },
      })
    navigator.locks.request(name, { signal: leaving.signal }, lead).catch(() => {})
    return () => {
      leaving.abort()
      channel.close()
      // Whoever was just let go is asked for too: it is by that that this ends.
      ask()
    }
  }, [dispatch, isOpen, slug])
}

/** What hangs on any of these topics is asked for; what hangs on a place, also where a place above it is told. */
const askFor =
  (topics: readonly string[]) =>
  (dispatch: AppDispatch, getState: () => unknown): void => {
    const below = topics.flatMap(topic =>
      topic.startsWith('node:') ? placesBelow(topic.slice('node:'.length), getState()) : [],
    )
    dispatch(
      api.util.invalidateTags([...topics.map(tagOf), ...below.map(id => ({ type: 'node', id }) as const)]),
    )
  }

/** The revision that the last event was of: what is worked out for one is worked out anew with the next. */
const noteRevision = (slug: string, revision: number) =>
  api.util.updateQueryData('workspace', slug, known => ({
    ...known,
    revision: Math.max(known.revision, revision),
  }))

const isAtRevision =
  (slug: string, revision: number) =>
  (_: unknown, getState: () => unknown): boolean =>
    api.endpoints.workspace.select(slug)(getState() as never).data?.revision === revision

interface Hearing {
  readonly lastId: () => string
  readonly onMessage: (message: Message) => void
}

/** Resolves when it is left. A browser tries again by itself after a lost line, but not after a refusal. */
function holdStream(slug: string, left: AbortSignal, { lastId, onMessage }: Hearing): Promise<void> {
  return new Promise(resolve => {
    let source: EventSource | undefined
    let timer: ReturnType<typeof setTimeout> | undefined
    const openAfter = (wait: number) => {
      clearTimeout(timer)
      timer = setTimeout(open, wait)
    }
    const open = () => {
      source?.close()
      source = new EventSource(`/api/at/${slug}/live${lastId() === '' ? '' : `?after=${lastId()}`}`)
      openAfter(deadAfter)
      source.onerror = () => {
        if (source?.readyState !== EventSource.CLOSED) return
        onMessage({ event: 'gone', id: lastId(), revision: 0 })
        openAfter(retryAfter)
      }
      source.addEventListener('beat', () => openAfter(deadAfter))
      for (const event of ['here', 'changed', 'all', 'gone'] as const)
        source.addEventListener(event, ({ data }: MessageEvent<string>) => {
          openAfter(deadAfter)
          onMessage({ ...(JSON.parse(data) as Omit<Message, 'event'>), event })
        })
    }
    open()
    left.addEventListener('abort', () => {
      source?.close()
      clearTimeout(timer)
      resolve()
    })
  })
}
