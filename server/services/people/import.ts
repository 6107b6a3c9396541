import { dayOf } from '#contract/dates.ts'
import { asWritten } from '#contract/cells.ts'
import type { EditRequest, OfferRequest } from '#contract/edit-requests.ts'
import { invitingEdits } from '#contract/inviting.ts'
import type { AddressView, ImportedRowView } from '#contract/views/onboarding.ts'
import type { ImportRequest, ImportRow } from '#contract/requests.ts'
import type { ImportField } from '#contract/import-fields.ts'
import { rowOf, rowsBy } from '#core/base/collection.ts'
import type { HandleId, RoleId } from '#core/base/ids.ts'
import { seatsTaken } from '#core/access/seats.ts'
import { freeHandle } from '#core/changes/edits/handle.ts'
import { lacksDescribing, lacksOver } from '#core/changes/edits/person.ts'
import type { Person } from '#core/people/person.ts'
import { counted, nounFor, numberWords } from '#core/words/english.ts'
import { ownerRole } from '#core/people/role.ts'
import { type State, workspaceOf } from '#core/state/state.ts'
import type { Parts } from '../../parts.ts'
import { createBreath } from '../../breath.ts'
import { problemOf } from '../../problem-error.ts'
import { addressesView, bringsIn, personBy } from './addresses.ts'
import type { Asker } from '../viewer/asker.ts'
import { readCells, type Read, type Reading, readingOf } from './import-cells.ts'

/** What a person is called and does stands on one line; a cell may be broken, and one bad one sinks no table. */
const inOneLine = (cell: string): string =>
  cell
    .replace(/\p{Cs}/gu, '')
    .replace(/\s*\p{Cc}+\s*/gu, ' ')
    .trim()

/**
 * Judges each row of a table and says what it would do, as edits to be sent as change sets. Newcomers are invited;
 * of those who are here only what differs is changed, and an empty cell changes nothing: the same table
 * again does nothing. Teams and roles are added, never taken.
 */
export async function importView(
  parts: Parts,
  asker: Asker,
  { rows, offer, welcome }: ImportRequest,
): Promise<ImportedRowView[]> {
  if (!bringsIn(asker)) throw problemOf('not-found')
  const reading = readingOf(asker, { offer, welcome, now: parts.clock() })
  const cells = rows.map(cleaned)
  const verdicts = await addressesView(asker, {
    as: offer.as,
    addresses: cells.map(({ mail = '', name = '' }) => ({ mail, name })),
  })
  const breathe = createBreath()
  const judged: ImportedRowView[] = []
  for (const [index, row] of cells.entries()) {
    await breathe()
    judged.push(rowJudged(reading, { row, index, verdict: verdicts[index]?.verdict ?? 'not an address' }))
  }
  return withSeats(asker, judged)
}

interface Judging {
  readonly row: ImportRow
  readonly index: number
  readonly verdict: AddressView['verdict']
}

function rowJudged(reading: Reading, { row, index, verdict }: Judging): ImportedRowView {
  if (verdict === 'twice in the list') return wrong('An earlier row has the same address.')
  if (verdict === 'not an address')
    return wrong(row.mail === undefined ? 'There is no address.' : `“${row.mail}” is not an address.`)
  const mail = (row.mail ?? '').toLowerCase()
  const person = personBy(reading.asker.snapshot, mail)
  return person === undefined || person.status === 'removed'
    ? newcomer(reading, { row, mail, index, wasHere: person !== undefined })
    : known(reading, row, person)
}

/** Where there are not enough seats for all newcomers of a table, none of them comes in: a part would be chance. */
function withSeats({ snapshot }: Asker, judged: readonly ImportedRowView[]): ImportedRowView[] {
  const { seats } = workspaceOf(snapshot.state)
  const needed = judged.filter(({ edits }) => takesSeatBy(snapshot.state, edits)).length
  const free = seats === null ? Number.POSITIVE_INFINITY : Math.max(0, seats - seatsTaken(snapshot))
  if (needed <= free) return [...judged]
  const says = `${counted(needed, 'seat is', 'seats are')} needed, ${numberWords(free)} ${nounFor(free, 'is', 'are')} free, so nobody is invited. Remove rows, invite people as guests, or get more seats.`
  return judged.map(each => (takesSeatBy(snapshot.state, each.edits) ? wrong(says) : each))
}

