import { isSame } from '../base/same.ts'
import type { ChangeOf } from '../changes/conduct.ts'
import type { Workspace } from '../rules/workspace.ts'
import { counted, listed, listedOr, numberWords } from './english.ts'
import type { EventNaming } from './audit-event.ts'
import { sizeWords } from './sizes.ts'

/** What was set for the whole workspace, told after its author's name. */
export function workspaceWords({ before, after }: ChangeOf<'workspaces'>, naming: EventNaming): string {
  if (before === null || after === null) return 'created the workspace'
  const acts = settings.flatMap(({ field, words }) =>
    isSame(before[field], after[field]) ? [] : [words(after, naming, before)],
  )
  return acts.filter(Boolean).join(', ') || 'changed the settings of the workspace'
}

interface Setting {
  readonly field: keyof Workspace
  /** Empty where another setting tells it. */
  readonly words: (after: Workspace, naming: EventNaming, before: Workspace) => string
}

const domainWords = (domains: readonly string[]) =>
  domains.length === 0 ? 'with any address' : `with an address of ${listedOr(domains)}`

const settings: readonly Setting[] = [
  { field: 'name', words: ({ name }) => `renamed the workspace to ${name}` },
  { field: 'timeZone', words: ({ timeZone }) => `set the time zone to ${timeZone}` },
  { field: 'picture', words: () => 'changed the picture of the workspace' },
  {
    field: 'guestCeiling',
    words: ({ guestCeiling }, { level }) => `limited guests to ${level(guestCeiling)}`,
  },
  {
    field: 'allowsPublishing',
    words: ({ allowsPublishing }) => `turned publishing ${allowsPublishing ? 'on' : 'off'}`,
  },
  {
    field: 'defaultRole',
    words: ({ defaultRole }, { role }) => `made ${role(defaultRole)} the role of new members`,
  },
  {
    field: 'seats',
    words: ({ seats }) =>
      seats === null ? 'removed the limit on seats' : `set the number of seats to ${numberWords(seats)}`,
  },
  {
    field: 'seatsNext',
    words: ({ seatsNext, seats }, { since }, before) => {
      if (seatsNext === null) return before.seats === seats ? 'cancelled the planned number of seats' : ''
      return `planned ${seatsNext.seats === null ? 'any number of seats' : counted(seatsNext.seats, 'seat', 'seats')}, starting ${since(seatsNext.from)}`
    },
  },
  {
    field: 'suspendedHoldSeats',
    words: ({ suspendedHoldSeats }) =>
      suspendedHoldSeats ? 'let suspended people keep their seats' : 'freed the seats of suspended people',
  },
  {
    field: 'memberDomains',
    words: ({ memberDomains }) => `allowed members ${domainWords(memberDomains)}`,
  },
  { field: 'guestDomains', words: ({ guestDomains }) => `allowed guests ${domainWords(guestDomains)}` },
  {
    field: 'invitationDays',
    words: ({ invitationDays }) => `set invitations to work for ${counted(invitationDays, 'day', 'days')}`,
  },
  {
    field: 'houseRules',
    words: ({ houseRules }) => (houseRules === '' ? 'removed the house rules' : 'changed the house rules'),
  },
  {
    field: 'twoStepFor',
    words: ({ twoStepFor }, { role }) =>
      twoStepFor.length === 0
        ? 'stopped requiring two-step sign-in'
        : `required two-step sign-in for ${listed(twoStepFor.map(role))}`,
  },
  {
    field: 'signInDays',
    words: ({ signInDays }) => `set sign-ins to end after ${counted(signInDays, 'day', 'days')}`,
  },
  {
    field: 'idleHours',
    words: ({ idleHours }) => `set sign-ins to end after ${counted(idleHours, 'hour', 'hours')} without use`,
  },
  { field: 'largestFile', words: ({ largestFile }) => `limited files to ${sizeWords(largestFile)} each` },
  {
    field: 'storageQuota',
    words: ({ storageQuota }) =>
      storageQuota === null
        ? 'removed the storage quota'
        : `set the storage quota to ${sizeWords(storageQuota)}`,
  },
  {
    field: 'versionsKept',
    words: ({ versionsKept }) => `set ${counted(versionsKept, 'version', 'versions')} of a file to be kept`,
  },
  {
    field: 'marksPreviews',
    words: ({ marksPreviews }) =>
      marksPreviews ? 'had previews marked with their reader' : 'stopped marking previews',
  },
]
