import { type Static, type TSchema, Type } from '@sinclair/typebox'
import { acts } from '#core/changes/fact.ts'
import { allActions } from '#core/levels/action.ts'
import { allPrivileges } from '#core/levels/privilege.ts'

/** JSON Schemas of all that comes in, each with its type. Nothing reaches a service unchecked. */

const text = (maxLength: number, minLength = 0) => Type.String({ minLength, maxLength })
/** A name as people give it: not empty, not only blanks. */
const name = Type.String({ minLength: 1, maxLength: 200, pattern: '\\S' })
const mail = Type.String({ format: 'email', maxLength: 254 })
const password = text(200, 1)
/** An id that stands, or `new:x` for something made in the same request and referred to there. */
const id = Type.String({ pattern: '^(new:)?[a-z0-9-]{1,40}$' })
const instant = Type.Integer({ minimum: 0, maximum: 8.64e15 })
const orNull = <T extends TSchema>(schema: T) => Type.Union([schema, Type.Null()])
const kind = <K extends string>(value: K) => Type.Literal(value)
const strict = { additionalProperties: false }

export const principal = Type.Unsafe<
  `person:${string}` | `team:${string}` | `leads:${string}` | 'everyone' | 'guests' | 'anyone'
>(Type.String({ pattern: '^((person|team|leads):(new:)?[a-z0-9-]{1,40}|everyone|guests|anyone)$' }))

const principals = Type.Array(principal, { maxItems: 200 })
/** A role's rank: between nothing and the owner's. */
const rung = Type.Integer({ minimum: 1, maximum: 99 })
const privilegeNames = Type.Array(Type.Union(allPrivileges.map(each => kind(each))), {
  maxItems: allPrivileges.length,
  uniqueItems: true,
})

/** The mask of a closed set that is not empty. */
const set = Type.Integer({ minimum: 1, maximum: 1023 })
/** The same, or the id of a level of the workspace's own. */
const gives = Type.Union([set, id])
/** The mask of what a limit leaves; 0 for nothing. */
const allows = Type.Integer({ minimum: 0, maximum: 1023 })
const joining = Type.Union([kind('everyone'), kind('open'), kind('request'), kind('unlisted')])
const nodeKind = Type.Union([kind('folder'), kind('board'), kind('row'), kind('page'), kind('file')])

const scope = Type.Union([
  Type.Object({ over: kind('workspace') }, strict),
  Type.Object({ over: kind('guests') }, strict),
  Type.Object({ over: kind('team'), team: id }, strict),
])

