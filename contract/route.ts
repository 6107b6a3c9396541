import type { TSchema } from '@sinclair/typebox'
import type { Operation, ParamsIn, PathOf } from './operations.ts'
import type { View } from './pieces.ts'

/** What goes into an operation and comes out of it. */
export interface Route {
  /** What it does, as the description of the API tells it. */
  readonly does: string
  /** Who may, in words; whoever may not is answered as if there were nothing. */
  readonly needs: string
  /** Of what stands in the address, what is not any short text. */
  readonly params?: Readonly<Record<string, TSchema>>
  /** Nothing may stand behind the question mark where this is not said. */
  readonly query?: TSchema
  readonly body?: TSchema | Bytes | Stream
  readonly answer: Answer
  /** 200, or 204 without an answer, where it is not said. */
  readonly status?: 201
  /** The list in the body that may be long: it is looked through in parts, so that others are let in between. */
  readonly long?: 'edits' | 'rows'
  /** It may take long: whoever accepts lines is told how far it is. */
  readonly isSlow?: true
  /** A try at a secret: an address has few in a minute. */
  readonly isTry?: true
}

export type Answer = TSchema | typeof nothing | typeof inHeaders | typeof fileBytes | Bytes | Events

/** No content. */
export const nothing = { kind: 'nothing' } as const

/** No content: what there is to know stands in the headers, by tus 1.0. */
export const inHeaders = { kind: 'headers' } as const

/** The bytes of a file, of whatever type; or a part of them, where one is asked for. */
export const fileBytes = { kind: 'file' } as const

/** Bytes that are taken as they come, however many. */
export interface Stream {
  readonly kind: 'stream'
  readonly type: string
}
export const stream = <T extends string>(type: T) => ({ kind: 'stream', type }) as const

/** Something that is no JSON. */
export interface Bytes {
  readonly kind: 'bytes'
  readonly type: string
}
export const bytes = <T extends string>(type: T) => ({ kind: 'bytes', type }) as const

/** Server-sent events, by their names. */
export interface Events {
  readonly kind: 'events'
  readonly events: Readonly<Record<string, TSchema>>
}

const noSchemas: ReadonlySet<string> = new Set(['nothing', 'headers', 'file', 'bytes', 'stream', 'events'])

export const isSchema = (part: TSchema | { readonly kind: string }): part is TSchema =>
  !('kind' in part && noSchemas.has(part.kind as string))

/** The type of what a part of a route holds. */
type PartOf<R, P extends keyof Route> = R extends { readonly [K in P]: infer S }
  ? S extends TSchema
    ? View<S>
    : undefined
  : undefined

type ParamsOf<R, Names extends string> = {
  readonly [N in Names]: R extends { readonly params: infer Params }
    ? N extends keyof Params
      ? Params[N] extends TSchema
        ? View<Params[N]>
        : string
      : string
    : string
}

/** What the handler of a route is given, and what it answers. */
export interface Exchange<O extends Operation, R> {
  readonly params: ParamsOf<R, ParamsIn<PathOf<O>>>
  readonly query: PartOf<R, 'query'>
  readonly body: R extends { readonly body: Bytes }
    ? Uint8Array
    : R extends { readonly body: Stream }
      ? undefined
      : PartOf<R, 'body'>
  readonly answer: PartOf<R, 'answer'>
}
