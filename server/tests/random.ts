/** The same numbers for the same seed: what fails can be looked at again. */
export interface Random {
  readonly below: (limit: number) => number
  /** One of some, of which there is at least one. */
  readonly one: <T>(some: readonly T[]) => T
}

export function randomFrom(seed: number): Random {
  let state = seed
  const next = () => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0
    return state / 2 ** 32
  }
  return {
    below: limit => Math.floor(next() * limit),
    one: some => {
      if (some.length === 0) throw new Error('nothing to choose from')
      return some[Math.floor(next() * some.length)] as (typeof some)[number]
    },
  }
}

/** As much of JSON Schema as requests are made of. */
export interface Schema {
  readonly type?: string
  readonly const?: unknown
  readonly anyOf?: readonly Schema[]
  readonly properties?: Readonly<Record<string, Schema>>
  readonly required?: readonly string[]
  readonly minProperties?: number
  readonly items?: Schema
  readonly maxItems?: number
  readonly uniqueItems?: boolean
  readonly pattern?: string
  readonly format?: string
  readonly minimum?: number
  readonly maximum?: number
  readonly minLength?: number
  readonly maxLength?: number
}

/** What values are picked from, as far as they fit. */
export interface Pool {
  readonly texts: readonly string[]
  readonly numbers: readonly number[]
}

/** Some value that fits a schema. */
export function anyOf(schema: Schema, random: Random, pool: Pool): unknown {
  if (schema.const !== undefined) return schema.const
  if (schema.anyOf !== undefined) return anyOf(random.one(schema.anyOf), random, pool)
  switch (schema.type) {
    case 'object':
      return anyObject(schema, random, pool)
    case 'array': {
      const length = Math.min(random.below(3), schema.maxItems ?? 2)
      const items = Array.from({ length }, () => anyOf(schema.items ?? {}, random, pool))
      return schema.uniqueItems === true ? [...new Set(items)] : items
    }
    case 'string':
      return random.one(pool.texts.filter(each => fits(schema, each)))
    case 'integer':
    case 'number':
      return random.one(
        pool.numbers.filter(each => each >= (schema.minimum ?? 0) && each <= (schema.maximum ?? Infinity)),
      )
    case 'boolean':
      return random.one([true, false])
    case 'null':
      return null
    default:
      throw new Error(`no value for ${JSON.stringify(schema)}`)
  }
}

function anyObject(schema: Schema, random: Random, pool: Pool): object {
  const { properties = {}, required = [], minProperties = 0 } = schema
  const names = Object.keys(properties)
  const optional = names.filter(each => !required.includes(each))
  let chosen = names.filter(each => required.includes(each) || random.one([true, false]))
  if (chosen.length < minProperties) chosen = [...chosen, random.one(optional)]
  return Object.fromEntries(chosen.map(each => [each, anyOf(properties[each] as Schema, random, pool)]))
}

function fits({ pattern, format, minLength = 0, maxLength = Infinity }: Schema, text: string): boolean {
  if (format === 'email' && !/^[a-z0-9]+@[a-z.]+$/.test(text)) return false
  if (pattern !== undefined && !new RegExp(pattern, 'u').test(text)) return false
  return text.length >= minLength && text.length <= maxLength
}
