import type { Principal } from '../rules/principal.ts'
import { leadsPrincipal, partsOf, personPrincipal, teamPrincipal } from '../rules/principal.ts'
import type { PersonId, TeamId } from '../base/ids.ts'
import type { TableName } from '../state/kinds.ts'
import type { Reference, WhenGone } from '../state/shape.ts'

/** The forms in which records name others. */

type IdField<Row> = {
  readonly [F in keyof Row & string]: Row[F] extends string | null ? F : never
}[keyof Row & string]

interface Naming<Row> {
  readonly whenGone: WhenGone<Row>
  /** An index of the same name as the field, or another, by the id itself. */
  readonly index?: string
  readonly key?: Reference<Row>['key']
}

/** A field that is an id, or nothing; it has a foreign key unless it says why not. */
export const id = <Row>(
  field: IdField<Row>,
  to: TableName,
  { whenGone, index, key = 'foreign key' }: Naming<Row>,
): Reference<Row> => ({
  to,
  field,
  ids: row => {
    const named = row[field] as string | null
    return named === null ? [] : [named]
  },
  ...(index === undefined ? {} : { by: { index, keys: (named: string) => [named] } }),
  whenGone,
  key,
})

/** Ids within a structure, which the database does not look into. */
export const within = <Row>(
  field: keyof Row & string,
  to: TableName,
  { ids, whenGone }: Pick<Reference<Row>, 'ids' | 'whenGone'>,
): Reference<Row> => ({ to, field, ids, whenGone, key: { none: 'it stands within a structure' } })

const several = { none: 'a principal names a person, a team or all of some kind' }

/** The person or team that an entry speaks of: it goes with them. */
export const principal = <Row extends { readonly principal: Principal }>(): Reference<Row>[] => [
  {
    to: 'persons',
    field: 'principal',
    ids: row => personsIn([row.principal]),
    by: { index: 'principal', keys: person => [personPrincipal(person as PersonId)] },
    whenGone: 'goes along',
    key: several,
  },
  {
    to: 'teams',
    field: 'principal',
    ids: row => teamsIn([row.principal]),
    by: {
      index: 'principal',
      keys: team => [teamPrincipal(team as TeamId), leadsPrincipal(team as TeamId)],
    },
    whenGone: 'goes along',
    key: several,
  },
]

interface Named<Row> {
  readonly of: (row: Row) => readonly Principal[]
  readonly without: (row: Row, isGone: (principal: Principal) => boolean) => Row
}

/** People and teams of whom some are named: those who are gone are named no more. */
export const principals = <Row>(field: keyof Row & string, { of, without }: Named<Row>): Reference<Row>[] => [
  {
    to: 'persons',
    field,
    ids: row => personsIn(of(row)),
    whenGone: { unnamed: (row, gone) => without(row, each => personsIn([each]).includes(gone as PersonId)) },
    key: several,
  },
  {
    to: 'teams',
    field,
    ids: row => teamsIn(of(row)),
    whenGone: { unnamed: (row, gone) => without(row, each => teamsIn([each]).includes(gone as TeamId)) },
    key: several,
  },
]

const personsIn = (named: readonly Principal[]): PersonId[] =>
  named.flatMap(each => {
    const parts = partsOf(each)
    return parts.kind === 'person' ? [parts.person] : []
  })

const teamsIn = (named: readonly Principal[]): TeamId[] =>
  named.flatMap(each => {
    const parts = partsOf(each)
    return 'team' in parts ? [parts.team] : []
  })
