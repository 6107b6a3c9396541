import { stringify } from 'csv-stringify/sync'
import { dayOf } from '#contract/dates.ts'
import type { PeopleQuery } from '#contract/requests.ts'
import type { PersonView } from '#contract/views/people.ts'
import { harmless } from '#contract/cells.ts'
import { workspaceOf } from '#core/state/state.ts'
import type { Parts } from '../../parts.ts'
import { problemOf } from '../../problem-error.ts'
import type { Asker } from '../viewer/asker.ts'
import { profileView, type PersonStatus, personStatusView } from './people.ts'
import { managerOf } from '../viewer/managing.ts'
import { managesPeople } from '../viewer/managing.ts'
import { listed } from './people-list.ts'

/** The list as it is looked through, as CSV (RFC 4180) with a byte-order mark, so that spreadsheets read it as UTF-8. */
export function peopleCsv(parts: Parts, asker: Asker, query: PeopleQuery): string {
  if (!managesPeople(asker)) throw problemOf('not-found')
  const { timeZone } = workspaceOf(asker.snapshot.state)
  const keeps = managerOf(asker)
  const day = (at: number | null) => (at === null ? '' : dayOf(at, timeZone))
  const rows = listed(parts, asker, query).map(person => {
    const managed = keeps(person) ? personStatusView(parts, asker, person) : null
    const view = { ...profileView(asker, person), managed }
    return columns.map(({ cell }) => harmless(cell(view, day)))
  })
  return stringify([columns.map(each => each.head), ...rows], {
    bom: true,
    record_delimiter: 'windows',
    // A break of one sign alone, too: some readers end the row at it.
    quoted_match: /[\r\n]/,
  })
}

interface Told extends Omit<PersonView, 'managed'> {
  readonly managed: PersonStatus | null
}

interface CsvColumn {
  readonly head: string
  readonly cell: (person: Told, day: (at: number | null) => string) => string
}

/** Under these heads an import finds its columns by itself. */
const columns: readonly CsvColumn[] = [
  { head: 'Mail', cell: ({ mail }) => mail },
  { head: 'Name', cell: ({ name, mail }) => (name === mail ? '' : name) },
  { head: 'Handle', cell: ({ handle }) => handle ?? '' },
  { head: 'Title', cell: ({ title }) => title },
  { head: 'Department', cell: ({ department }) => department },
  { head: 'Country', cell: ({ country }) => country },
  { head: 'Kind', cell: ({ kind }) => kind },
  { head: 'Role', cell: ({ managed }) => (managed?.roles ?? []).map(role => role.name).join('; ') },
  {
    head: 'Teams',
    cell: ({ teams }) =>
      teams
        .filter(team => !team.isForAll)
        .map(team => team.name)
        .join('; '),
  },
  // The last day that counts, not the first that does not.
  {
    head: 'Ends',
    cell: ({ managed }, day) => day(managed?.until == null ? null : managed.until - 1),
  },
  { head: 'Status', cell: ({ status }) => status },
  { head: 'Active since', cell: ({ joinedAt }, day) => day(joinedAt) },
  { head: 'Last active', cell: ({ managed }, day) => day(managed?.lastActive ?? null) },
  { head: 'Uses a seat', cell: ({ managed }) => (managed?.takesSeat === true ? 'yes' : 'no') },
  { head: 'Contact', cell: ({ contact }) => contact?.name ?? '' },
  { head: 'Invited by', cell: ({ managed }) => managed?.invitedBy ?? '' },
]
