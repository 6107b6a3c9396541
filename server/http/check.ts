import type { TSchema, Static } from '@sinclair/typebox'
import { Ajv, type AnySchema, type ValidateFunction } from 'ajv'
import { editRequest } from '#contract/edit-requests.ts'
import { changeSetRequest } from '#contract/requests.ts'
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
for (const keyword of ['names', 'makes']) ajv.addKeyword({ keyword, schemaType: 'string' })

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
