import { isSame } from '../base/same.ts'
import type { ChangeOf } from '../changes/conduct.ts'
import type { Membership, Person, Team } from '../people/person.ts'
import type { Channel } from '../rules/channel.ts'
import { changedFields, channelFields, personFields, teamFields } from './changed-fields.ts'
import { type EventNaming, lasting, personNamed } from './audit-event.ts'

/** What was done about people and teams, told after its author's name. */

export function membershipWords({ before, after }: ChangeOf<'memberships'>, naming: EventNaming): string {
  const row = (after ?? before) as Membership
  const who = personNamed(row.person, naming)
  const team = naming.team(row.team) ?? 'a deleted team'
  if (after === null) return `removed ${who} from ${team}`
  if (isSame(before, after)) return `started the membership of ${who} in ${team}`
  if (before === null)
    return `added ${who} to ${team}${after.lead ? ' as a lead' : ''}${lasting(after, naming)}`
  if (before.lead !== after.lead)
    return after.lead ? `made ${who} a lead of ${team}` : `removed ${who} as a lead of ${team}`
  return after.until === null
    ? `removed the end of the membership of ${who} in ${team}`
    : `changed the end of the membership of ${who} in ${team}:${lasting(after, naming)}`
}

export function personWords({ id, before, after }: ChangeOf<'persons'>, naming: EventNaming): string {
  const row = (after ?? before) as Person
  const who = naming.person(id) ?? (row.name || row.mail)
  if (before === null) return `invited ${who} as a ${row.kind}`
  if (after === null) return `withdrew the invitation of ${who}`
  if (isSame(before, after)) return passingWords(after, who)
  if (before.status !== after.status) return statusWords(before, after, who)
  if (before.kind !== after.kind) return `made ${who} a ${after.kind}`
  if (before.contact !== after.contact) return `changed the contact of ${who}`
  return timeWords(before, after, { who, naming }) ?? profileWords(before, after, who)
}

const profileWords = (before: Person, after: Person, who: string): string =>
  before.name !== after.name && before.name !== ''
    ? `changed the name of ${before.name} to ${after.name}`
    : `changed the profile of ${who}${changedFields(before, after, personFields)}`

function timeWords(
  before: Person,
  after: Person,
  { who, naming }: { who: string; naming: EventNaming },
): string | undefined {
  if (before.from !== after.from)
    return `changed when the access of ${who} starts: ${naming.since(after.from)}`
  if (before.until === after.until) return undefined
  return after.until === null
    ? `removed the end of the access of ${who}`
    : `changed when the access of ${who} ends: ${naming.through(after.until)}`
}

/** A start or an end that passed by itself. */
function passingWords({ from, until }: Person, who: string): string {
  if (until === null) return `started the access of ${who}`
  return from === null ? `ended the access of ${who}` : `started or ended the access of ${who}`
}

function statusWords(before: Person, after: Person, who: string): string {
  if (before.status === 'invited') return 'joined the workspace'
  if (after.status === 'removed') return `removed ${who} from the workspace`
  return after.status === 'suspended' ? `suspended ${who}` : `reactivated ${who}`
}

export function teamWords({ before, after }: ChangeOf<'teams'>): string {
  if (before === null) return `created the team ${(after as Team).name}`
  if (after === null)
    return before.archived ? `deleted the team ${before.name} for good` : `removed the team ${before.name}`
  if (before.archived !== after.archived)
    return `${after.archived ? 'archived' : 'restored'} the team ${after.name}`
  return before.name === after.name
    ? `changed the team ${after.name}${changedFields(before, after, teamFields)}`
    : `renamed the team ${before.name} to ${after.name}`
}

export function channelWords({ before, after }: ChangeOf<'channels'>, naming: EventNaming): string {
  const row = (after ?? before) as Channel
  const isHidden = [before, after].some(each => each !== null && each.only !== null)
  const channel = `${isHidden ? 'a restricted channel' : `the channel ${row.name}`} of ${naming.team(row.team) ?? 'a team'}`
  if (before === null) return `created ${channel}`
  if (after === null) return `removed ${channel}`
  if (before.archived !== after.archived) return `${after.archived ? 'archived' : 'restored'} ${channel}`
  return isSame(before.only, after.only)
    ? `changed ${channel}${isHidden ? '' : changedFields(before, after, channelFields)}`
    : `changed who is in ${channel}`
}
