import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest'
import type { NotificationsView } from '#contract/views/notifications.ts'
import type { TestServer, Visitor } from '../../tests/client.ts'
import { at, type Coast, coast, reader, share } from '../../tests/coast.ts'
import { listenAs, type Listening } from '../../tests/listening.ts'

let server: TestServer
let owner: Visitor
let member: Coast['member']
let guest: Coast['guest']
let ids: Coast['ids']

beforeAll(async () => {
  ;({ server, owner, member, guest, ids } = await coast())
  await owner.change(share(ids.folder, member.id, 0b1111))
})

afterAll(() => server.stop())

const describing = (node: string, note: string) => ({ kind: 'node.describe', node, note })

describe('live events', () => {
  let mine: Listening
  beforeEach(async () => {
    mine = await listenAs(member.visitor, server)
    return () => mine.stop()
  })

  test('tell only of which topics something changed, and only to whom it concerns', async () => {
    await owner.change(describing(ids.secret, 'nobody else sees this'))
    await owner.change(share(ids.secret, guest.id, reader))
    const applied = await owner.change(share(ids.page, member.id, 0b11111))
    await mine.until(1)
    expect(mine.heard.map(({ event, data }) => [event, data.revision])).toEqual([
      ['changed', applied.body.revision],
    ])
    const { id, revision, topics, ...more } = mine.heard[0]?.data ?? {}
    expect([typeof id, revision, more]).toEqual(['string', applied.body.revision, {}])
    // The place by its id, since it is seen now; of the hidden one nothing.
    expect(topics?.toSorted()).toEqual(['access', 'history', `node:${ids.page}`, 'notifications', 'own'])
  })

  test('a page’s text and one’s read marks are told too', async () => {
    await owner.call('PUT', `${at}/nodes/${ids.page}/text`, { text: 'Tide at six', version: 0 })
    await member.visitor.call('POST', `${at}/notifications/read`, { isRead: true })
    await mine.until(2)
    expect(mine.heard.map(each => each.event)).toEqual(['changed', 'changed'])
  })

  test('after a lost connection go on where they were, without gaps or doubles', async () => {
    await owner.change(share(ids.inner, member.id, 0b111))
    await mine.until(1)
    mine.stop()
    const missed: number[] = []
    for (let index = 0; index < 5; index += 1) {
      const gift = await owner.change(share(ids.inner, member.id, 0b1111))
      missed.push(gift.body.revision)
      await owner.change(describing(ids.secret, `hidden ${index}`))
    }
    const again = await listenAs(member.visitor, server, mine.lastId)
    const now = await owner.change(share(ids.inner, member.id, 0b1))
    await again.until(6)
    expect(again.heard.map(each => each.data.revision)).toEqual([...missed, now.body.revision])
    again.stop()
  })

  test('after a restart say that everything has to be asked for anew', async () => {
    await owner.change(share(ids.inner, member.id, 0b11))
    await mine.until(1)
    await server.restart()
    const again = await listenAs(member.visitor, server, mine.lastId)
    await again.until(1)
    expect(again.heard[0]?.event).toBe('all')
    again.stop()
  })

  test('end for somebody who is suspended or has signed out, and are refused to whoever is not in', async () => {
    await owner.change({ kind: 'person.suspend', person: member.id })
    await mine.ended
    expect(mine.heard.at(-1)?.event).toBe('gone')
    expect((await member.visitor.get(`${at}/live`)).status).toBe(403)
    await owner.change({ kind: 'person.reactivate', person: member.id })
    const leaving = await listenAs(guest.visitor, server)
    await guest.visitor.call('DELETE', '/session')
    await leaving.ended
    expect((await guest.visitor.get(`${at}/live`)).status).toBe(401)
  })
})

describe('notifications', () => {
  const inbox = async () => (await member.visitor.get<NotificationsView>(`${at}/notifications`)).body
  const texts = async () => (await inbox()).notifications.map(each => each.text)

  test('tell what is opened, what changes and what is lost, and name nothing that is lost', async () => {
    await owner.change(share(ids.secret, member.id, reader))
    expect((await texts())[0]).toBe('Ona shared Hidden Nests with you. You have Reader.')
    const raised = await owner.change(share(ids.secret, member.id, 0b111))
    expect((await texts())[0]).toBe('Ona changed your access to Hidden Nests. You now have Commenter.')
    expect(raised.status).toBe(200)
    await owner.change({
      kind: 'limit.add',
      node: ids.secret,
      principal: `person:${member.id}`,
      allows: 0,
      sparesStewards: true,
      from: null,
      until: null,
    })
    expect((await texts())[0]).toBe('You have lost access to something.')
    expect((await texts()).join()).not.toContain('Hidden')
  })

  test('are marked read and unread, one by one or all', async () => {
    const { notifications, unread } = await inbox()
    expect(unread).toBe(notifications.filter(each => !each.isRead).length)
    const [first] = notifications
    const { body: one } = await member.visitor.call<NotificationsView>('POST', `${at}/notifications/read`, {
      ids: [first?.id],
      isRead: true,
    })
    expect(one.unread).toBe(unread - 1)
    await guest.visitor.call('POST', `${at}/notifications/read`, { ids: [first?.id], isRead: false })
    const { body: all } = await member.visitor.call<NotificationsView>('POST', `${at}/notifications/read`, {
      isRead: true,
    })
    expect(all.unread).toBe(0)
  })

  test('go out by mail too, with a part in plain text, unless their reader chose otherwise', async () => {
    const mails = async () => {
      const { body } = await owner.get<{ to: string; subject: string; text: string }[]>('/mailbox')
      return body.filter(each => each.to === 'mika@test.example' && each.subject.includes('Maps'))
    }
    const choose = (choice: string) =>
      member.visitor.call<NotificationsView>('PUT', `${at}/notifications/choices`, {
        kind: 'changed',
        choice,
      })
    expect((await choose('not at all')).body.choices.find(each => each.kind === 'changed')?.choice).toBe(
      'not at all',
    )
    const before = await inbox()
    await owner.change(share(ids.inner, member.id, 0b11111))
    expect((await inbox()).notifications).toHaveLength(before.notifications.length)
    await server.restart()
    await owner.change(share(ids.inner, member.id, 0b111))
    expect((await inbox()).notifications).toHaveLength(before.notifications.length)
    await choose('here only')
    await owner.change(share(ids.inner, member.id, 0b111111))
    expect((await inbox()).notifications).toHaveLength(before.notifications.length + 1)
    await choose('by mail too')
    const count = (await mails()).length
    await owner.change(share(ids.inner, member.id, 0b1111111))
    await owner.change(describing(ids.secret, 'waits for the mail'))
    await expect.poll(async () => (await mails()).length).toBe(count + 1)
    expect((await mails())[0]?.text).toContain(`/content/${ids.inner}`)
    expect(
      (
        await member.visitor.call('PUT', `${at}/notifications/choices`, {
          kind: 'nonsense',
          choice: 'here only',
        })
      ).status,
    ).toBe(404)
  })
})
