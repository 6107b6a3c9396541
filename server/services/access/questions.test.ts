import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import type { OwnAccessView, PersonAccessView, PlaceAccessView } from '#contract/views/access.ts'
import type { CheckedView, WhyNotView } from '#contract/views/explanation.ts'
import type { DiffView } from '#contract/views/history.ts'
import type { PageView } from '#contract/views/page.ts'
import { type TestServer, type Visitor } from '../../tests/client.ts'
import { at, type Coast, coast, editor, reader, share, steward } from '../../tests/coast.ts'

let server: TestServer
let owner: Visitor
let ownerId: string
let member: Coast['member']
let guest: Coast['guest']
let ids: Coast['ids']

beforeAll(async () => {
  ;({ server, owner, ownerId, member, guest, ids } = await coast())
  await owner.change(share(ids.folder, member.id, editor), share(ids.page, guest.id, reader))
})

afterAll(() => server.stop())

const asking = (visitor: Visitor, questions: object[]) =>
  visitor.call<CheckedView>('POST', `${at}/check`, { questions })

test('check answers many at once: one’s own always, that of others where one shares or may check anyone', async () => {
  const questions = [
    { person: member.id, place: ids.page },
    { person: guest.id, place: ids.page },
    { person: ownerId, place: ids.page },
    { person: member.id, place: ids.secret },
    { person: member.id, place: 'nothing' },
  ]
  const { body: byMember } = await asking(member.visitor, questions)
  expect(byMember.answers).toEqual([{ actions: editor }, null, null, null, null])
  const { body: byOwner } = await asking(owner, questions)
  expect(byOwner.answers).toEqual([
    { actions: editor },
    { actions: reader },
    { actions: steward },
    { actions: 0 },
    null,
  ])
  expect(byOwner.revision).toBeGreaterThan(6)
})

test('who and what come in parts, as far as the asker may be told', async () => {
  const { body: people } = await owner.get<PageView<PersonAccessView>>(`${at}/nodes/${ids.page}/people`)
  expect(people.items.map(each => each.name)).toEqual(['Ona', 'Mika', 'Gus'])
  expect([people.total, people.next]).toEqual([3, null])
  expect(
    (await owner.get<PageView<PersonAccessView>>(`${at}/nodes/${ids.page}/people?from=2`)).body.items,
  ).toHaveLength(1)
  expect((await member.visitor.get(`${at}/nodes/${ids.page}/people`)).status).toBe(404)
  const { body: own } = await guest.visitor.get<PageView<PlaceAccessView>>(`${at}/people/${guest.id}/places`)
  expect(own.items).toEqual([{ id: ids.page, name: 'Map', path: '', actions: reader }])
  const { body: others } = await owner.get<PageView<PlaceAccessView>>(`${at}/people/${member.id}/places`)
  expect(others.items.map(each => each.name)).toEqual(['Dunes', 'Maps', 'Map'])
  expect((await guest.visitor.get(`${at}/people/${member.id}/places`)).status).toBe(404)
})

test('exceptions lists what below a place has entries of its own', async () => {
  const { body } = await owner.get<OwnAccessView>(`${at}/nodes/${ids.home}/own-access`)
  expect(body.below.map(each => [each.name, each.grants])).toEqual([
    ['Dunes', 1],
    ['Map', 1],
  ])
  expect((await member.visitor.get(`${at}/nodes/${ids.folder}/own-access`)).status).toBe(404)
})

test('drafts, archives and what is on the web or kept from it are exceptions, too', async () => {
  const made = await owner.change(
    ...(['draft', 'old', 'web', 'kept'] as const).map(name => ({
      kind: 'node.create',
      node: `new:${name}`,
      parent: ids.home,
      as: 'page',
      name,
    })),
    { kind: 'node.state', node: 'new:draft', draft: true },
  )
  const of = (name: string) => made.body.made[`new:${name}`] ?? ''
  await owner.change(
    { kind: 'node.state', node: of('old'), archived: true },
    { kind: 'node.web', node: of('web'), web: 'published' },
    { kind: 'node.web', node: of('kept'), web: 'excluded' },
  )
  const { body } = await owner.get<OwnAccessView>(`${at}/nodes/${ids.home}/own-access`)
  const shown = body.below.filter(each => each.grants === 0)
  expect(shown.map(({ name, isDraft, isArchived, web }) => [name, isDraft, isArchived, web])).toEqual([
    ['draft', true, false, null],
    ['kept', false, false, 'excluded'],
    ['old', false, true, null],
    ['web', false, false, 'published'],
  ])
})

describe('why not', () => {
  const whyNot = (visitor: Visitor, node: string, person: string, action: string) =>
    visitor.get<WhyNotView>(`${at}/nodes/${node}/why-not/${person}/${action}`)

  test('tells the smallest remedies in words, ready to be applied, and who could', async () => {
    const { body } = await whyNot(owner, ids.page, guest.id, 'comment')
    expect(body).toMatchObject({ may: false, isComplete: true })
    expect(body.remedies[0]).toMatchObject({
      words: ['Give Gus see, comment on Map in Maps'],
      mayI: true,
      others: [],
    })
    const applied = await owner.change(...(body.remedies[0]?.edits ?? []))
    expect(applied.status).toBe(200)
    expect((await whyNot(owner, ids.page, guest.id, 'comment')).body).toMatchObject({
      may: true,
      remedies: [],
    })
  })

  test('is answered to whoever shares there only', async () => {
    const answer = await whyNot(member.visitor, ids.page, member.id, 'share')
    const absent = await whyNot(member.visitor, 'nothing', member.id, 'share')
    expect([answer.status, answer.body]).toEqual([404, absent.body])
    expect((await whyNot(owner, ids.page, guest.id, 'nonsense')).status).toBe(400)
  })
})

describe('the past', () => {
  test('is answered as it was, and the difference between two instants says what made it', async () => {
    const before = server.time.now
    server.time.now += 1000
    const given = await owner.change(share(ids.inner, guest.id, editor))
    server.time.now += 1000
    const between = server.time.now
    const page = (instant: number) =>
      owner.get<PageView<PlaceAccessView>>(`${at}/people/${guest.id}/places?at=${instant}`)
    expect((await page(before)).body.items.map(each => each.name)).toEqual(['Map'])
    expect((await page(between)).body.items.map(each => each.name)).toEqual(['Maps', 'Map'])
    const { body: diff } = await owner.get<DiffView>(
      `${at}/diff?from=${before}&to=${between}&person=${guest.id}`,
    )
    expect(diff.changed.map(each => [each.place.name, each.before, each.after, each.by])).toEqual([
      ['Maps', 0, editor, [given.body.revision]],
      ['Map', 0b111, editor, [given.body.revision]],
    ])
    server.time.now += 1000
    await owner.change({ kind: 'undo', revision: given.body.revision })
    const now = server.time.now
    expect(
      (await owner.get<DiffView>(`${at}/diff?from=${before}&to=${now}&person=${guest.id}`)).body.changed,
    ).toEqual([])
    expect((await page(between)).body.items).toHaveLength(2)
    expect((await page(now + 1_000_000)).status).toBe(404)
    expect((await page(1000)).status).toBe(404)
    const { body: hidden } = await member.visitor.get<DiffView>(`${at}/diff?from=${before}&to=${now}`)
    expect(JSON.stringify(hidden)).not.toContain('Gus')
  })
})
