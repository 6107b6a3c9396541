import type { Problem } from '#contract/views/problem.ts'

/** How answers that take long come: a line of JSON each time it is known how far they are, and the answer last. */
export const linesType = 'application/x-ndjson'

export const isInLines = ({ headers }: Response): boolean =>
  headers.get('content-type')?.startsWith(linesType) === true

type Line = { readonly done: number } | { readonly answer: unknown } | { readonly problem: Problem }

/** Reads to the end; throws where the connection breaks before there is an answer. */
export async function lastLineOf(
  response: Response,
  onProgress: (done: number) => void = () => {},
): Promise<{ data: unknown } | { error: Problem }> {
  const reader = response.body?.pipeThrough(new TextDecoderStream()).getReader()
  let text = ''
  for (let part = await reader?.read(); part?.done === false; part = await reader?.read()) {
    const lines = (text + part.value).split('\n')
    text = lines.pop() ?? ''
    for (const line of lines) {
      const message = JSON.parse(line) as Line
      if ('done' in message) onProgress(message.done)
      else return 'answer' in message ? { data: message.answer } : { error: message.problem }
    }
  }
  throw new Error('there was no answer')
}
