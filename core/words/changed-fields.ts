import { isSame } from '../base/same.ts'
import type { Person, Team } from '../people/person.ts'
import type { Role } from '../people/role.ts'
import type { BoardColumn } from '../rules/column.ts'
import type { Channel } from '../rules/channel.ts'
import type { JoinLink, WelcomeSet } from '../rules/offer.ts'
import { listed } from './english.ts'

type Words<Row> = Partial<Record<keyof Row, string>>

/** What of a record was changed, told after what it is: “: the description and how people join”. */
export function changedFields<Row extends object>(before: Row, after: Row, words: Words<Row>): string {
  const changed = Object.entries<string>(words as Record<string, string>).flatMap(([field, word]) =>
    isSame(before[field as keyof Row], after[field as keyof Row]) ? [] : [word],
  )
  return changed.length === 0 ? '' : `: ${listed(changed)}`
}

export const personFields: Words<Person> = {
  mail: 'the mail address',
  handle: 'the handle',
  title: 'the title',
  department: 'the department',
  country: 'the country',
  picture: 'the picture',
}

export const teamFields: Words<Team> = {
  note: 'the description',
  picture: 'the picture',
  joining: 'how people join',
  welcomesGuests: 'whether guests can join',
  allowsPublishing: 'whether its content can be published',
  posting: 'who can post',
  addressing: 'who can address everyone',
  keptByDirectory: 'who keeps the list of its people',
}

export const roleFields: Words<Role> = {
  note: 'the description',
  addressable: 'whether its holders can be addressed together',
  seatExempt: 'whether its holders use a seat',
}

export const welcomeSetFields: Words<WelcomeSet> = {
  name: 'the name',
  note: 'the description',
  offer: 'what it gives',
}

export const joinLinkFields: Words<JoinLink> = {
  name: 'the name',
  until: 'the last day',
  domains: 'which mail addresses it accepts',
  most: 'how many people it accepts',
  offer: 'what it gives',
}

export const columnFields: Words<BoardColumn> = {
  name: 'the name',
  kind: 'the kind',
  settings: 'the settings',
  order: 'the order',
}

export const channelFields: Words<Channel> = { name: 'the name', note: 'the description' }

interface Made<Row> {
  readonly before: Row | null
  readonly after: Row | null
}

export function madeWords<Row extends { readonly name: string }>(
  what: string,
  { before, after }: Made<Row>,
  fields: Partial<Record<keyof Row, string>>,
): string {
  if (before === null) return `created the ${what} ${after?.name ?? ''}`
  return after === null
    ? `withdrew the ${what} ${before.name}`
    : `changed the ${what} ${after.name}${changedFields(before, after, fields)}`
}
