import type { AccessView } from '#contract/views/access.ts'
import { type Visitor, welcome } from './client.ts'
import { at, coast, share, steward } from './coast.ts'

/** The workspace "Coast" with Wim, who is Steward of Dunes and of all below it. */
export async function accessCast() {
  const world = await coast()
  const warden = await welcome(world.server, world.owner, { name: 'Wim' })
  await did(world.owner, share(world.ids.folder, warden.id, steward))
  return { world, owner: world.owner, warden }
}

export type AccessCast = Awaited<ReturnType<typeof accessCast>>

/** What a change set made; it has to be allowed. */
export async function did(visitor: Visitor, ...edits: object[]): Promise<Record<string, string>> {
  const { status, body } = await visitor.change(...edits)
  if (status !== 200) throw new Error(JSON.stringify(body))
  return body.made
}

export const see = async <T>(visitor: Visitor, path: string) => (await visitor.get<T>(`${at}${path}`)).body

/** All that is told of access at a place, to who gives it there. */
export const everything = async (visitor: Visitor, node: string) => {
  const view = await see<AccessView>(visitor, `/nodes/${node}/access`)
  if (view.detail !== 'all') throw new Error('not all of it is told')
  return view
}
