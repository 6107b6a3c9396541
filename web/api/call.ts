import type { BaseQueryFn } from '@reduxjs/toolkit/query'
import { addressOf, type Method, type Operation, operations } from '#contract/operations.ts'
import type { AnswerOf, ExchangeOf } from '#contract/routes.ts'
import type { Problem } from '#contract/views/problem.ts'
import { isInLines, lastLineOf, linesType } from './lines.ts'

/** How the server is asked, by the table that it answers by (contract/operations.ts, contract/routes.ts). */

export interface Call {
  readonly path: string
  readonly method: Method
  readonly body?: unknown
  /** Told how much of it is done, 0 to 1, where the answer takes long. */
  readonly onProgress?: OnProgress | undefined
}

export type OnProgress = (done: number) => void

/** What an operation is asked with: what stands in its address, behind it and in its body, together. */
type FieldsOf<O extends Operation> = ExchangeOf<O>['params'] &
  Part<ExchangeOf<O>['query']> &
  BodyOf<ExchangeOf<O>['body']>
type Part<P> = P extends undefined ? unknown : P
type BodyOf<B> = B extends undefined ? unknown : B extends Uint8Array ? { readonly file: Blob } : B

/** A workspace alone goes by its slug. */
export type ArgOf<O extends Operation> = keyof FieldsOf<O> extends never
  ? void
  : keyof FieldsOf<O> extends 'slug'
    ? string
    : FieldsOf<O>
export type ResultOf<O extends Operation> = AnswerOf<O> extends undefined ? null : AnswerOf<O>

interface Fields {
  readonly [field: string]: unknown
  readonly file?: Blob
  readonly onProgress?: OnProgress
}

export function callOf(operation: Operation, given: unknown): Call {
  const fields = (typeof given === 'string' ? { slug: given } : (given ?? {})) as Fields
  const [method, address] = operations[operation]
  const { file, onProgress, ...others } = fields
  const rest = Object.entries(others).filter(
    ([name, value]) => !address.includes(`{${name}}`) && value !== undefined,
  )
  const path = addressOf(operation, fields)
  if (method === 'GET' || method === 'DELETE') return { method, path: withQuery(path, rest), onProgress }
  return { method, path, body: file ?? Object.fromEntries(rest), onProgress }
}

const withQuery = (path: string, rest: readonly (readonly [string, unknown])[]): string =>
  rest.length === 0
    ? path
    : `${path}?${new URLSearchParams(rest.map(([name, value]) => [name, String(value)])).toString()}`

export const unreachable: Problem = {
  type: 'urn:noskel:problem:unreachable',
  title: 'Noskel cannot be reached right now.',
  status: 0,
  detail: 'Check your connection and try again. Nothing you typed is lost.',
}

interface Session {
  /** The token that every write repeats. */
  readonly csrfIn: (state: unknown) => string | undefined
  /** The session has ended meanwhile: asked for anew, it leads to signing in. */
  readonly onEnd: (dispatch: Parameters<BaseQueryFn>[1]['dispatch']) => void
}

/** Every call of the server. A refusal comes back as its problem, ready to be shown. */
export const calling =
  ({ csrfIn, onEnd }: Session): BaseQueryFn<Call, unknown, Problem> =>
  async ({ path, method, body, onProgress }, { getState, signal, dispatch }) => {
    const csrf = csrfIn(getState())
    try {
      const response = await fetch(`/api${path}`, {
        method,
        signal,
        headers: {
          ...(method === 'GET' ? {} : { 'content-type': typeOf(body) }),
          ...(csrf ? { 'x-noskel-csrf': csrf } : {}),
          ...acceptsOf(onProgress),
        },
        ...(body === undefined ? {} : { body: body instanceof Blob ? body : JSON.stringify(body) }),
      })
      if (response.status === 401 && path !== '/session') onEnd(dispatch)
      return await answerIn(response, onProgress)
    } catch {
      return { error: unreachable }
    }
  }

async function answerIn(
  response: Response,
  onProgress: Call['onProgress'],
): Promise<{ data: unknown } | { error: Problem }> {
  if (response.status === 204) return { data: null }
  if (isInLines(response)) return lastLineOf(response, onProgress)
  const answer: unknown = await response.json()
  return response.ok ? { data: answer } : { error: answer as Problem }
}

const acceptsOf = (onProgress: Call['onProgress']): { accept?: string } =>
  onProgress === undefined ? {} : { accept: `${linesType}, application/json` }

/** Files go as bytes, whatever they say they are: the server looks for itself. */
const typeOf = (body: unknown) => (body instanceof Blob ? 'application/octet-stream' : 'application/json')