const edits = {
  'person.invite': {
    person: id,
    mail,
    name: text(200),
    as: Type.Union([kind('member'), kind('guest')]),
    role: orNull(id),
    scope,
    until: orNull(instant),
    message: text(2000),
  },
  'invitation.withdraw': { person: id },
  'invitation.renew': { person: id },
  'team.create': { team: id, home: id, name, note: text(2000), joining, welcomesGuests: Type.Boolean() },
  'team.change': {
    team: id,
    name: Type.Optional(name),
    note: Type.Optional(text(2000)),
    joining: Type.Optional(joining),
    welcomesGuests: Type.Optional(Type.Boolean()),
    allowsPublishing: Type.Optional(Type.Boolean()),
    posting: Type.Optional(Type.Union([kind('everyone'), kind('members'), kind('leads')])),
    addressing: Type.Optional(Type.Union([kind('everyone'), kind('leads')])),
    keptByDirectory: Type.Optional(Type.Boolean()),
  },
  'member.add': { team: id, person: id, lead: Type.Boolean(), from: orNull(instant), until: orNull(instant) },
  'member.change': {
    team: id,
    person: id,
    lead: Type.Optional(Type.Boolean()),
    until: Type.Optional(orNull(instant)),
  },
  'member.take': { team: id, person: id },
  'home.create': { node: id, name },
  'node.create': { node: id, parent: id, as: nodeKind, name },
  'node.describe': { node: id, name: Type.Optional(name), note: Type.Optional(text(2000)) },
  'grant.add': { node: id, principal, gives, from: orNull(instant), until: orNull(instant) },
  'grant.change': { grant: id, gives: Type.Optional(gives), until: Type.Optional(orNull(instant)) },
  'grant.end': { grant: id },
  'limit.add': {
    node: id,
    principal,
    allows,
    sparesStewards: Type.Boolean(),
    from: orNull(instant),
    until: orNull(instant),
  },
  'limit.change': {
    limit: id,
    allows: Type.Optional(allows),
    sparesStewards: Type.Optional(Type.Boolean()),
    until: Type.Optional(orNull(instant)),
  },
  'limit.end': { limit: id },
  'node.break': { node: id, mode: Type.Union([kind('keep'), kind('empty')]) },
  'node.restore': { node: id, drop: Type.Union([kind('copies'), kind('none'), kind('own')]) },
  'node.move': { node: id, parent: id },
  'node.state': {
    node: id,
    archived: Type.Optional(Type.Boolean()),
    binned: Type.Optional(Type.Boolean()),
    draft: Type.Optional(Type.Boolean()),
  },
  'person.suspend': { person: id },
  'person.resume': { person: id },
  'node.web': { node: id, web: orNull(Type.Union([kind('published'), kind('excluded')])) },
  'node.order': { node: id, order: Type.Number() },
  'team.archive': { team: id, archived: Type.Boolean() },
  'level.create': { level: id, name, note: text(2000), actions: set },
  'level.change': {
    level: id,
    name: Type.Optional(name),
    note: Type.Optional(text(2000)),
    actions: Type.Optional(set),
  },
  'level.delete': { level: id },
  'workspace.change': {
    name: Type.Optional(name),
    timeZone: Type.Optional(text(60, 1)),
    guestCeiling: Type.Optional(allows),
    allowsPublishing: Type.Optional(Type.Boolean()),
    defaultRole: Type.Optional(id),
  },
  'person.end': { person: id, until: orNull(instant) },
  'person.describe': { person: id, name: Type.Optional(name), title: Type.Optional(text(200)) },
  'role.give': { person: id, role: id, scope, from: orNull(instant), until: orNull(instant) },
  'role.take': { holding: id },
  'node.delete': { node: id },
  'node.duplicate': { node: id, parent: id, name },
  'person.remove': { person: id },
  'person.turn': {
    person: id,
    as: Type.Union([kind('member'), kind('guest')]),
    taker: orNull(id),
  },
  'access.recover': { node: id, taker: id, limits: Type.Array(id, { maxItems: 20 }) },
  'role.create': {
    role: id,
    name,
    note: text(2000),
    rung,
    privileges: privilegeNames,
    callable: Type.Boolean(),
    free: Type.Boolean(),
  },
  'role.change': {
    role: id,
    name: Type.Optional(name),
    note: Type.Optional(text(2000)),
    rung: Type.Optional(rung),
    privileges: Type.Optional(privilegeNames),
    callable: Type.Optional(Type.Boolean()),
    free: Type.Optional(Type.Boolean()),
  },
  'role.delete': { role: id },
  'seats.change': {
    seats: Type.Optional(orNull(Type.Integer({ minimum: 1, maximum: 1_000_000 }))),
    suspendedHoldSeats: Type.Optional(Type.Boolean()),
  },
  'column.create': {
    column: id,
    board: id,
    name,
    order: Type.Number(),
    viewers: orNull(principals),
    editors: orNull(principals),
  },
  'column.change': {
    column: id,
    name: Type.Optional(name),
    order: Type.Optional(Type.Number()),
    viewers: Type.Optional(orNull(principals)),
    editors: Type.Optional(orNull(principals)),
  },
  'column.delete': { column: id },
  'channel.create': { channel: id, team: id, name, note: text(2000), only: orNull(principals) },
  'channel.change': {
    channel: id,
    name: Type.Optional(name),
    note: Type.Optional(text(2000)),
    only: Type.Optional(orNull(principals)),
    archived: Type.Optional(Type.Boolean()),
  },
  undo: { revision: Type.Integer({ minimum: 1 }) },
} as const

export type EditRequestKind = keyof typeof edits

/** One edit as it comes in. What only the server may decide (ids, when a link dies) is not part of it. */
export type EditRequest = {
  [K in EditRequestKind]: { kind: K } & Static<ReturnType<typeof Type.Object<(typeof edits)[K]>>>
}[EditRequestKind]

// One schema a kind, chosen by `kind`, so that a fault is told for the kind that was meant.
const editRequest = Type.Unsafe<EditRequest>({
  type: 'object',
  required: ['kind'],
  discriminator: { propertyName: 'kind' },
  oneOf: Object.entries(edits).map(([name, fields]) => editObject(name, fields)),
})

