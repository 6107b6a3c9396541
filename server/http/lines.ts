import type { Request, Response } from 'express'
import type { Parts } from '../parts.ts'
import { type Patience, Stopped } from '../worker/asking.ts'
import { problemFor } from './errors.ts'

interface Exchange {
  readonly parts: Parts
  readonly request: Request
  readonly response: Response
}

const linesType = 'application/x-ndjson'

/**
 * Answers what may take long. Who asks for lines gets one of JSON each time it is known how far it is, and the answer,
 * or the problem, as the last one; where it was quick, just that as any other answer. Whoever goes away stops it.
 */
export async function inLines(
  { parts, request, response }: Exchange,
  answer: (patience: Patience) => Promise<object>,
): Promise<void> {
  const going = new AbortController()
  response.on('close', () => going.abort())
  const wantsLines = request.get('accept')?.includes(linesType) === true
  const onProgress = (done: number) => {
    if (!response.headersSent)
      response.set({ 'content-type': linesType, 'cache-control': 'no-store, no-transform' })
    response.write(`${JSON.stringify({ done })}\n`)
  }
  try {
    const answered = await answer({ signal: going.signal, ...(wantsLines ? { onProgress } : {}) })
    if (response.headersSent) response.end(`${JSON.stringify({ answer: answered })}\n`)
    else response.json(answered)
  } catch (error) {
    if (error instanceof Stopped && going.signal.aborted) return
    if (!response.headersSent) throw error
    response.end(`${JSON.stringify({ problem: problemFor(parts, request, error) })}\n`)
  }
}
