import type { ErrorObject } from 'ajv'

/** What the schemas find, said by field as one would say it to somebody who fills in a form. */

export interface Fault {
  readonly at: string
  readonly message: string
}

/** How fields are called; any other by its own word. */
const called: Readonly<Record<string, string>> = {
  name: 'A name',
  mail: 'A mail address',
  password: 'A password',
  next: 'The new password',
  note: 'A note',
  message: 'A message',
  comment: 'A message',
  reason: 'A reason',
  title: 'A title',
  department: 'A department',
  country: 'A country',
  handle: 'A handle',
  houseRules: 'The house rules',
  timeZone: 'A time zone',
  text: 'A text',
  code: 'A code',
  token: 'The link',
  seats: 'The number of seats',
  most: 'The number of people',
  domains: 'A mail domain',
  memberDomains: 'A mail domain',
  guestDomains: 'A mail domain',
  until: 'An end',
  from: 'A start',
  edits: 'The list of changes',
  addresses: 'The list of addresses',
  rows: 'The table',
  find: 'What is looked for',
  rank: 'A rank',
  language: 'A language',
}

type Words = (error: ErrorObject) => string

const plural = new Intl.PluralRules('en')
const count = (limit: unknown, one: string, many: string): string =>
  `${String(limit)} ${plural.select(Number(limit)) === 'one' ? one : many}`

/** By the keyword of the schema that was not met: what comes after the field. */
const words: Readonly<Record<string, Words>> = {
  required: () => 'is missing.',
  additionalProperties: () => 'is not known here.',
  minProperties: () => 'has to say what is to be changed.',
  maxLength: ({ params }) => `has at most ${count(params.limit, 'character', 'characters')}.`,
  minLength: ({ params }) =>
    params.limit === 1
      ? 'cannot be empty.'
      : `has at least ${count(params.limit, 'character', 'characters')}.`,
  pattern: ({ schema }) => (schema === '\\S' ? 'cannot be blank.' : 'is not written as it has to be.'),
  format: () => 'is not one that mail can be sent to.',
  cleaned: ({ message }) => `${message ?? 'cannot be kept'}.`,
  type: ({ params }) => `has to be ${kinds[String(params.type)] ?? 'of another kind'}.`,
  minimum: ({ params }) => `is at least ${String(params.limit)}.`,
  maximum: ({ params }) => `is at most ${String(params.limit)}.`,
  minItems: ({ params }) => `has at least ${count(params.limit, 'entry', 'entries')}.`,
  maxItems: ({ params }) => `has at most ${count(params.limit, 'entry', 'entries')}.`,
  uniqueItems: () => 'names something twice.',
}

const kinds: Readonly<Record<string, string>> = {
  string: 'a text',
  integer: 'a whole number',
  number: 'a number',
  boolean: 'yes or no',
  array: 'a list',
  object: 'a group of fields',
  null: 'empty',
}

const toldAtMost = 20

export function faultsIn(errors: readonly ErrorObject[]): Fault[] {
  const faults = new Map<string, Fault>()
  for (const error of errors) {
    const fault = faultOf(error)
    // Of several forms that a field may have, each says what it lacks: the field is told of once.
    if (!faults.has(fault.at)) faults.set(fault.at, fault)
    // A large request may have a fault in each of its thousands of fields.
    if (faults.size === toldAtMost) break
  }
  return [...faults.values()]
}

function faultOf(error: ErrorObject): Fault {
  const { instancePath, params, keyword } = error
  const inner = (params.missingProperty ?? params.additionalProperty) as string | undefined
  const path = [...instancePath.slice(1).split('/'), ...(inner === undefined ? [] : [inner])].filter(Boolean)
  const field = path.findLast(each => !/^\d+$/.test(each)) ?? ''
  const subject = Object.hasOwn(called, field) ? called[field] : field === '' ? 'This' : `“${field}”`
  const fault = Object.hasOwn(words, keyword) ? words[keyword]?.(error) : undefined
  return { at: path.join('.'), message: `${subject} ${fault ?? 'is none of those that can be chosen.'}` }
}