/** An edit whose fields may all be left out must still say something. */
function editObject(name: string, fields: Record<string, TSchema>) {
  const object = Type.Object({ kind: kind(name), ...fields }, strict)
  const needed = object.required.length
  return needed < Object.keys(object.properties).length ? { ...object, minProperties: needed + 1 } : object
}

export const changeSetRequest = Type.Object(
  {
    reason: Type.Optional(text(500)),
    /** What its author saw that it would do. */
    seen: Type.Optional(text(100)),
    edits: Type.Array(editRequest, { minItems: 1, maxItems: 2000 }),
  },
  strict,
)
export type ChangeSetRequest = Static<typeof changeSetRequest>

export const signInRequest = Type.Object({ mail: text(254, 1), password }, strict)
export type SignInRequest = Static<typeof signInRequest>

export const setUpRequest = Type.Object(
  { workspace: name, timeZone: text(60, 1), name, mail, password },
  strict,
)
export type SetUpRequest = Static<typeof setUpRequest>

const token = Type.String({ pattern: '^[A-Za-z0-9_.-]{10,200}$' })
export const invitationRequest = Type.Object({ token }, strict)

/** The name is left out by somebody who has an account already. */
export const acceptRequest = Type.Object({ token, name: Type.Optional(name), password }, strict)
export type AcceptRequest = Static<typeof acceptRequest>

export const textRequest = Type.Object({ text: text(200_000), version: Type.Integer({ minimum: 0 }) }, strict)
export type TextRequest = Static<typeof textRequest>

const choice = Type.Union([kind('by mail too'), kind('here only'), kind('not at all')])
export const noticeChoiceRequest = Type.Object({ kind: text(40, 1), choice }, strict)
export type NoticeChoiceRequest = Static<typeof noticeChoiceRequest>

/** Without ids: all of them. */
export const readNoticesRequest = Type.Object(
  { ids: Type.Optional(Type.Array(id, { maxItems: 500 })), isRead: Type.Boolean() },
  strict,
)
export type ReadNoticesRequest = Static<typeof readNoticesRequest>

const act = Type.Union(acts.map(each => kind(each)))
const wholeNumber = Type.String({ pattern: '^[0-9]{1,9}$' })
export const historyQuery = Type.Object(
  {
    person: Type.Optional(id),
    place: Type.Optional(id),
    act: Type.Optional(act),
    /** Only entries before this revision. */
    before: Type.Optional(wholeNumber),
  },
  strict,
)
export type HistoryQuery = Static<typeof historyQuery>

export const revisionParams = Type.Object({ slug: text(60, 1), revision: wholeNumber })
export const liveQuery = Type.Object({ after: Type.Optional(text(60)) }, strict)

/** With a column, about that column in a row, or on its board. */
const question = Type.Object({ person: id, place: id, column: Type.Optional(id) }, strict)
export const checkRequest = Type.Object(
  { questions: Type.Array(question, { minItems: 1, maxItems: 1000 }) },
  strict,
)
export type CheckRequest = Static<typeof checkRequest>

const instantText = Type.String({ pattern: '^[0-9]{1,16}$' })
export const pageQuery = Type.Object({ from: Type.Optional(wholeNumber) }, strict)
export type PageQuery = Static<typeof pageQuery>
/** The same, about a past instant. */
export const pastQuery = Type.Object(
  { from: Type.Optional(wholeNumber), at: Type.Optional(instantText) },
  strict,
)
export const diffQuery = Type.Object(
  { from: instantText, to: instantText, person: Type.Optional(id), place: Type.Optional(id) },
  strict,
)
export type DiffQuery = Static<typeof diffQuery>
export const whyNotParams = Type.Object({
  slug: text(60, 1),
  id: text(60, 1),
  person: text(60, 1),
  action: Type.Union(allActions.map(each => kind(each))),
})

export const slugParams = Type.Object({ slug: text(60, 1) })
export const columnParams = Type.Object({ slug: text(60, 1), id: text(60, 1), column: text(60, 1) })
export const idParams = Type.Object({ slug: text(60, 1), id: text(60, 1) })
export const whyParams = Type.Object({ slug: text(60, 1), id: text(60, 1), person: text(60, 1) })
