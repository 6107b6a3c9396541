import autocannon from 'autocannon'

interface Load {
  readonly url: string
  readonly cookie: string
  readonly connections: number
  readonly seconds: number
}

/** How many requests a second were answered, and how long the slowest of a hundred took. Asked from another thread. */
export async function loadOn({ url, cookie, connections, seconds }: Load) {
  const result = await autocannon({ url, connections, duration: seconds, headers: { cookie }, workers: 1 })
  if (result.errors > 0 || result.non2xx > 0 || result['2xx'] === 0)
    throw new Error(
      `${url}: ${result.errors} errors, ${result.non2xx} refused: ${JSON.stringify(result.statusCodeStats)}`,
    )
  return { perSecond: result.requests.average, p99: result.latency.p99 }
}
