import { afterAll, beforeAll, expect, test } from 'vitest'
import { mentionOf } from '#contract/mentions.ts'
import type { CommentsView, CommentView, ReachView } from '#contract/views/boards.ts'
import type { NotificationsView } from '#contract/views/notifications.ts'
import type { Problem } from '#contract/views/problem.ts'
import { levelActions } from '#core/levels/level.ts'
import { type Visitor, welcome } from '../../tests/client.ts'
import { at, type Coast, coast, reader, share } from '../../tests/coast.ts'

/** What people say about a row: threads, replies, mentions, and who may take what back. */

let world: Coast
let row: string
let other: { visitor: Visitor; id: string }

beforeAll(async () => {
  world = await coast()
  const { server, owner, member, guest, ids } = world
  other = await welcome(server, owner, { name: 'Oto' })
  const { body } = await owner.change(
    { kind: 'node.create', node: 'new:board', parent: ids.folder, as: 'board', name: 'Loans' },
    { kind: 'node.create', node: 'new:row', parent: 'new:board', as: 'row', name: 'Dinghy' },
    share('new:board', member.id, levelActions('Commenter')),
    share('new:board', guest.id, reader),
  )
  row = body.made['new:row'] ?? ''
})
afterAll(() => world.server.stop())

const path = (rest = '') => `${at}/nodes/${row}/comments${rest}`
const say = (visitor: Visitor, text: string, thread: string | null = null) =>
  visitor.call<CommentView & Problem>('POST', path(), { text, thread })
const all = async (visitor: Visitor) => (await visitor.get<CommentsView>(path())).body
const told = async (visitor: Visitor) =>
  (await visitor.get<NotificationsView>(`${at}/notifications`)).body.notifications.map(each => each.text)

test('who may comment comments and replies; who only reads, reads', async () => {
  const { owner, member, guest } = world
  const first = await say(member.visitor, 'Where are the oars?')
  expect(first.status).toBe(200)
  await say(owner, 'In the shed.', first.body.id)
  const seen = await all(guest.visitor)
  expect(seen.comments.map(({ text, thread, by }) => [text, thread === first.body.id, by?.name])).toEqual([
    ['Where are the oars?', true, undefined],
    // Ona is whom the guest turns to.
    ['In the shed.', true, 'Ona'],
  ])
  expect([seen.mayComment, (await say(guest.visitor, 'x')).status]).toEqual([false, 403])
  expect((await say(owner, 'x', 'nothing')).status).toBe(404)
  expect((await other.visitor.get(path())).status).toBe(404)
  // Whoever wrote in a thread is told of replies.
  expect(await told(member.visitor)).toContain('Ona replied to your comment on Dinghy.')
})

test('who is mentioned is told, if they can open it; before it is written, its writer knows', async () => {
  const { owner, member } = world
  const reach = await owner.call<ReachView>('POST', `${at}/nodes/${row}/reach`, {
    people: [member.id, other.id],
    places: [world.ids.secret],
  })
  expect(reach.body.people.map(each => each.name)).toEqual(['Oto'])
  expect(reach.body.places.map(({ name, without }) => [name, without])).toEqual([['Hidden Nests', 2]])
  await say(owner, `${mentionOf(member.id)} and ${mentionOf(other.id)}: who has it?`)
  expect(await told(member.visitor)).toContain('Ona mentioned you in a comment on Dinghy.')
  expect(await told(other.visitor)).toEqual([])
  expect((await all(owner)).names).toMatchObject({ [member.id]: 'Mika', [other.id]: 'Oto' })
  // A guest is handed no name of somebody whom they may not know.
  expect((await all(world.guest.visitor)).names).toEqual({})
})

test('a comment is edited until somebody replies, removed by who wrote it or may remove there, and resolved', async () => {
  const { owner, member } = world
  const { body: mine } = await say(member.visitor, 'Two oars are missing')
  const edit = (visitor: Visitor, text: string) => visitor.call('PUT', path(`/${mine.id}`), { text })
  expect((await edit(owner, 'x')).status).toBe(404)
  expect((await edit(member.visitor, 'One oar is missing')).status).toBe(200)
  await say(owner, 'Found it.', mine.id)
  const late = await edit(member.visitor, 'Nothing is missing')
  expect([late.status, late.body.type]).toEqual([409, 'urn:noskel:problem:comment-answered'])
  const resolve = (visitor: Visitor, isResolved: boolean) =>
    visitor.call('PUT', path(`/${mine.id}/resolved`), { isResolved })
  expect((await resolve(world.guest.visitor, true)).status).toBe(404)
  await resolve(member.visitor, true)
  const found = async () => (await all(owner)).comments.find(each => each.id === mine.id)
  expect([(await found())?.isResolved, (await found())?.resolvedBy]).toEqual([true, 'Mika'])
  await resolve(owner, false)
  expect((await found())?.isResolved).toBe(false)
  expect((await world.guest.visitor.call('DELETE', path(`/${mine.id}`))).status).toBe(404)
  expect((await owner.call('DELETE', path(`/${mine.id}`))).status).toBe(204)
  expect([(await found())?.text, (await found())?.isEdited]).toEqual([null, true])
})
