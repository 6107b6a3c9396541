import { expect, test } from 'vitest'
import { lastLineOf } from './lines.ts'

/** An answer that comes in pieces, cut anywhere. */
const answering = (...pieces: string[]) =>
  new Response(
    new ReadableStream({
      start: controller => {
        for (const piece of pieces) controller.enqueue(new TextEncoder().encode(piece))
        controller.close()
      },
    }),
  )

test('tells how far it is, and gives the answer or the problem at the end', async () => {
  const done: number[] = []
  const answer = await lastLineOf(
    answering('{"done":0.2}\n{"do', 'ne":0.7}\n', '{"answer":{"name":"Nest '.concat('counts"}}\n')),
    each => done.push(each),
  )
  expect([done, answer]).toEqual([[0.2, 0.7], { data: { name: 'Nest counts' } }])
  const problem = { type: 'urn:noskel:problem:fault' }
  expect(await lastLineOf(answering(`${JSON.stringify({ problem })}\n`))).toEqual({ error: problem })
})

test('a connection that breaks off before is no answer', async () => {
  await expect(lastLineOf(answering('{"done":0.9}\n'))).rejects.toThrow('there was no answer')
})
