import { editRequest } from '#contract/edit-requests.ts'
import type { AccessView } from '#contract/views/access.ts'
import type { RolesView } from '#contract/views/roles.ts'
import { invite, open, start, welcome } from './client.ts'
import { at, coast, editor, reader, share, steward } from './coast.ts'
import type { Pool, Schema } from './random.ts'

/** The schemas by which edits come in, one a kind. */
export const kinds = (editRequest as unknown as { readonly oneOf: readonly Schema[] }).oneOf
export const kindOf = (schema: Schema): string => String(schema.properties?.['kind']?.const)

const day = 86_400_000

/** The coast with something of most kinds, and what edits can be made of about it. */
export async function populated() {
  const world = await coast()
  const { owner, ids, member, guest, ownerId, server } = world
  const other = await welcome(server, owner, { name: 'Ada' })
  const made = await owner.change(
    {
      kind: 'team.create',
      team: 'new:team',
      home: 'new:base',
      name: 'Divers',
      note: '',
      joining: 'open',
      welcomesGuests: true,
    },
    share('new:base', ownerId, steward),
    { kind: 'member.add', team: 'new:team', person: ownerId, lead: true, ...open },
    { kind: 'level.create', level: 'new:level', name: 'Scribe', note: '', actions: reader },
    { kind: 'node.create', node: 'new:board', parent: ids.folder, as: 'board', name: 'Loans' },
    share(ids.folder, member.id, editor),
    share(ids.page, guest.id, reader, start + 400 * day),
    invite('late@test.example', { person: 'new:late' }),
  )
  if (made.status !== 200) throw new Error(JSON.stringify(made.body))
  const { body: access } = await owner.get<AccessView>(`${at}/nodes/${ids.page}/access`)
  const { body: roles } = await owner.get<RolesView>(`${at}/roles`)
  const people = [ownerId, member.id, guest.id, other.id, made.body.made['new:late'] ?? '']
  const team = made.body.made['new:team'] ?? ''
  const pool: Pool = {
    texts: [
      ...Object.values(ids),
      ...Object.values(made.body.made),
      ...people,
      ...people.map(each => `person:${each}`),
      ...['team', 'leads'].map(each => `${each}:${team}`),
      ...['everyone', 'guests', 'anyone', 'team:nothing', 'person:nothing'],
      ...('grants' in access ? access.grants.map(each => each.id) : []),
      ...roles.roles.map(each => each.id),
      ...['nothing', 'new:one', 'new:other', 'fresh@test.example', 'ona@test.example', 'test.example'],
      ...['Some words', '  ', '', 'Europe/London', 'x'.repeat(200)],
    ],
    numbers: [
      0,
      1,
      7,
      20,
      60,
      reader,
      editor,
      steward,
      1023,
      start - day,
      start + day,
      start + 90 * day,
      8.64e15,
    ],
  }
  return { world, pool, made: made.body.made }
}
