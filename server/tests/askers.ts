import { plainView } from '#core/boards/view.ts'
import { expect } from 'vitest'
import type { AccessView } from '#contract/views/access.ts'
import type { PersonView } from '#contract/views/people.ts'
import type { RequestsView } from '#contract/views/requests.ts'
import { open, type Visitor, welcome } from './client.ts'
import { at, type Coast, editor, onboarding, reader, share, steward, teamOf } from './coast.ts'

export type Ids = Readonly<Record<string, string>>

export interface Asker {
  readonly visitor: Visitor
  readonly id: string
  /** By what it is, an id that this one may not know of. */
  readonly hidden: Ids
  /** And one that this one knows. */
  readonly known: Ids
}

export type Askers = Record<'member' | 'guest' | 'lead' | 'steward', Asker>

export const made = async (visitor: Visitor, ...edits: object[]) => {
  const { status, body } = await visitor.change(...edits)
  if (status !== 200) throw new Error(JSON.stringify(body))
  return body.made
}

const roleOf = (id: string, name: string, privileges: string[]) => ({
  kind: 'role.create',
  role: `new:${id}`,
  name,
  note: '',
  rank: 30,
  privileges,
  addressable: false,
  seatExempt: false,
})

/** Four kinds of people, and ids of all kinds that each of them may not know of. */
export async function askersOf(world: Coast): Promise<Askers> {
  const { server, owner, ownerId, member, guest, ids } = world
  const lead = await welcome(server, owner, { name: 'Lea', role: 'role-people-lead' })
  const keeper = await welcome(server, owner, { name: 'Sia' })
  const other = await welcome(server, owner, { name: 'Oto' })
  const roles = await made(
    owner,
    roleOf('plain', 'Plain', []),
    roleOf('own', 'Keeper of boats', ['moderate']),
  )
  const everywhere = { scope: { over: 'workspace' }, ...open }
  const things = await made(
    owner,
    ...teamOf(ownerId, { name: 'Steering', joining: 'unlisted' }),
    { kind: 'channel.create', channel: 'new:channel', team: 'new:team', name: 'C', note: '', only: null },
    { kind: 'node.create', node: 'new:board', parent: ids.secret, as: 'board', name: 'B' },
    { kind: 'node.create', node: 'new:seen', parent: ids.folder, as: 'board', name: 'Seen' },
    {
      kind: 'column.create',
      column: 'new:column',
      board: 'new:seen',
      name: 'Fees',
      as: 'text',
      settings: {},
      order: 0,
      viewers: [`person:${ownerId}`],
      editors: null,
    },
    { kind: 'node.create', node: 'new:row', parent: 'new:board', as: 'row', name: 'R' },
    { kind: 'node.create', node: 'new:seenrow', parent: 'new:seen', as: 'row', name: 'Seen row' },
    { kind: 'section.create', section: 'new:section', board: 'new:board', name: 'S', order: 1 },
    { kind: 'view.create', view: 'new:view', board: 'new:board', name: 'V', order: 1, state: plainView },
    ...onboarding,
    { kind: 'limit.add', node: ids.secret, principal: 'guests', allows: 0, sparesStewards: true, ...open },
    {
      kind: 'limit.add',
      node: ids.folder,
      principal: 'guests',
      allows: reader,
      sparesStewards: true,
      ...open,
    },
    { kind: 'watch.begin', node: ids.home },
    { kind: 'handover.offer', to: other.id, keeps: 'role-member', reason: '' },
    { kind: 'role.assign', person: ownerId, role: roles['new:own'] ?? '', ...everywhere },
    share(ids.secret, other.id, reader),
    share(ids.folder, member.id, editor),
    share(ids.folder, guest.id, reader),
    share(ids.folder, keeper.id, steward),
  )
  const crew = await made(owner, ...teamOf(ownerId, { name: 'Crew' }))
  for (const wants of [
    { of: 'team', team: crew['new:team'] },
    { of: 'access', node: ids.folder, actions: steward },
    { of: 'privilege', privilege: 'suspend' },
  ])
    await made(other.visitor, { kind: 'request.make', wants, reason: '' })
  const access = async (node: string) =>
    (await owner.get<AccessView & { detail: 'all' }>(`${at}/nodes/${node}/access`)).body
  const secret = await access(ids.secret)
  const folder = await access(ids.folder)
  const { body: requests } = await owner.get<RequestsView>(`${at}/requests`)
  const requestFor = (of: string) => requests.toDecide.find(each => each.wants.of === of)?.id ?? ''
  const { body: owners } = await owner.get<{ offered: { id: string }[] }>(`${at}/owners`)
  const { body: ona } = await owner.get<PersonView>(`${at}/people/${ownerId}`)
  const hidden: Ids = {
    holdings: ona.managed?.roles[0]?.id ?? '',
    nodes: ids.secret,
    grants: secret.grants.find(each => each.isHere)?.id ?? '',
    limits: secret.limits.find(each => each.isHere)?.id ?? '',
    teams: things['new:team'] ?? '',
    channels: things['new:channel'] ?? '',
    boards: things['new:board'] ?? '',
    rows: things['new:row'] ?? '',
    columns: things['new:column'] ?? '',
    sections: things['new:section'] ?? '',
    boardViews: things['new:view'] ?? '',
    welcomeSets: things['new:welcome'] ?? '',
    joinLinks: things['new:link'] ?? '',
    roles: roles['new:own'] ?? '',
    watches: (await access(ids.home)).watch ?? '',
    'requests to join': requestFor('team'),
    'requests for access': requestFor('access'),
    'requests for a role': requestFor('privilege'),
    handovers: JSON.stringify(owners).match(/"handovers?":.*?"id":"([a-z0-9]+)"/)?.[1] ?? '',
  }
  const ofKeeper = folder.grants.find(each => each.principal === `person:${keeper.id}`)?.id ?? ''
  const known: Ids = {
    ...{ nodes: ids.folder, persons: member.id, roles: 'role-member', teams: 'none' },
    ...{ boards: things['new:seen'] ?? '', rows: things['new:seenrow'] ?? '' },
  }
  const without = (...names: string[]) =>
    Object.fromEntries(Object.entries(hidden).filter(([name, id]) => id !== '' && !names.includes(name)))
  const askers: Askers = {
    member: { ...member, hidden: { ...without(), ofFolder: ofKeeper }, known },
    guest: {
      ...guest,
      hidden: { ...without(), persons: other.id, ofFolder: ofKeeper },
      known: { ...known, persons: guest.id },
    },
    lead: {
      ...lead,
      // Who looks after people and teams is told of their roles, and who asks to be let in.
      hidden: without(
        'teams',
        'channels',
        'welcomeSets',
        'joinLinks',
        'roles',
        'holdings',
        'requests to join',
      ),
      known: { ...known, nodes: ids.folder },
    },
    // Who shares at a board sees all its columns, and who asks for access there.
    steward: { ...keeper, hidden: without('columns', 'requests for access'), known },
  }
  expect(Object.values(hidden).filter(id => id === '')).toEqual([])
  return askers
}

/** As long as an id, and nothing's. */
export const absent = '0000absent0000000000000000'

/** An answer without the id that was asked for, and what no two answers share. */
export const textOf = (body: unknown, id: string): string =>
  JSON.stringify(body)
    .replaceAll(id, 'X')
    .replaceAll(/"(at|revision)":\d+|"seen":"[^"]*"|"new:[^}]*/g, '')
