import { QueryTypes } from 'sequelize'
import type { Lines } from '#core/base/packed-ids.ts'
import type { TableName } from '#core/state/kinds.ts'
import type { Fields } from '../../fields.ts'
import type { PackedEntryRows, PackedOutline, PackedReader, Reading } from '../dialect.ts'

/** SQL packs each table into one row of a few values: a million rows as rows would take half a minute. */
export const packedReader = (reading: Reading): PackedReader => ({
  outline: () => outlineOf(reading),
  lines: async fields => {
    const what = `${asLines(arrayOf(reading.kinds.nodes.fields, fields))} AS lines`
    return (await selected<{ lines: Buffer }>(reading, { from: 'nodes', by: byId, what })).lines
  },
  entries: (table, names) => entriesOf(reading, table, names),
  records: async table => {
    const what = `${asArray(arrayOf(reading.kinds[table].fields))} AS records`
    return (await selected<{ records: string }>(reading, { from: table, what })).records
  },
})

interface Selection {
  readonly from: TableName
  /** Behind the name: the index that the rows are to come in the order of. */
  readonly by?: string
  readonly what: string
  readonly where?: string
}

/** The key of the table: what is read by it twice comes in the same order twice. */
const byId = 'INDEXED BY sqlite_autoindex_nodes_1'

/** One row that is made of all rows of a table. */
async function selected<Row extends object>(
  { database, workspace, transaction }: Reading,
  { from, by = '', what, where = 'TRUE' }: Selection,
): Promise<Row> {
  const [row] = await database.query<Row>(
    `SELECT ${what} FROM "${from}" ${by} WHERE workspace = $workspace AND (${where})`,
    { type: QueryTypes.SELECT, bind: { workspace }, transaction },
  )
  return row as Row
}

/** Each value as a line; nothing where there is no row. */
const asLines = (value: string) =>
  `coalesce(CAST(group_concat(${value} || char(10), '') AS BLOB), zeroblob(0))`
const asArray = (value: string) => `json_group_array(${value})`

const idsAsLines = `${asLines('id')} AS lines, count(*) AS count`

/** As the index of the table says it (migration 007). */
const isSpecial = `note <> '' OR home IS NOT NULL OR broken IS NOT NULL OR draft OR archived
  OR binned IS NOT NULL OR web IS NOT NULL`

async function outlineOf(reading: Reading): Promise<PackedOutline> {
  const parents = `${asLines("coalesce(parent, '')")} AS parents`
  const ids = await selected<Lines & { parents: Buffer }>(reading, {
    from: 'nodes',
    by: byId,
    what: `${idsAsLines}, ${parents}`,
  })
  const { special } = await selected<{ special: string }>(reading, {
    from: 'nodes',
    what: `${asArray(arrayOf(reading.kinds.nodes.fields))} AS special`,
    where: isSpecial,
  })
  return { ids, parents: ids.parents, special }
}

function entriesOf(
  reading: Reading,
  table: 'grants' | 'limits',
  names: readonly string[],
): Promise<PackedEntryRows> {
  const { fields } = reading.kinds[table]
  return selected<PackedEntryRows>(reading, {
    from: table,
    what: `${idsAsLines}, ${asLines('node')} AS places, ${asArray('principal')} AS principals,
      ${asArray(arrayOf(fields, names))} AS contents, ${asLines(arrayOf(fields))} AS records`,
  })
}

/** What SQL reads the fields of a record with, or some of them, in order, as an array in JSON. */
function arrayOf(fields: Fields, names: readonly string[] = Object.keys(fields)): string {
  // In JSON what is not whole loses digits; as text it keeps them.
  const number = (name: string) =>
    `CASE typeof("${name}") WHEN 'real' THEN format('%!.17g', "${name}") ELSE "${name}" END`
  const values = names.map(name =>
    fields[name] === 'number'
      ? number(name)
      : fields[name] === 'actions or level'
        ? 'coalesce(actions, level)'
        : `"${name}"`,
  )
  return `json_array(${values.join(', ')})`
}
