import fc from 'fast-check'

/** Random requests from JSON Schemas: most fit, and some parts of them do not. */

interface Schema {
  readonly type?: string
  readonly const?: unknown
  readonly pattern?: string
  readonly names?: string
  readonly makes?: string
  readonly format?: string
  readonly minimum?: number
  readonly maximum?: number
  readonly minLength?: number
  readonly maxLength?: number
  readonly maxItems?: number
  readonly properties?: Readonly<Record<string, Schema>>
  readonly required?: readonly string[]
  readonly items?: Schema
  readonly anyOf?: readonly Schema[]
  readonly oneOf?: readonly Schema[]
}

/** What nobody should send: each once in a while in the place of anything. */
const odd = fc.constantFrom<unknown>(
  null,
  '',
  ' ',
  -1,
  0,
  1.5,
  1e300,
  9_007_199_254_740_993,
  8.64e15,
  8.64e15 + 1,
  '\u0000',
  '\ud800',
  'a\u202eb',
  '__proto__',
  'constructor',
  '../../etc/passwd',
  "' OR 1=1 --",
  '%',
  '%E0%A4%A',
  [],
  {},
  [[]],
  true,
  'x'.repeat(3000),
)

/** Values for a schema; ids are such as are there, by what they name, or none's. */
export function valueFor(
  schema: Schema,
  ids: Readonly<Record<string, readonly string[]>>,
): fc.Arbitrary<unknown> {
  const fitting = fittingFor(schema, ids)
  return fc.oneof({ weight: 40, arbitrary: fitting }, { weight: 1, arbitrary: odd })
}

function fittingFor(schema: Schema, ids: Readonly<Record<string, readonly string[]>>): fc.Arbitrary<unknown> {
  if ('const' in schema) return fc.constant(schema.const)
  const forms = schema.anyOf ?? schema.oneOf
  if (forms !== undefined) return fc.oneof(...forms.map(each => valueFor(each, ids)))
  if (schema.makes !== undefined) return fc.constantFrom('new:a', 'new:b')
  if (schema.names !== undefined) return namedBy(schema.names, ids)
  switch (schema.type) {
    case 'object':
      return objectFor(schema, ids)
    case 'array':
      return fc.array(valueFor(schema.items ?? {}, ids), { maxLength: Math.min(schema.maxItems ?? 3, 3) })
    case 'boolean':
      return fc.boolean()
    case 'integer':
    case 'number':
      return fc.oneof(
        fc.integer({ min: schema.minimum ?? -10, max: Math.min(schema.maximum ?? 1e6, 2e9) }),
        fc.constantFrom(schema.minimum ?? 0, schema.maximum ?? 8.64e15),
      )
    case 'null':
      return fc.constant(null)
    default:
      return stringFor(schema)
  }
}

const objectFor = (
  { properties = {}, required = [] }: Schema,
  ids: Readonly<Record<string, readonly string[]>>,
): fc.Arbitrary<unknown> =>
  fc.record(
    Object.fromEntries(Object.entries(properties).map(([field, each]) => [field, valueFor(each, ids)])),
    { requiredKeys: [...required] },
  )

function namedBy(names: string, ids: Readonly<Record<string, readonly string[]>>): fc.Arbitrary<string> {
  const known = (of: string) => fc.constantFrom(...(ids[of] ?? []), 'nothing', 'new:a')
  if (names !== 'principal') return known(names)
  return fc.oneof(
    fc.constantFrom('everyone', 'guests', 'anyone'),
    known('persons').map(id => `person:${id}`),
    known('teams').map(id => `team:${id}`),
    known('teams').map(id => `leads:${id}`),
  )
}

function stringFor({ pattern, format, minLength = 0, maxLength = 40 }: Schema): fc.Arbitrary<string> {
  if (format === 'email') return fc.constantFrom('a@test.example', 'b@test.example', 'jörg@küste.example')
  const within = { minLength, maxLength: Math.min(maxLength, 40) }
  if (pattern === undefined || pattern === '\\S')
    return fc.oneof(fc.string({ ...within, unit: 'grapheme' }), fc.constantFrom('Name', 'x', 'Europe/London'))
  return fc.oneof(fc.stringMatching(new RegExp(pattern)), fc.string(within))
}
