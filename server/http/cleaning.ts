import type { Ajv, SchemaValidateFunction } from 'ajv'
import type { DataValidationCxt } from 'ajv/dist/types/index.js'

/**
 * Strings as they are kept: in one form of Unicode, with nothing in them that is not seen or that turns what stands
 * around it. Asked of every text by its schema (`cleaned`), so that nothing comes in another way.
 */

/** Halves of a sign, which no file and no other program can hold. */
const half = /[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/
const control = /[\u0000-\u0008\u000b-\u001f\u007f-\u009f\ufeff\ufff9-\ufffb]/
const lineEnd = /[\t\n\u2028\u2029]/
/** Whatever is written after one of these stands the other way round, or only seems to. */
const turning = /[\u202a-\u202e\u2066-\u2069]/

export type Cleaned = 'line' | 'text'

/** What is wrong with a text; nothing if it can be kept. */
export function faultIn(text: string, as: Cleaned): string | undefined {
  if (half.test(text)) return 'has a broken character in it'
  if (control.test(text)) return 'has a control character in it'
  if (as === 'line' && lineEnd.test(text)) return 'has to stand on one line'
  if (as === 'line' && turning.test(text)) return 'has a character in it that turns the direction of writing'
  return undefined
}

export const cleaned = (text: string): string => text.replace(/\r\n?/g, '\n').normalize('NFC')

const validate: SchemaValidateFunction = (...given) => {
  const [as, data, , place] = given as [Cleaned, string, unknown, DataValidationCxt | undefined]
  const clean = cleaned(data)
  const fault = faultIn(clean, as)
  validate.errors = fault === undefined ? [] : [{ keyword: 'cleaned', message: fault, params: {} }]
  if (fault === undefined && place !== undefined)
    (place.parentData as Record<string | number, unknown>)[place.parentDataProperty as string] = clean
  return fault === undefined
}

export const addCleaning = (ajv: Ajv): void =>
  void ajv.addKeyword({
    keyword: 'cleaned',
    type: 'string',
    schemaType: 'string',
    modifying: true,
    errors: true,
    validate,
  })