function takesSeatBy(state: State, edits: readonly EditRequest[]): boolean {
  const [invite] = edits
  if (invite?.kind !== 'person.invite' || invite.as === 'guest') return false
  const roles = [
    invite.role ?? workspaceOf(state).defaultRole,
    ...edits.flatMap(edit => (edit.kind === 'role.assign' ? [edit.role] : [])),
  ]
  return roles.some(role => rowOf(state.roles, role as RoleId)?.seatExempt !== true)
}

const wrong = (...says: readonly string[]): ImportedRowView => ({ verdict: 'wrong', says, edits: [] })

function cleaned(row: ImportRow): ImportRow {
  const cells = Object.entries(row).map(([field, cell]) => [field, inOneLine(asWritten(cell))] as const)
  return Object.fromEntries(cells.filter(([, cell]) => cell !== ''))
}

interface Newcomer {
  readonly row: ImportRow
  readonly mail: string
  readonly index: number
  readonly wasHere: boolean
}

function newcomer(reading: Reading, { row, mail, index, wasHere }: Newcomer): ImportedRowView {
  const read = readCells(reading, row)
  const handle = row.handle ?? handleFor(reading, row, mail)
  const taken = handleFault(reading, handle)
  const offer = offerFor(reading.offer, read)
  const faults = [...read.faults, ...(taken === undefined ? [] : [taken])]
  if (offer.as === 'guest' && read.roles.length > 0) faults.push(guestsHoldNone)
  if (faults.length > 0) return wrong(...faults)
  reading.taken.add(handle)
  const [invite, ...others] = invitingEdits(offer, {
    person: `new:r${index}`,
    mail,
    name: row.name ?? '',
    welcome: reading.welcome,
  })
  if (invite?.kind !== 'person.invite') return wrong('This row cannot be imported.')
  const profile = { handle, ...fieldsOf(row, ['title', 'department', 'country']) }
  const how = wasHere ? 'Is invited again' : 'Is invited'
  return {
    verdict: 'new',
    says: [
      `${how} as a ${offer.as}, @${handle}.`,
      ...read.roles.map(role => `Gets the role ${role.name}.`),
      ...read.teams.map(team => `Joins ${team.name}.`),
    ],
    edits: [
      { ...invite, profile },
      ...others,
      ...read.roles.slice(1).map(role => roleGiven(role.id, invite.person)),
    ],
  }
}

const guestsHoldNone = 'A guest can hold no other role than Guest.'

/** What the row says comes before what newcomers get besides; teams are added to one another. */
const offerFor = (
  offer: OfferRequest,
  { as = offer.as, roles: [role], teams, until }: Read,
): OfferRequest => ({
  ...offer,
  as,
  role: as === 'guest' ? null : (role?.id ?? offer.role),
  teams: [...new Set([...offer.teams, ...teams.map(team => team.id)])],
  until: until ?? offer.until,
})

const handleFor = ({ asker, taken }: Reading, { name }: ImportRow, mail: string): string =>
  freeHandle(asker.snapshot.state, name ?? mail.split('@')[0] ?? '', id => taken.has(id))

function handleFault({ asker, taken }: Reading, handle: string): string | undefined {
  if (!/^[a-z0-9][a-z0-9._-]{0,28}[a-z0-9]$/.test(handle)) return `“${handle}” is not a handle.`
  return taken.has(handle) || rowOf(asker.snapshot.state.handles, handle as HandleId) !== undefined
    ? `Somebody else has, or had, the handle ${handle}.`
    : undefined
}

const fieldsOf = <F extends ImportField>(row: ImportRow, fields: readonly F[]) =>
  Object.fromEntries(fields.flatMap(field => (row[field] === undefined ? [] : [[field, row[field]]]))) as {
    [K in F]?: string
  }

