import type { ChangeOf } from '../changes/conduct.ts'
import type { RequestFor, Wanted } from '../people/request.ts'
import { type EventNaming, personNamed } from './audit-event.ts'
import { privilegeWords } from './privilege.ts'

/** What was done about requests, told after its author's name. */
export function requestWords({ before, after }: ChangeOf<'requests'>, naming: EventNaming): string {
  const { person, wants } = (after ?? before) as RequestFor
  const wanted = wantedInWords(wants, naming)
  if (before === null) return `requested ${wanted}`
  const request = `the request of ${personNamed(person, naming)} ${wants.of === 'team' ? wanted : `for ${wanted}`}`
  if (after === null) return `closed ${request}`
  return after.declined === null ? `reopened ${request}` : `declined ${request}`
}

/** After “requests”; a place that is hidden from who asked is told like one that is not there. */
export function wantedInWords(
  wants: Wanted,
  naming: Pick<EventNaming, 'team' | 'role' | 'level' | 'where'>,
): string {
  switch (wants.of) {
    case 'team':
      return `to join ${naming.team(wants.team) ?? 'a deleted team'}`
    case 'role':
      return `the role ${naming.role(wants.role)}`
    case 'privilege':
      return `a role that may ${privilegeWords[wants.privilege]}`
    case 'access':
      return `${naming.level(wants.actions)} on ${naming.where(wants.node) ?? 'a place, by its address'}`
  }
}
