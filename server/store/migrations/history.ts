import { QueryTypes, type Sequelize } from 'sequelize'

/** A record that an entry of the history changed, as it is kept there. */
export interface Kept {
  readonly table: string
  readonly before: object | null
  readonly after: object | null
}

export interface KeptEdit {
  readonly kind: string
  readonly [field: string]: unknown
}

interface Rewriting {
  readonly change: (change: Kept) => Kept
  readonly edit?: (edit: KeptEdit) => KeptEdit
}

/** So many entries are held at a time: a history may be longer than memory. */
const atOnce = 200

interface Row {
  readonly workspace: string
  readonly revision: number
  readonly edits: string
  readonly changes: string
}

/** Gives what the history keeps the form that it would have now; what comes out as it was is not written. */
export async function rewriteHistory(
  database: Sequelize,
  { change, edit = same => same }: Rewriting,
): Promise<void> {
  for await (const { workspace, revision, ...kept } of entriesOf(database)) {
    const changes = JSON.stringify((JSON.parse(kept.changes) as Kept[]).map(change))
    const edits = JSON.stringify((JSON.parse(kept.edits) as KeptEdit[]).map(edit))
    if (changes === kept.changes && edits === kept.edits) continue
    await database.query(
      'UPDATE "changeSets" SET edits = ?, changes = ? WHERE workspace = ? AND revision = ?',
      { replacements: [edits, changes, workspace, revision] },
    )
  }
}

async function* entriesOf(database: Sequelize): AsyncGenerator<Row> {
  let last: Pick<Row, 'workspace' | 'revision'> | undefined = { workspace: '', revision: 0 }
  while (last !== undefined) {
    const rows: Row[] = await database.query<Row>(
      `SELECT workspace, revision, edits, changes FROM "changeSets"
       WHERE workspace > ? OR (workspace = ? AND revision > ?) ORDER BY workspace, revision LIMIT ${atOnce}`,
      { type: QueryTypes.SELECT, replacements: [last.workspace, last.workspace, last.revision] },
    )
    yield* rows
    last = rows.at(-1)
  }
}

/** Gives the records that the history keeps of some tables the fields that these have since, each with what nobody had set. */
export const completeHistory = (
  database: Sequelize,
  added: Readonly<Record<string, object>>,
): Promise<void> =>
  rewriteHistory(database, {
    change: each => {
      const fields = added[each.table]
      if (fields === undefined) return each
      const withFields = (row: object | null) => (row === null ? null : { ...row, ...fields })
      return { ...each, before: withFields(each.before), after: withFields(each.after) }
    },
  })
