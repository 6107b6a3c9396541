import type { TestServer, Visitor } from './client.ts'
import { at } from './coast.ts'

export interface Heard {
  readonly event: string
  readonly data: { readonly id: string; readonly revision: number; readonly topics?: readonly string[] }
}

/** An open stream, with what came on it after it was opened. */
export interface Listening {
  readonly heard: readonly Heard[]
  readonly lastId: string
  /** Waits until this many came, and a little longer for one too many. */
  readonly until: (count: number) => Promise<void>
  readonly ended: Promise<void>
  readonly stop: () => void
}

export async function listenAs(visitor: Visitor, server: TestServer, after?: string): Promise<Listening> {
  const query = after === undefined ? '' : `?after=${after}`
  const abort = new AbortController()
  const response = await fetch(`${server.address}/api${at}/live${query}`, {
    headers: { cookie: visitor.cookie },
    signal: abort.signal,
  })
  const heard: Heard[] = []
  let lastId = after ?? ''
  const ended = (async () => {
    let text = ''
    const decoder = new TextDecoder()
    const reader = response.body?.getReader()
    for (let part = await reader?.read(); part?.value !== undefined; part = await reader?.read()) {
      text += decoder.decode(part.value, { stream: true })
      const blocks = text.split('\n\n')
      text = blocks.pop() ?? ''
      for (const block of blocks) {
        const event = /^event: (.*)$/m.exec(block)?.[1]
        if (event === undefined || event === 'beat') continue
        const data = JSON.parse(/^data: (.*)$/m.exec(block)?.[1] ?? '{}') as Heard['data']
        lastId = data.id
        if (event !== 'here') heard.push({ event, data })
      }
    }
  })().catch(() => {})
  await waitFor(() => lastId !== '')
  return {
    heard,
    get lastId() {
      return lastId
    },
    until: async count => {
      await waitFor(() => heard.length >= count)
      await pause(60)
    },
    ended,
    stop: () => abort.abort(),
  }
}

const pause = (milliseconds: number) => new Promise(resolve => setTimeout(resolve, milliseconds))

async function waitFor(isTrue: () => boolean): Promise<void> {
  for (let tries = 0; tries < 300 && !isTrue(); tries += 1) await pause(10)
  if (!isTrue()) throw new Error('it did not come')
}
