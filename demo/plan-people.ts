import type { Instant } from '#core/base/instant.ts'
import { freeHandle } from '#core/changes/edits/handle.ts'
import { emptyState } from '#core/records/all.ts'
import { daysAgo, idOf, inDays, personId } from './ids.ts'
import { edit, type Plan } from './plan.ts'
import { type DemoPerson, founder, mailOf, people, profiles } from './scenario/people.ts'

/** Everybody is invited; half a day later those who came in accept and say what they do. Some leave again. */
export const planPeople = (now: Instant): Plan[] => [
  { day: 269, author: founder.key, edits: [describing(founder.key, founder.title)] },
  ...people.flatMap(person => [
    { day: person.day, author: person.by, edits: [inviting(person, now)] },
    ...(person.isInvited ? [] : coming(person)),
    ...leaving(person),
  ]),
]

function coming(person: DemoPerson): Plan[] {
  const { key, title, day } = person
  const accepted = { day: day - 0.5, author: key, edits: [accepting(person)] }
  return title === undefined
    ? [accepted]
    : [accepted, { day: day - 0.6, author: key, edits: [describing(key, title)] }]
}

function leaving({ key, suspended, removed }: DemoPerson): Plan[] {
  const person = personId(key)
  return [
    ...(suspended === undefined
      ? []
      : [{ ...suspended, author: suspended.by, edits: [edit('person.suspend', { person })] }]),
    ...(removed === undefined
      ? []
      : [{ ...removed, author: removed.by, edits: [edit('person.remove', { person, contact: null })] }]),
  ]
}

const describing = (key: string, title: string) =>
  edit('person.describe', { person: personId(key), title, ...profiles[key] })

/** As the core makes it of a name that nobody else has. */
export const handleOf = (name: string): string => freeHandle(emptyState, name)

const inviting = (person: DemoPerson, now: Instant) =>
  edit('person.invite', {
    person: personId(person.key),
    invitation: idOf('invitation', person.key),
    holding: idOf('holding', person.key),
    mail: mailOf(person.key),
    name: person.name,
    as: person.as,
    role: person.role ?? null,
    scope: { over: 'workspace' },
    from: null,
    until: inDays(now, person.until),
    profile: {},
    mailed: true,
    welcome: person.welcome === undefined ? null : idOf('welcome', person.welcome),
    linkUntil: daysAgo(now, person.day - 14),
    message: person.message ?? '',
  })

const accepting = (person: DemoPerson) =>
  edit('invitation.accept', {
    person: personId(person.key),
    account: idOf('account', person.key),
    name: person.name,
    handle: handleOf(person.name),
    agrees: true,
    folder: idOf('node', 'private', person.key),
    grant: idOf('grant', 'private', person.key),
  })
