import { QueryTypes, type Sequelize } from 'sequelize'

interface Kept {
  readonly table: string
  readonly before: object | null
  readonly after: object | null
}

/** Gives the records that the history keeps of some tables the fields that these have since, each with what nobody had set. */
export async function completeHistory(
  database: Sequelize,
  added: Readonly<Record<string, object>>,
): Promise<void> {
  const rows = await database.query<{ workspace: string; revision: number; changes: string }>(
    'SELECT workspace, revision, changes FROM "changeSets"',
    { type: QueryTypes.SELECT },
  )
  for (const { workspace, revision, changes } of rows) {
    const kept = JSON.parse(changes) as Kept[]
    if (!kept.some(each => each.table in added)) continue
    const complete = kept.map(each => {
      const fields = added[each.table]
      const withFields = (row: object | null) => (row === null ? null : { ...row, ...fields })
      return { ...each, before: withFields(each.before), after: withFields(each.after) }
    })
    await database.query('UPDATE "changeSets" SET changes = ? WHERE workspace = ? AND revision = ?', {
      replacements: [JSON.stringify(complete), workspace, revision],
    })
  }
}
