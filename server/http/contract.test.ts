import type { WrittenCells } from '#contract/views/boards.ts'
import { plainView } from '#core/boards/view.ts'
import { Validator } from '@seriousme/openapi-schema-validator'
import { generate } from 'otplib'
import sharp from 'sharp'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { addressOf, type Operation, operationNames, operations } from '#contract/operations.ts'
import { isSchema, type Route } from '#contract/route.ts'
import { routes } from '#contract/routes.ts'
import type { AccountView, MailView, TwoStepView } from '#contract/views/account.ts'
import { description } from './openapi.ts'
import { invite, password, tokenFor, Visitor, welcome } from '../tests/client.ts'
import {
  at,
  boardIn,
  type Coast,
  coast,
  editor,
  offer,
  onboarding,
  reader,
  share,
  steward,
  teamOf,
} from '../tests/coast.ts'
import { pdf } from '../tests/samples.ts'
import { fileIn } from '../tests/uploads.ts'

import { operationOf } from '../tests/contract.ts'

/** The table of routes is what the server does: the description is made of it, and every operation is asked once. */
let world: Coast
let owner: Visitor
let things: Readonly<Record<string, string>>

beforeAll(async () => {
  world = await coast()
  ;({ owner } = world)
  const made = async (...edits: object[]) => {
    const { status, body } = await owner.change(...edits)
    if (status !== 200) throw new Error(JSON.stringify(body))
    return body.made
  }
  const { ids, ownerId, member } = world
  things = {
    ...(await made(...teamOf(ownerId, { name: 'Boats' }), ...onboarding)),
    ...(await made(
      ...boardIn(ids.folder),
      { kind: 'node.create', node: 'new:row', parent: 'new:board', as: 'row', name: 'Kite' },
      share(ids.folder, member.id, editor),
      invite('waiting@test.example'),
    )),
    ...(await made({
      kind: 'session.begin',
      session: 'new:session',
      through: member.id,
      reason: 'They asked',
    })),
  }
}, 90_000)
afterAll(() => world.server.stop())

test('the description is an OpenAPI 3.1 document that names every operation and nothing else', async () => {
  const { body } = await owner.get<typeof description>('/openapi.json')
  expect(await new Validator().validate(structuredClone(body))).toMatchObject({ valid: true })
  const named = Object.values(body['paths'] as Record<string, Record<string, { operationId: string }>>)
    .flatMap(each => Object.values(each).map(({ operationId }) => operationId))
    .toSorted()
  expect(named).toEqual(operationNames.toSorted())
})

interface Ask {
  readonly params?: Readonly<Record<string, string>>
  readonly query?: string
  readonly body?: unknown
  readonly as?: Visitor
}

const table = { rows: [{ mail: 'row@test.example', name: 'Row' }], offer, welcome: null }
const edits = () => [{ kind: 'node.describe', node: world.ids.folder, note: 'Sand' }]
const draftable = () => [share(world.ids.inner, world.member.id, reader)]

