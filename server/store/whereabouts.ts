import { QueryTypes } from 'sequelize'
import type { AccountId, WorkspaceId } from '#core/base/ids.ts'
import type { Person } from '#core/people/person.ts'
import type { Tables } from './tables.ts'

/** In which workspaces something is, read in the database: none has to be in memory for that. In the order of their ids. */

interface Found {
  readonly workspace: WorkspaceId
}

const find = async (
  { database }: Tables,
  sql: string,
  bind: Readonly<Record<string, string>>,
): Promise<WorkspaceId[]> => {
  const rows = await database.query<Found>(sql, { type: QueryTypes.SELECT, bind })
  return rows.map(row => row.workspace).toSorted()
}

/** Somebody in a workspace, as whom an account is there now. */
export interface Here extends Pick<Person, 'kind' | 'status' | 'from' | 'until'> {
  readonly name: string
  readonly slug: string
}

/** Where an account is somebody, or was. */
export const personsOf = ({ database }: Tables, account: AccountId): Promise<Here[]> =>
  database.query<Here>(
    `SELECT workspaces.name, slug, persons.kind, persons.status, persons."from", persons."until" FROM persons
      JOIN workspaces ON workspaces.workspace = persons.workspace WHERE persons.account = $account`,
    { type: QueryTypes.SELECT, bind: { account } },
  )

/** Whether an account is, or was, somebody in a workspace. */
export const isSomebodyIn = async (
  tables: Tables,
  account: AccountId,
  workspace: WorkspaceId | '',
): Promise<boolean> => {
  const sql = 'SELECT workspace FROM persons WHERE account = $account AND workspace = $workspace LIMIT 1'
  return (await find(tables, sql, { account, workspace })).length > 0
}

/** Where an address is invited. */
export const workspacesInviting = (tables: Tables, mail: string): Promise<WorkspaceId[]> =>
  find(tables, "SELECT DISTINCT workspace FROM persons WHERE lower(mail) = $mail AND status = 'invited'", {
    mail: mail.toLowerCase(),
  })

/** Where an invitation, or a join link, is of. */
export const workspacesWith = (
  tables: Tables,
  table: 'invitations' | 'joinLinks',
  id: string,
): Promise<WorkspaceId[]> => find(tables, `SELECT workspace FROM "${table}" WHERE id = $id`, { id })
