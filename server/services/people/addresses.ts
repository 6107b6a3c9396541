import { distance } from 'fastest-levenshtein'
import { isMail } from '../../mail/address.ts'
import type { AddressView } from '#contract/views/onboarding.ts'
import type { AddressesRequest } from '#contract/requests.ts'
import { rowsBy } from '#core/base/collection.ts'
import { peopleOf } from '#core/access/subject.ts'
import { unwelcomeDomain } from '#core/changes/edits/invite.ts'
import type { Person } from '#core/people/person.ts'
import type { Snapshot } from '#core/state/state.ts'
import { createBreath } from '../../breath.ts'
import { problemOf } from '../../problem-error.ts'
import { type Asker, asks } from '../viewer/asker.ts'

/** Who brings people in, or keeps everybody's profiles, may know who is and was here. */
export const bringsIn = (asker: Asker): boolean =>
  asks(asker, 'invite members') || asks(asker, 'invite guests') || asks(asker, 'edit profiles')

/** Judges each address of a list: who is new, who is here in some way, what cannot be an address or looks like a slip. */
export async function addressesView(
  asker: Asker,
  { as, addresses }: AddressesRequest,
): Promise<AddressView[]> {
  if (!bringsIn(asker)) throw problemOf('not-found')
  const known = domainsIn(asker.snapshot)
  const seen = new Set<string>()
  const breathe = createBreath()
  const judged: AddressView[] = []
  for (const { mail: typed, name } of addresses) {
    await breathe()
    const mail = typed.trim().normalize('NFC').toLowerCase()
    const isTwice = seen.has(mail)
    seen.add(mail)
    const person = personBy(asker.snapshot, mail)
    judged.push({
      mail,
      name: name.trim(),
      verdict: isTwice ? 'twice in the list' : verdictOn(asker.snapshot, { mail, as, person }),
      meant: person === undefined && isMail(mail) ? meantBy(mail, known) : null,
      isOfOtherScript: isMail(mail) && /[^\x21-\x7e].*@/.test(mail),
      person: person === undefined || person.status === 'removed' ? null : person.id,
    })
  }
  return judged
}

interface Judged {
  readonly mail: string
  readonly as: Person['kind']
  readonly person: Person | undefined
}

function verdictOn({ state }: Snapshot, { mail, as, person }: Judged): AddressView['verdict'] {
  if (!isMail(mail)) return 'not an address'
  if (person !== undefined && person.status !== 'removed') return verdicts[person.status]
  if (unwelcomeDomain(state, { mail, as }) !== undefined) return 'domain not welcome'
  return person === undefined ? 'new' : 'removed earlier'
}

const verdicts = {
  active: 'here already',
  invited: 'invited already',
  suspended: 'suspended',
} as const

/** Whoever has an address; of several that had it one after the other, the one who is here. */
export function personBy({ state }: Snapshot, mail: string): Person | undefined {
  const people = rowsBy(state.persons, 'mail', mail)
  return people.find(person => person.status !== 'removed') ?? people[0]
}

/** The mail domains in use, each with how many people have it. */
function domainsIn(snapshot: Snapshot): Map<string, number> {
  const counts = new Map<string, number>()
  for (const { mail } of peopleOf(snapshot)) {
    const domain = domainOf(mail.toLowerCase())
    counts.set(domain, (counts.get(domain) ?? 0) + 1)
  }
  return counts
}

const domainOf = (mail: string) => mail.slice(mail.lastIndexOf('@') + 1)

/** A domain that nobody has and that is one or two slips from one which several have was probably meant to be that. */
function meantBy(mail: string, known: ReadonlyMap<string, number>): string | null {
  const domain = domainOf(mail)
  if (known.has(domain)) return null
  const near = [...known].find(([each, count]) => count > 1 && isSlipOf(domain, each))
  return near === undefined ? null : `${mail.slice(0, mail.lastIndexOf('@'))}@${near[0]}`
}

/** At most two letters wrong, missing or too many. */
function isSlipOf(a: string, b: string): boolean {
  const slips = distance(a, b)
  return slips > 0 && slips <= 2
}