/** What a row changes about somebody who is here, or invited. */
function known(reading: Reading, row: ImportRow, person: Person): ImportedRowView {
  const read = readCells(reading, row, person)
  const changes = [
    ...profileChange(reading, row, person),
    ...teamChanges(read, person),
    ...roleChanges(reading, read, person),
    ...endChange(reading, read, person),
  ]
  const faults = [...read.faults, ...changes.flatMap(each => each.fault ?? [])]
  if (read.as !== undefined && read.as !== person.kind)
    faults.push(`Is a ${person.kind}. Turn people into a ${read.as} one by one.`)
  if (faults.length > 0) return wrong(...faults)
  if (row.handle !== undefined) reading.taken.add(row.handle)
  return {
    verdict: changes.length === 0 ? 'as it is' : 'changes',
    says: [...(person.status === 'suspended' ? ['Stays suspended.'] : []), ...changes.map(each => each.says)],
    edits: changes.flatMap(each => each.edits),
  }
}

interface Change {
  readonly says: string
  readonly edits: readonly EditRequest[]
  readonly fault?: string
}

const profileFields = ['name', 'title', 'department', 'country', 'handle'] as const

function profileChange({ context, ...reading }: Reading, row: ImportRow, person: Person): Change[] {
  const differing = profileFields.filter(
    field => row[field] !== undefined && row[field] !== (person[field] ?? ''),
  )
  if (differing.length === 0) return []
  const fault =
    lacksDescribing(context, person.id) !== undefined
      ? 'You cannot change this profile.'
      : differing.includes('handle')
        ? ownHandleFault({ context, ...reading }, row.handle ?? '', person)
        : undefined
  const says = differing.map(field => `${field}: ${person[field] || '(empty)'} → ${row[field] ?? ''}`)
  return [
    {
      says: `${says.join('; ')}.`,
      edits: [{ kind: 'person.describe', person: person.id, ...fieldsOf(row, differing) }],
      ...(fault === undefined ? {} : { fault }),
    },
  ]
}

/** One's own earlier handle can be taken up again. */
function ownHandleFault(reading: Reading, handle: string, person: Person): string | undefined {
  const owner = rowOf(reading.asker.snapshot.state.handles, handle as HandleId)?.person
  return owner === person.id ? undefined : handleFault(reading, handle)
}

const teamChanges = ({ teams }: Read, person: Person): Change[] =>
  teams.map(({ id: team, name }) => ({
    says: `Joins ${name}.`,
    edits: [{ kind: 'member.add', team, person: person.id, lead: false, from: null, until: null } as const],
  }))

function roleChanges({ context }: Reading, { roles }: Read, person: Person): Change[] {
  const fault =
    person.kind === 'guest'
      ? guestsHoldNone
      : lacksOver(context, person.id, 'assign roles') === undefined
        ? undefined
        : 'You cannot assign roles to this person.'
  return roles.map(({ id, name }) => ({
    says: `Also gets the role ${name}.`,
    edits: [roleGiven(id, person.id)],
    ...(fault === undefined ? {} : { fault }),
  }))
}

const roleGiven = (role: string, person: string): EditRequest => ({
  kind: 'role.assign',
  person,
  role,
  scope: { over: 'workspace' },
  from: null,
  until: null,
})

function endChange({ context, timeZone }: Reading, { until }: Read, person: Person): Change[] {
  if (until === undefined) return []
  const isOwner = rowsBy(context.now.state.holdings, 'person', person.id).some(
    each => each.role === ownerRole,
  )
  const fault = isOwner
    ? 'Is an owner. Set the end of an owner’s access one by one.'
    : lacksOver(context, person.id, 'suspend') === undefined
      ? undefined
      : 'You cannot set the end of this person’s access.'
  return [
    {
      says: `Access ends after ${dayOf(until - 1, timeZone)}.`,
      edits: [{ kind: 'person.end', person: person.id, until }],
      ...(fault === undefined ? {} : { fault }),
    },
  ]
}
