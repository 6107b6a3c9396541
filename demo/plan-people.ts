import type { Instant } from '#core/base/instant.ts'
import { daysAgo, idOf, inDays, personId } from './ids.ts'
import { edit, type Plan } from './plan.ts'
import { type DemoPerson, mailOf, people } from './scenario/people.ts'

/** Everybody is invited; half a day later those who came in accept. */
export const planPeople = (now: Instant): Plan[] =>
  people.flatMap(person => {
    const invited = { day: person.day, author: person.by, edits: [inviting(person, now)] }
    return person.isInvited
      ? [invited]
      : [invited, { day: person.day - 0.5, author: person.key, edits: [accepting(person)] }]
  })

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
    until: inDays(now, person.until),
    linkUntil: daysAgo(now, person.day - 14),
    message: person.message ?? '',
  })

const accepting = (person: DemoPerson) =>
  edit('invitation.accept', {
    person: personId(person.key),
    account: idOf('account', person.key),
    name: person.name,
    folder: idOf('node', 'private', person.key),
    grant: idOf('grant', 'private', person.key),
  })
