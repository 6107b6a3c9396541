import { dayOf, endOfDay } from '#contract/dates.ts'
import type { OfferRequest } from '#contract/edit-requests.ts'
import type { ImportRequest, ImportRow } from '#contract/requests.ts'
import { allRows, rowOf, rowsBy } from '#core/base/collection.ts'
import { type Context, lacksFilling } from '#core/changes/context.ts'
import type { Person } from '#core/people/person.ts'
import { type Snapshot, workspaceOf } from '#core/state/state.ts'
import type { Asker } from '../viewer/asker.ts'
import { rolesToOffer } from './roles-to-offer.ts'

/** What the cells of a table are read by. */
export interface Reading {
  readonly asker: Asker
  readonly context: Context
  readonly offer: OfferRequest
  readonly welcome: string | null
  /** The time of asking, which the asker's snapshot may lie before. */
  readonly now: number
  readonly timeZone: string
  /** Those that may be given, and filled, by their names in small letters. */
  readonly roles: ReadonlyMap<string, Named>
  readonly teams: ReadonlyMap<string, Named>
  /** Handles that earlier rows take. */
  readonly taken: Set<string>
}

export interface Named {
  readonly id: string
  readonly name: string
}

/** What a row says, as far as the person does not have it already. */
export interface Read {
  readonly as: Person['kind'] | undefined
  readonly roles: readonly Named[]
  readonly teams: readonly Named[]
  readonly until: number | undefined
  readonly faults: readonly string[]
}

export function readingOf(
  asker: Asker,
  request: Pick<ImportRequest, 'offer' | 'welcome'> & Pick<Reading, 'now'>,
): Reading {
  const { snapshot, person } = asker
  const { state } = snapshot
  const context = { author: person, before: snapshot, now: snapshot }
  const teams = allRows(state.teams).filter(team => lacksFilling(context, team.id) === undefined)
  return {
    ...request,
    asker,
    context,
    timeZone: workspaceOf(state).timeZone,
    roles: byName(rolesToOffer(asker)),
    teams: byName(teams),
    taken: new Set(),
  }
}

const byName = (all: readonly Named[]): Map<string, Named> =>
  new Map(all.map(({ id, name }) => [name.toLowerCase(), { id, name }]))

/** The cells that name something, looked up; what cannot be found or given, and is not there yet, is a fault. */
export function readCells(reading: Reading, row: ImportRow, person?: Person): Read {
  const { state } = reading.asker.snapshot
  const faults: string[] = []
  const as = row.as === undefined ? undefined : kinds[row.as.toLowerCase()]
  if (row.as !== undefined && as === undefined) faults.push(`“${row.as}” is neither “member” nor “guest”.`)
  const until = row.until === undefined ? undefined : lastDayIn(reading, row.until, person)
  if (typeof until === 'string') faults.push(until)
  const roles = lookUp(row.role, {
    among: reading.roles,
    had: new Set([
      ...usualRoles(reading.asker.snapshot),
      ...(person === undefined ? [] : rolesOf(state, person)),
    ]),
    fault: name => `There is no role “${name}” that you can assign.`,
  })
  const teams = lookUp(row.teams, {
    among: reading.teams,
    had: new Set(person === undefined ? [] : teamsOf(state, person)),
    fault: name => `There is no team “${name}” that you can add people to.`,
  })
  return {
    as,
    until: typeof until === 'string' ? undefined : until,
    roles: roles.found,
    teams: teams.found,
    faults: [...faults, ...roles.faults, ...teams.faults],
  }
}

const kinds: Readonly<Record<string, Person['kind']>> = { member: 'member', guest: 'guest' }

/** The end that a cell tells, if it is another than the person's; or what is wrong with it. */
function lastDayIn(
  { now, timeZone }: Reading,
  cell: string,
  person: Person | undefined,
): number | string | undefined {
  const until = untilOf(cell, timeZone)
  if (until === undefined) return `“${cell}” is not a date. Write it as 2027-03-31.`
  if (isSameDay(until, person?.until, timeZone)) return undefined
  return until <= now ? 'The end is in the past.' : until
}

const isSameDay = (a: number, b: number | null | undefined, timeZone: string): boolean =>
  b != null && dayOf(a - 1, timeZone) === dayOf(b - 1, timeZone)

/** The roles that everybody has are no roles to give. */
const usualRoles = ({ state }: Snapshot): string[] =>
  ['member', 'guest', rowOf(state.roles, workspaceOf(state).defaultRole)?.name ?? ''].map(inSmall)

const rolesOf = (state: Snapshot['state'], { id }: Person): string[] =>
  rowsBy(state.holdings, 'person', id).map(each => inSmall(rowOf(state.roles, each.role)?.name ?? ''))

const teamsOf = (state: Snapshot['state'], { id }: Person): string[] =>
  rowsBy(state.memberships, 'person', id).map(each => inSmall(rowOf(state.teams, each.team)?.name ?? ''))

const inSmall = (name: string) => name.toLowerCase()

interface Among {
  readonly among: ReadonlyMap<string, Named>
  /** Names of what is there already, or goes without saying. */
  readonly had: ReadonlySet<string>
  readonly fault: (name: string) => string
}

function lookUp(
  cell: string | undefined,
  { among, had, fault }: Among,
): { found: Named[]; faults: string[] } {
  const found = new Map<string, Named>()
  const faults: string[] = []
  for (const name of namesIn(cell ?? '', each => among.has(each) || had.has(each))) {
    const named = among.get(inSmall(name))
    if (had.has(inSmall(name))) continue
    if (named === undefined) faults.push(fault(name))
    else found.set(named.id, named)
  }
  return { found: [...found.values()], faults }
}

/** Parted by semicolons and line breaks; by commas and bars too, where these are not in a name. */
const namesIn = (cell: string, isName: (name: string) => boolean): string[] =>
  cell
    .split(/[;\n]/)
    .flatMap(part => (isName(inSmall(part.trim())) ? [part] : part.split(/[,|]/)))
    .map(each => each.trim())
    .filter(Boolean)

/** 2027-03-31 or 31.3.2027; with slashes nobody can tell day and month apart. */
function untilOf(text: string, timeZone: string): number | undefined {
  const iso = /^(\d{4})-(\d{1,2})-(\d{1,2})$/.exec(text)
  const dotted = /^(\d{1,2})\.(\d{1,2})\.(\d{4})$/.exec(text)
  const [year, month, dayOfMonth] = iso ? iso.slice(1) : dotted ? dotted.slice(1).toReversed() : []
  if (year === undefined || month === undefined || dayOfMonth === undefined) return undefined
  const day = `${year}-${month.padStart(2, '0')}-${dayOfMonth.padStart(2, '0')}`
  const at = Date.parse(`${day}T00:00:00Z`)
  const isReal = !Number.isNaN(at) && new Date(at).toISOString().startsWith(day)
  return isReal ? endOfDay(day, timeZone) : undefined
}
