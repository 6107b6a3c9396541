import type { WorkspaceView } from '#contract/views/workspace.ts'
import { levelActions } from '#core/levels/level.ts'
import { founded, open, welcome } from './client.ts'

export const reader = levelActions('Reader')
export const adder = levelActions('Adder')
export const editor = levelActions('Editor')
export const steward = levelActions('Steward')
export const at = '/at/coast'

export type Coast = Awaited<ReturnType<typeof coast>>

/**
 * The workspace "Coast" with its Owner Ona, the member Mika and the guest Gus: a home that only Ona
 * opens, with Sites › Dunes › Maps › Map, beside Dunes a folder that nobody else opened.
 */
export async function coast(more: Parameters<typeof founded>[0] = {}) {
  const { server, owner } = await founded(more)
  const member = await welcome(server, owner, { name: 'Mika' })
  const guest = await welcome(server, owner, { name: 'Gus', as: 'guest' })
  const ownerId = (await owner.get<WorkspaceView>(at)).body.me.id
  const { body } = await owner.change(
    { kind: 'home.create', node: 'new:home', name: 'Sites' },
    { kind: 'grant.add', node: 'new:home', principal: `person:${ownerId}`, gives: steward, ...open },
    { kind: 'node.create', node: 'new:folder', parent: 'new:home', as: 'folder', name: 'Dunes' },
    { kind: 'node.create', node: 'new:inner', parent: 'new:folder', as: 'folder', name: 'Maps' },
    { kind: 'node.create', node: 'new:page', parent: 'new:inner', as: 'page', name: 'Map' },
    { kind: 'node.create', node: 'new:secret', parent: 'new:home', as: 'folder', name: 'Hidden Nests' },
  )
  const ids = Object.fromEntries(
    Object.entries(body.made).map(([key, value]) => [key.slice(4), value]),
  ) as Record<'home' | 'folder' | 'inner' | 'page' | 'secret', string>
  return { server, owner, ownerId, member, guest, ids }
}

/** A grant by name, as an edit. */
export const share = (node: string, person: string, gives: number, until: number | null = null) => ({
  kind: 'grant.add',
  node,
  principal: `person:${person}`,
  gives,
  from: null,
  until,
})

interface TeamFields {
  readonly name: string
  readonly joining?: 'everyone' | 'open' | 'request' | 'unlisted'
  readonly welcomesGuests?: boolean
}

/** A team with its home and its lead, as edits: `new:team` and `new:base`, or as they are named. */
export const teamOf = (
  lead: string,
  { team = 'new:team', home = 'new:base', ...more }: { team?: string; home?: string } & TeamFields,
) => [
  { kind: 'team.create', team, home, note: '', joining: 'request', welcomesGuests: false, ...more },
  share(home, lead, steward),
  { kind: 'member.add', team, person: lead, lead: true, ...open },
]

export const offer = { as: 'member', role: null, teams: [], places: [], ...open }

/** A join link and a welcome set, as edits: `new:link` and `new:welcome`. */
export const onboarding = [
  {
    kind: 'link.create',
    link: 'new:link',
    name: 'L',
    until: 4e12,
    domains: [],
    most: 5,
    welcome: null,
    offer,
  },
  { kind: 'welcome.create', welcome: 'new:welcome', name: 'W', note: '', offer },
]

/** A column of `new:board`, as an edit that makes it. */
export const columnOf = (name: string, as: string, settings: object = {}) => ({
  kind: 'column.create',
  column: `new:${name}`,
  board: 'new:board',
  name,
  as,
  settings,
  order: 0,
  viewers: null,
  editors: null,
})

/** A board with a column that all of its readers see, as edits: `new:board` and `new:column`. */
export const boardIn = (parent: string) => [
  { kind: 'node.create', node: 'new:board', parent, as: 'board', name: 'Loans' },
  {
    kind: 'column.create',
    column: 'new:column',
    board: 'new:board',
    name: 'Fee',
    as: 'text',
    settings: {},
    order: 1,
    viewers: null,
    editors: null,
  },
]
