import {
  type Static,
  type TObject,
  type TProperties,
  type TArray,
  type TOptional,
  type TSchema,
  type TUnion,
  type TUnsafe,
  Type,
} from '@sinclair/typebox'
import type { PictureId } from '#core/base/ids.ts'
import type { Rows, TableName } from '#core/state/kinds.ts'

/** Pieces that the schemas of requests and answers are made of. */

/** On one line: a title, a name, what is looked for. */
export const line = (maxLength: number, minLength = 0) =>
  Type.String({ minLength, maxLength, cleaned: 'line' })
/** As long as it takes, with line ends. */
export const text = (maxLength: number, minLength = 0) =>
  Type.String({ minLength, maxLength, cleaned: 'text' })
/** A name as people give it: not empty, not only blanks. */
export const name = Type.String({ minLength: 1, maxLength: 200, pattern: '\\S', cleaned: 'line' })
export const mail = Type.String({ format: 'email', maxLength: 254, cleaned: 'line' })
/** As it was typed: another form of it would be another password. */
export const password = Type.String({ minLength: 1, maxLength: 200 })
/** What an id names: of the core what is not told by another (a membership by its team and person), or of the server. */
export type Named =
  | Exclude<TableName, 'workspaces' | 'handles' | 'memberships' | 'invitations' | 'viewingSessions'>
  | 'pictures'
  | 'drafts'
  | 'notifications'

/** A schema of an id, with what it names. */
export type TRef<N extends Named> = TUnsafe<string> & { readonly names: N }
/** The same, of something that is made. */
export type TMade<N extends TableName> = TUnsafe<string> & { readonly makes: N }

/** A text that is itself the id of something: whether it can be one says the core. */
export const asId = <S extends TSchema, N extends TableName>(schema: S, is: N): S & { readonly is: N } => ({
  ...schema,
  is,
})

const idOf = <N extends Named>(names: N, pattern: string): TRef<N> => ({
  ...Type.Unsafe<string>(Type.String({ pattern })),
  names,
})

/** An id that stands: what it names has to be known to who asks. */
export const id = <N extends Named>(names: N) => idOf(names, '^[a-z0-9-]{1,40}$')
/** The same, or `new:x` for something that is made in the same request. */
export const ref = <N extends Named>(names: N) => idOf(names, '^(new:[a-z0-9-]{1,60}|[a-z0-9-]{1,40})$')
/** An id that somebody typed or was sent: nothing says that it names anything. */
export const address = Type.String({ pattern: '^[a-z0-9-]{1,40}$' })
/** Something that is made: its id is made by the server, and `new:x` stands for it in the same request. */
export const made = <N extends TableName>(makes: N): TMade<N> => ({
  ...Type.Unsafe<string>(Type.String({ pattern: '^new:[a-z0-9-]{1,60}$' })),
  makes,
})
export const instant = Type.Integer({ minimum: 0, maximum: 8.64e15 })
/** In an address, where all is text. */
export const wholeNumber = Type.String({ pattern: '^[0-9]{1,9}$' })
export const orNull = <T extends TSchema>(schema: T) => Type.Union([schema, Type.Null()])
export const kind = <K extends string>(value: K) => Type.Literal(value)
export const strict = { additionalProperties: false }

/** One of some words. */
export const oneOf = <const V extends readonly string[]>(
  ...words: V
): TUnion<{ -readonly [I in keyof V]: TLiteralOf<V[I]> }> =>
  Type.Union(words.map(each => kind(each))) as never
type TLiteralOf<V> = V extends string ? ReturnType<typeof kind<V>> : never

/** What an answer is made of, under the name that the description of the API gives it. */
export const view = <P extends TProperties>(title: string, fields: P): TObject<P> =>
  Type.Object(fields, { title, ...strict })
export const titled = <S extends TSchema>(title: string, schema: S): S => ({ ...schema, title })

/** The type of what fits a schema, as it is read: nothing of it is ever changed. */
export type View<S extends TSchema> = Read<Static<S>>
export type Read<T> = T extends readonly (infer Item)[]
  ? readonly Read<Item>[]
  : T extends object
    ? { readonly [K in keyof T]: Read<T[K]> }
    : T

/** The type of what fits a schema once it was checked: what names something of a kind is an id of that kind. */
export type Checked<S extends TSchema> = S extends { readonly names: infer N extends Named }
  ? IdOf<N>
  : S extends { readonly makes: infer N extends TableName } | { readonly is: infer N extends TableName }
    ? IdOf<N>
    : S extends TObject<infer P>
      ? CheckedFields<P>
      : S extends TUnion<infer Forms>
        ? Checked<Forms[number]>
        : S extends TArray<infer Item>
          ? readonly Checked<Item>[]
          : View<S>

export type CheckedFields<P extends TProperties> = {
  readonly [F in keyof P as P[F] extends TOptional<TSchema> ? never : F]: Checked<P[F]>
} & {
  readonly [F in keyof P as P[F] extends TOptional<TSchema> ? F : never]?: Checked<P[F]> | undefined
}

type IdOf<N extends Named | TableName> = N extends TableName
  ? Rows[N]['id']
  : N extends 'pictures'
    ? PictureId
    : string

export const principal = Type.Unsafe<
  `person:${string}` | `team:${string}` | `leads:${string}` | 'everyone' | 'guests' | 'anyone'
>(
  Type.String({
    pattern: '^((person|team|leads):(new:[a-z0-9-]{1,60}|[a-z0-9-]{1,40})|everyone|guests|anyone)$',
    names: 'principal',
  }),
)

export const principals = Type.Array(principal, { maxItems: 200 })
