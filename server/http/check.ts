import type { TSchema, Static } from '@sinclair/typebox'
import { Ajv, type ValidateFunction } from 'ajv'
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
})
ajv.addFormat('email', isMail)
addCleaning(ajv)
// What an id names, or is made for: read by services, of no meaning to the form of a request.
for (const keyword of ['names', 'makes']) ajv.addKeyword({ keyword, schemaType: 'string' })

const compiled = new WeakMap<TSchema, ValidateFunction>()

/** Returns the value as its schema's type, or throws the problem that names every fault. */
export function checked<S extends TSchema>(schema: S, value: unknown): Static<S> {
  const validate = compiled.get(schema) ?? ajv.compile(schema)
  compiled.set(schema, validate)
  if (validate(value)) return value
  throw problemOf('bad-input', { faults: faultsIn(validate.errors ?? []) })
}
