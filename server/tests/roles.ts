import type { NotificationsView } from '#contract/views/notifications.ts'
import type { PersonDetailView } from '#contract/views/people.ts'
import type { HolderView } from '#contract/views/roles.ts'
import { open, type Visitor, welcome } from './client.ts'
import { at, coast, steward } from './coast.ts'

/** The workspace "Coast" with roles of its own: Kim edits and gives roles below rank 50, and holds a low one too. */

export const everything = { over: 'workspace' }
export const making = (name: string, rank: number, privileges: string[], more: object = {}) => ({
  kind: 'role.create',
  role: 'new:role',
  name,
  note: '',
  rank,
  privileges,
  addressable: false,
  seatExempt: false,
  ...more,
})
export const giving = (person: string, role: string | undefined, scope: object = everything) => ({
  kind: 'role.assign',
  person,
  role,
  scope,
  ...open,
})

export type RoleCast = Awaited<ReturnType<typeof roleCast>>

export async function roleCast() {
  const world = await coast()
  const { owner } = world
  /** What a change set of the Owner’s made; it has to be allowed. */
  const made = async (...edits: object[]): Promise<Record<string, string>> => {
    const { status, body } = await owner.change(...edits)
    if (status !== 200) throw new Error(JSON.stringify(body))
    return body.made
  }
  const role = async (...fields: Parameters<typeof making>) =>
    (await made(making(...fields)))['new:role'] ?? ''
  const roles = {
    Keeper: await role('Keeper', 50, [
      'edit roles',
      'assign roles',
      'invite members',
      'edit settings',
      'read the history',
    ]),
    Big: await role('Big', 40, ['security']),
    High: await role('High', 60, []),
    Low: await role('Low', 20, ['view people']),
    Help: await role('Help', 25, ['reset sign-in']),
  }
  const kim = await welcome(world.server, owner, { name: 'Kim' })
  await made(giving(kim.id, roles.Keeper), giving(kim.id, roles.Low))
  const teams = await made(
    {
      kind: 'team.create',
      team: 'new:team',
      home: 'new:home',
      name: 'Volunteers',
      note: '',
      joining: 'open',
      welcomesGuests: false,
    },
    { kind: 'member.add', team: 'new:team', person: world.ownerId, lead: true, ...open },
    { kind: 'grant.add', node: 'new:home', principal: `person:${world.ownerId}`, gives: steward, ...open },
    { kind: 'member.add', team: 'new:team', person: world.member.id, lead: false, ...open },
  )
  const holders = async (name: keyof typeof roles) =>
    (await owner.get<HolderView[]>(`${at}/roles/${roles[name]}/holders`)).body
  return { ...world, made, roles, kim, holders, team: teams['new:team'] ?? '' }
}

export const notifications = async (visitor: Visitor) =>
  (await visitor.get<NotificationsView>(`${at}/notifications`)).body.notifications.map(each => each.text)
export const personSeen = async (visitor: Visitor, id: string) =>
  (await visitor.get<PersonDetailView>(`${at}/people/${id}`)).body
