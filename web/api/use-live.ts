import { useEffect } from 'react'
import { useAppDispatch } from '../store/store.ts'
import { api } from './api.ts'

/** As the server sends it, and as the tab that hears it passes it on to the others. */
interface Message {
  readonly event: 'here' | 'changed' | 'all' | 'gone'
  readonly id: string
  readonly revision: number
}

const retryAfter = 2000
/** The server beats every 15 seconds: without one for this long the connection is dead. */
const deadAfter = 40_000
/** What changes together is asked for together. */
const togetherWithin = 40

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
    const waiting = new Set<'session' | 'workspace'>()
    // From the first event on, not after the last: where others change things all the time it still shows.
    const askAnew = (...tags: ('session' | 'workspace')[]) => {
      for (const tag of tags) waiting.add(tag)
      gathering ??= setTimeout(ask, togetherWithin)
    }
    const ask = () => {
      clearTimeout(gathering)
      gathering = undefined
      if (waiting.size > 0) dispatch(api.util.invalidateTags([...waiting]))
      waiting.clear()
    }
    const receive = ({ event, id, revision }: Message) => {
      lastId = id
      if (event === 'gone') askAnew('session', 'workspace')
      else if (event !== 'here' || !dispatch(isAtRevision(slug, revision))) askAnew('workspace')
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