async function linkTo(mail: string): Promise<string> {
  const { body } = await owner.get<MailView[]>('/mailbox')
  const found = body.flatMap(each =>
    each.to === mail ? (/account-link#(\S+)/.exec(each.text)?.[1] ?? []) : [],
  )
  return found[0] ?? Promise.reject(new Error(`no link came to ${mail}`))
}

test('every operation is answered as the table says', async () => {
  const { ids, member, server } = world
  const covered = new Set<Operation>()
  const ask = async <T>(operation: Operation, { params = {}, query = '', body, as = owner }: Ask = {}) => {
    const [method] = operations[operation]
    const path = addressOf(operation, { slug: 'coast', ...params }) + query
    expect(operationOf(method, path)).toBe(operation)
    const route: Route = routes[operation]
    const status = route.status ?? (isSchema(route.answer) ? 200 : 204)
    const sent = method === 'GET' || method === 'DELETE' ? undefined : (body ?? {})
    // Its schema is held against the answer by whoever calls.
    const got = await as.call<T>(method, path, sent)
    expect([operation, got.status]).toEqual([operation, status])
    covered.add(operation)
    return got.body
  }
  const codeOf = (secret: string) => generate({ secret, epoch: Math.floor(server.time.now / 1000) })
  const at = (id: string | undefined, more: object = {}) => ({ params: { id: id ?? '', ...more } })

  // Within the workspace, what only tells.
  for (const operation of [
    ...(['workspace', 'settings', 'onboarding', 'myAccess', 'teams', 'bin', 'tree', 'peopleNames'] as const),
    ...(['people', 'peopleIds', 'roles', 'owners', 'seats', 'requests', 'viewingSessions'] as const),
    ...(['history', 'notifications', 'drafts', 'mailbox', 'session', 'account', 'description'] as const),
  ])
    await ask(operation)
  for (const operation of [
    'node',
    'children',
    'changesWithin',
    'access',
    'ownAccess',
    'peopleWithAccess',
  ] as const)
    await ask(operation, at(ids.folder))
  await ask('text', at(ids.page))
  await ask('saveText', { ...at(ids.page), body: { text: 'By boat', version: 0 } })
  await ask('textVersions', at(ids.page))
  await ask('textVersion', at(ids.page, { version: '1' }))
  const file = await fileIn(server, owner, { name: 'f', bytes: Buffer.from('By boat'), place: ids.folder })
  await ask('file', at(file))
  await ask('fileVersions', at(file))
  await ask('restoreFileVersion', at(file, { version: '1' }))
  await ask('filePreview', at(file))
  const page = await fileIn(server, owner, { name: 'p', bytes: pdf('Sluice'), place: ids.folder })
  await ask('filePreviewWords', at(page, { page: '1' }))
  await ask('uploads')
  await ask('storage')
  await ask('columns', at(things['new:board']))
  await ask('peopleOfColumn', at(things['new:board'], { column: things['new:column'] }))
  const board = things['new:board']
  await ask('board', at(board))
  const made = await ask<WrittenCells>('writeCells', {
    ...at(board),
    body: {
      rows: [{ row: 'new:row', section: null }],
      cells: [
        { row: 'new:row', column: 'name', value: 'Dinghy', seen: 0 },
        { row: 'new:row', column: things['new:column'], value: '40', seen: 0 },
      ],
    },
  })
  const row = made.made['new:row'] ?? ''
  await ask('boardRows', { ...at(board), query: '?where=name~contains~din&sort=-name&from=0&count=10' })
  await ask('boardTotals', at(board))
  await ask('conversion', {
    ...at(board, { column: things['new:column'] }),
    body: { as: 'number', settings: { places: 0, unit: '', foot: 'sum' } },
  })
  await ask('editCell', { ...at(board), body: { cell: { row, column: 'name' } } })
  await ask('editedCells', at(board))
  const view = await ask<{ id: string }>('saveOwnView', {
    ...at(board),
    body: { view: null, name: 'Mine', state: plainView },
  })
  await ask('deleteOwnView', at(board, { view: view.id }))
  await ask('saveOwnColumns', {
    ...at(board),
    body: { columns: { shown: [{ column: 'name', width: 200 }], hidden: [] } },
  })
  await ask('putRows', { ...at(board), body: { rows: [row], before: null, section: null } })
  const boats = {
    columns: [{ column: 'name', as: 'text', settings: {}, decimal: '.', isDayFirst: true }],
    key: 0,
    rows: [['Dinghy'], ['Punt']],
  }
  const judged = await ask<{ rows: { verdict: string }[] }>('judgeRows', { ...at(board), body: boats })
  expect(judged.rows.map(each => each.verdict)).toEqual(['as it is', 'new'])
  await ask('importRows', { ...at(board), body: { ...boats, reason: '', seen: Date.now() } })
  await ask('row', at(row))
  await ask('rowHistory', at(row))
  const comment = await ask<{ id: string }>('writeComment', {
    ...at(row),
    body: { text: 'Oars?', thread: null },
  })
  await ask('comments', at(row))
  await ask('reach', { ...at(row), body: { people: [member.id], places: [ids.secret] } })
  await ask('editComment', { ...at(row, { comment: comment.id }), body: { text: 'Both oars?' } })
  await ask('resolveComment', { ...at(row, { comment: comment.id }), body: { isResolved: true } })
  await ask('removeComment', at(row, { comment: comment.id }))
  await ask('moveTargets', { ...at(ids.inner), query: '?find=a' })
  await ask('accessToCopy', { ...at(ids.inner), query: `?from=${ids.folder}&what=access` })
  await ask('explanation', at(ids.folder, { person: member.id }))
  await ask('whyNot', at(ids.secret, { person: member.id, action: 'change' }))
  await ask('places', { query: '?find=Du' })
  await ask('search', { query: '?find=Du&kind=folder&since=0&from=0' })
  await ask('placesToCheck', { query: '?find=Du' })
  await ask('grants', { query: `?places=${ids.folder}` })
  await ask('diff', { query: `?from=0&to=${server.time.now}` })
  await ask('check', { body: { questions: [{ person: member.id, place: ids.folder }] } })
  for (const operation of [
    'person',
    'accessOfPerson',
    'placesOfPerson',
    'offboarding',
    'rolesToAssign',
  ] as const)
    await ask(operation, at(member.id))
  await ask('holders', at('role-member'))
  await ask('viewed', at(things['new:session']))
  await ask('auditEntry', { params: { revision: '2' } })

  // What works something out.
  await ask('preview', { body: { edits: edits() } })
  await ask('change', { body: { edits: edits() } })
  await ask('judgeAddresses', { body: { as: 'member', addresses: [{ mail: 'a@test.example', name: '' }] } })
  await ask('previewOffer', { body: { offer } })
  await ask('judgeImport', { body: table })
  await ask('passOnInvitation', at(things['new:person']))
  await ask('sendSignInLink', at(member.id))

  // Drafts and notifications.
  const { draft } = await ask<{ draft: { id: string } }>('addToDraft', { body: { edits: draftable() } })
  for (const operation of ['draft', 'draftItems', 'draftRecipients'] as const)
    await ask(operation, at(draft.id))
  await ask('changeDraft', { ...at(draft.id), body: { name: 'For later' } })
  const keeper = await welcome(server, owner, { name: 'Kit' })
  expect((await owner.change(share(ids.home, keeper.id, steward))).status).toBe(200)
  const again = await ask<{ kept: { id: string }[] }>('drafts')
  await ask('handOverDraft', { ...at(again.kept[0]?.id), body: { to: keeper.id, comment: 'Please' } })
  const other = await ask<{ draft: { id: string } }>('addToDraft', { body: { edits: draftable() } })
  await ask('discardDraft', at(other.draft.id))
  await ask('readNotifications', { body: { isRead: true } })
  await ask('chooseNotifications', { body: { kind: 'changed', choice: 'here only' } })

  // Accounts and the ways in.
  await ask('changeAccount', { body: { language: 'en' } })
  await ask('confirmAddress', { as: member.visitor })
  await ask('resetPassword', { body: { mail: 'gus@test.example' } })
  const { secret } = await ask<TwoStepView>('beginTwoStep', { as: keeper.visitor, body: { password } })
  await ask('confirmTwoStep', { as: keeper.visitor, body: { code: await codeOf(secret) } })
  server.time.now += 60_000
  await ask('endTwoStep', {
    as: keeper.visitor,
    body: { password, code: await codeOf(secret) },
  })
  const newcomer = new Visitor(server)
  const token = await tokenFor(owner, 'waiting@test.example')
  await ask('readInvitation', { as: newcomer, body: { token } })
  const came = await newcomer.enter('/invitations/accept', { token, name: 'Wanda', password })
  expect(came.status).toBe(200)
  covered.add('acceptInvitation')
  const second = new Visitor(server)
  expect((await second.enter('/session', { mail: 'waiting@test.example', password })).status).toBe(200)
  covered.add('signIn')
  const { signIns } = await ask<AccountView>('account', { as: second })
  await ask('endSignIn', { as: second, ...at(signIns.find(each => !each.isThis)?.id) })
  await ask('endOtherSignIns', { as: second })
  await ask('changePassword', { as: second, body: { password, next: 'salt marsh at low tide' } })
  const reset = await linkTo('gus@test.example')
  await ask('readAccountLink', { body: { token: reset } })
  await ask('useAccountLink', {
    as: new Visitor(server),
    body: { token: reset, password: 'four herons by the weir' },
  })
  const { joinLinks } = await ask<{ joinLinks: { address: string }[] }>('onboarding')
  const link = joinLinks[0]?.address.split('#')[1]
  await ask('readJoinLink', { as: new Visitor(server), body: { token: link } })
  await ask('joinByLink', { as: new Visitor(server), body: { token: link, mail: 'by.link@test.example' } })
  const { slug } = await ask<{ slug: string }>('createWorkspace', {
    body: { name: 'Second', timeZone: 'Europe/London' },
  })
  const elsewhere = (...some: object[]) => owner.call('POST', `/at/${slug}/changes`, { edits: some })
  expect((await elsewhere(invite('mika@test.example'))).status).toBe(200)
  const session = await ask<{ invitations: { id: string }[] }>('session', { as: member.visitor })
  await ask('acceptMine', { as: member.visitor, ...at(session.invitations[0]?.id), body: { agrees: true } })
  await ask('endTheirSignIns', at(keeper.id))
  await ask('signOut', { as: second })

  // What is no JSON is asked for by tests of its own; the first workspace is there already.
  const picture = await sharp({ create: { width: 9, height: 9, channels: 3, background: 'red' } })
    .png()
    .toBuffer()
  const kept = await fetch(`${server.address}/api/at/coast/pictures`, {
    method: 'POST',
    body: new Uint8Array(picture),
    headers: {
      cookie: owner.cookie,
      'x-noskel-csrf': owner.csrf,
      'content-type': 'application/octet-stream',
    },
  })
  expect(kept.status).toBe(201)
  for (const operation of [
    ...([
      'keepPicture',
      'picture',
      'peopleCsv',
      'boardCsv',
      'live',
      'setUp',
      'fileBytes',
      'fileVersionBytes',
      'filePreviewPage',
      'zip',
      'zipOfPlaces',
    ] as const),
    ...(['uploadProtocol', 'beginUpload', 'uploadOffset', 'appendToUpload', 'endUpload'] as const),
  ])
    covered.add(operation)
  expect(operationNames.filter(each => !covered.has(each))).toEqual([])
})

test('what stands behind the question mark and is not known is refused, everywhere', async () => {
  const path = `${at}/nodes/${world.ids.folder}`
  const { status, body } = await owner.get<{ faults?: object[] }>(`${path}?deep=1`)
  expect([status, body.faults]).toEqual([400, [{ at: 'deep', message: '“deep” is not known here.' }]])
})
