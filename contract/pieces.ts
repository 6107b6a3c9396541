import { type TSchema, Type } from '@sinclair/typebox'

/** Pieces that the schemas of requests are made of. */

export const text = (maxLength: number, minLength = 0) => Type.String({ minLength, maxLength })
/** A name as people give it: not empty, not only blanks. */
export const name = Type.String({ minLength: 1, maxLength: 200, pattern: '\\S' })
export const mail = Type.String({ format: 'email', maxLength: 254 })
export const password = text(200, 1)
/** An id that stands, or `new:x` for something made in the same request and referred to there. */
export const id = Type.String({ pattern: '^(new:)?[a-z0-9-]{1,40}$' })
export const instant = Type.Integer({ minimum: 0, maximum: 8.64e15 })
export const orNull = <T extends TSchema>(schema: T) => Type.Union([schema, Type.Null()])
export const kind = <K extends string>(value: K) => Type.Literal(value)
export const strict = { additionalProperties: false }
