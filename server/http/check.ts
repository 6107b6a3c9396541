import type { TSchema, Static } from '@sinclair/typebox'
import { Ajv, type AnySchema, type ErrorObject, type ValidateFunction } from 'ajv'
import { editRequest } from '#contract/edit-requests.ts'
import { changeSetRequest } from '#contract/requests.ts'
import { createBreath } from '../breath.ts'
import { isMail } from '../mail/address.ts'
import { problemOf } from '../problem-error.ts'
import { addCleaning } from './cleaning.ts'
import { faultsIn } from './fault-words.ts'

const ajv = new Ajv({
  allErrors: true,
  verbose: true,
  discriminator: true,
  removeAdditional: false,
  coerceTypes: false,
  inlineRefs: false,
})
ajv.addFormat('email', isMail)
addCleaning(ajv)
// What an id names, or is made for: read by services, of no meaning to the form of a request.
for (const keyword of ['names', 'makes', 'is']) ajv.addKeyword({ keyword, schemaType: 'string' })

const compiled = new WeakMap<TSchema, ValidateFunction>()

// Of all that hold changes, one validator checks these: it takes most of a second to be made.
ajv.addSchema(editRequest, 'edit')
const withEditsApart = (schema: TSchema): AnySchema =>
  JSON.parse(
    JSON.stringify(schema, (_, part: unknown) => (part === editRequest ? { $ref: 'edit' } : part)),
  ) as AnySchema

function validatorOf(schema: TSchema): ValidateFunction {
  const validate = compiled.get(schema) ?? ajv.compile(withEditsApart(schema))
  compiled.set(schema, validate)
  return validate
}

/** Nobody's request waits for the largest one to be made. */
export const makeReady = (): void => void validatorOf(changeSetRequest)({ edits: [{ kind: '' }] })

/** Returns the value as its schema's type, or throws the problem that names every fault. */
export function checked<S extends TSchema>(schema: S, value: unknown): Static<S> {
  const validate = validatorOf(schema)
  if (validate(value)) return value
  throw problemOf('bad-input', { faults: faultsIn(validate.errors ?? []) })
}

const itemsAtOnce = 200

/** The same of what holds a list that may be long: of that some are checked at a time, and others are let in between. */
export async function checkedInParts<S extends TSchema>(
  schema: S,
  value: unknown,
  list: 'edits' | 'rows',
): Promise<Static<S>> {
  const validate = validatorOf(schema)
  const items = (value as Partial<Record<typeof list, unknown>> | undefined)?.[list]
  const { maxItems } = (schema.properties as Record<typeof list, { maxItems: number }>)[list]
  if (!Array.isArray(items) || items.length <= itemsAtOnce || items.length > maxItems)
    return checked(schema, value)
  const breathe = createBreath()
  const all: unknown[] = []
  for (let from = 0; ; from += itemsAtOnce) {
    const part: object = { ...(value as object), [list]: items.slice(from, from + itemsAtOnce) }
    if (!validate(part))
      throw problemOf('bad-input', { faults: faultsIn(further(validate.errors, list, from)) })
    all.push(...(part as Record<typeof list, unknown[]>)[list])
    if (all.length === items.length) return { ...part, [list]: all }
    await breathe()
  }
}

/** Faults of a part of a list, told of the whole one. */
const further = (errors: readonly ErrorObject[] | null | undefined, list: string, by: number) =>
  (errors ?? []).map(error => ({
    ...error,
    instancePath: error.instancePath.replace(
      new RegExp(`^/${list}/(\\d+)`, 'u'),
      (_, index: string) => `/${list}/${Number(index) + by}`,
    ),
  }))
