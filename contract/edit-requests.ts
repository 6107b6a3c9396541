import { type Static, type TSchema, Type } from '@sinclair/typebox'
import { allPrivileges } from '#core/levels/privilege.ts'
import { id, instant, kind, mail, name, orNull, strict, text } from './pieces.ts'

/** JSON Schemas of edits as they come in. What only the server may decide (ids, when a link dies) is not part of them. */

const principal = Type.Unsafe<
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

const roleWanted = Type.Union([
  Type.Object({ role: id }, strict),
  Type.Object({ privilege: Type.Union(allPrivileges.map(each => kind(each))) }, strict),
])

/** What is not a handle is refused in words, by the core. */
const handle = text(60, 1)
const profile = Type.Object(
  {
    handle: Type.Optional(handle),
    title: Type.Optional(text(200)),
    department: Type.Optional(text(200)),
    country: Type.Optional(text(100)),
  },
  strict,
)

/** Mail domains, in small letters. */
const domains = Type.Array(Type.String({ pattern: '^[a-z0-9-]+(\\.[a-z0-9-]+)+$', maxLength: 253 }), {
  maxItems: 100,
  uniqueItems: true,
})

/** What somebody who comes in is given. */
export const offer = Type.Object(
  {
    as: Type.Union([kind('member'), kind('guest')]),
    role: orNull(id),
    teams: Type.Array(id, { maxItems: 100, uniqueItems: true }),
    places: Type.Array(Type.Object({ node: id, gives }, strict), { maxItems: 100 }),
    from: orNull(instant),
    until: orNull(instant),
  },
  strict,
)
export type OfferRequest = Static<typeof offer>

const edits = {
  'person.invite': {
    person: id,
    mail,
    name: text(200),
    as: Type.Union([kind('member'), kind('guest')]),
    role: orNull(id),
    scope,
    from: Type.Optional(orNull(instant)),
    until: orNull(instant),
    message: text(2000),
    profile: Type.Optional(profile),
    welcome: Type.Optional(orNull(id)),
    mailed: Type.Optional(Type.Boolean()),
  },
  'invitation.change': {
    person: id,
    name: Type.Optional(text(200)),
    role: Type.Optional(id),
    from: Type.Optional(orNull(instant)),
    until: Type.Optional(orNull(instant)),
    message: Type.Optional(text(2000)),
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
    picture: Type.Optional(orNull(id)),
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
  'team.delete': { team: id },
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
    picture: Type.Optional(orNull(id)),
    memberDomains: Type.Optional(domains),
    guestDomains: Type.Optional(domains),
    invitationDays: Type.Optional(Type.Integer({ minimum: 1, maximum: 365 })),
    houseRules: Type.Optional(text(20_000)),
    secondFactorFor: Type.Optional(Type.Array(id, { maxItems: 50, uniqueItems: true })),
  },
  'person.end': { person: id, until: orNull(instant) },
  'person.describe': {
    person: id,
    name: Type.Optional(name),
    handle: Type.Optional(orNull(handle)),
    title: Type.Optional(text(200)),
    department: Type.Optional(text(200)),
    country: Type.Optional(text(100)),
    picture: Type.Optional(orNull(id)),
  },
  'person.contact': { person: id, contact: id },
  'request.make': { team: id, word: text(1000) },
  'request.withdraw': { request: id },
  'request.answer': { request: id, accepted: Type.Boolean(), word: text(1000) },
  'welcome.create': { welcome: id, name, note: text(2000), offer },
  'welcome.change': {
    welcome: id,
    name: Type.Optional(name),
    note: Type.Optional(text(2000)),
    offer: Type.Optional(offer),
  },
  'welcome.delete': { welcome: id },
  'link.create': {
    link: id,
    name,
    until: instant,
    domains,
    most: orNull(Type.Integer({ minimum: 1, maximum: 10_000 })),
    welcome: orNull(id),
    offer,
  },
  'link.change': {
    link: id,
    name: Type.Optional(name),
    until: Type.Optional(instant),
    domains: Type.Optional(domains),
    most: Type.Optional(orNull(Type.Integer({ minimum: 1, maximum: 10_000 }))),
  },
  'link.withdraw': { link: id },
  'role.give': { person: id, role: id, scope, from: orNull(instant), until: orNull(instant) },
  'role.take': { holding: id },
  'node.delete': { node: id },
  'node.duplicate': { node: id, parent: id, name },
  'person.remove': { person: id, contact: Type.Optional(orNull(id)) },
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
  'role.ask': { wants: roleWanted, word: text(1000) },
  'role.unask': { request: id },
  'role.answer': {
    request: id,
    word: text(1000),
    gives: orNull(Type.Object({ role: id, scope, until: orNull(instant) }, strict)),
  },
  'handover.offer': { to: id, keeps: id, word: text(1000) },
  'handover.withdraw': { handover: id },
  'handover.answer': { handover: id, accepted: Type.Boolean() },
  'access.ask': { node: id, wants: set, word: text(1000) },
  'access.unask': { request: id },
  'access.answer': {
    request: id,
    word: text(1000),
    gives: orNull(Type.Object({ gives, until: orNull(instant) }, strict)),
  },
  'watch.begin': { node: id },
  'watch.end': { watch: id },
  'look.begin': { look: id, through: orNull(id), word: text(500) },
  'seats.change': {
    seats: Type.Optional(orNull(Type.Integer({ minimum: 1, maximum: 1_000_000 }))),
    suspendedHoldSeats: Type.Optional(Type.Boolean()),
    /** At once, if nothing is said. */
    when: Type.Optional(Type.Union([kind('now'), kind('next period')])),
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

/** One edit as it comes in. */
export type EditRequest = {
  [K in EditRequestKind]: { kind: K } & Static<ReturnType<typeof Type.Object<(typeof edits)[K]>>>
}[EditRequestKind]

/**
 * Acts that can be gathered with others before they are made. Each names what it is about by the fields `node`,
 * `parent`, `grant`, `limit`, `principal`, `team`, `person`, `holding`, `role` and `level` alone.
 */
export const gatherableKinds = [
  'grant.add',
  'grant.change',
  'grant.end',
  'limit.add',
  'limit.change',
  'limit.end',
  'node.create',
  'node.break',
  'node.restore',
  'node.move',
  'node.web',
  'node.state',
  'member.add',
  'member.change',
  'member.take',
  'role.give',
  'role.take',
  'person.end',
  'level.change',
] as const satisfies readonly EditRequestKind[]

export const isGatherable = (kind: EditRequestKind): boolean =>
  (gatherableKinds as readonly EditRequestKind[]).includes(kind)

// One schema a kind, chosen by `kind`, so that a fault is told for the kind that was meant.
export const editRequest = Type.Unsafe<EditRequest>({
  type: 'object',
  required: ['kind'],
  discriminator: { propertyName: 'kind' },
  oneOf: Object.entries(edits).map(([name, fields]) => editObject(name, fields)),
})

/** An edit that changes some fields of something has to say at least one. */
function editObject(name: string, fields: Record<string, TSchema>) {
  const object = Type.Object({ kind: kind(name), ...fields }, strict)
  const isChange = /\.(change|describe|state)$/.test(name)
  return isChange ? { ...object, minProperties: object.required.length + 1 } : object
}
