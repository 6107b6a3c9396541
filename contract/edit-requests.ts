import { type TObject, type TSchema, Type } from '@sinclair/typebox'
import { allPrivileges } from '#core/levels/privilege.ts'
import { boardEdits } from './board-edits.ts'
import {
  address,
  asId,
  instant,
  kind,
  made,
  mail,
  name,
  orNull,
  principal,
  principals,
  ref,
  strict,
  line,
  text,
  type View,
  type CheckedFields,
} from './pieces.ts'

/** JSON Schemas of edits as they come in. What only the server may decide (ids, when a link dies) is not part of them. */

/** A role's rank: between nothing and the owner's. */
const rank = Type.Integer({ minimum: 1, maximum: 99 })
const privilegeNames = Type.Array(Type.Union(allPrivileges.map(each => kind(each))), {
  maxItems: allPrivileges.length,
  uniqueItems: true,
})

/** The mask of a closed set that is not empty. */
const set = Type.Integer({ minimum: 1, maximum: 1023 })
/** The same, or the id of a level of the workspace's own. */
const gives = Type.Union([set, ref('levels')])
/** The mask of what a limit leaves; 0 for nothing. */
const allows = Type.Integer({ minimum: 0, maximum: 1023 })
/** No file is larger, whatever a workspace allows. */
export const mostBytes = 2 ** 40

const joining = Type.Union([kind('everyone'), kind('open'), kind('request'), kind('unlisted')])
/** A file is made of its bytes, by an upload. */
const nodeKind = Type.Union([kind('folder'), kind('board'), kind('row'), kind('page')])

/** Over whom a role is held. */
export const scope = Type.Union([
  Type.Object({ over: kind('workspace') }, strict),
  Type.Object({ over: kind('guests') }, strict),
  Type.Object({ over: kind('team'), team: ref('teams') }, strict),
])
export type ScopeRequest = View<typeof scope>

/** What is asked for: a place by its address, whether or not there is one. */
const wanted = Type.Union([
  Type.Object({ of: kind('team'), team: ref('teams') }, strict),
  Type.Object({ of: kind('role'), role: ref('roles') }, strict),
  Type.Object(
    { of: kind('privilege'), privilege: Type.Union(allPrivileges.map(each => kind(each))) },
    strict,
  ),
  Type.Object({ of: kind('access'), node: address, actions: set }, strict),
])

/** What a request is answered with, by what was asked for. */
const given = Type.Union([
  Type.Object({ of: kind('team') }, strict),
  Type.Object({ of: kind('role'), role: ref('roles'), scope, until: orNull(instant) }, strict),
  Type.Object({ of: kind('access'), gives, until: orNull(instant) }, strict),
])

/** What is not a handle is refused in words, by the core. */
const handle = asId(line(60, 1), 'handles')
const profile = Type.Object(
  {
    handle: Type.Optional(handle),
    title: Type.Optional(line(200)),
    department: Type.Optional(line(200)),
    country: Type.Optional(line(100)),
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
    role: orNull(ref('roles')),
    teams: Type.Array(ref('teams'), { maxItems: 100, uniqueItems: true }),
    places: Type.Array(Type.Object({ node: ref('nodes'), gives }, strict), { maxItems: 100 }),
    from: orNull(instant),
    until: orNull(instant),
  },
  strict,
)
export type OfferRequest = View<typeof offer>

const edits = {
  'person.invite': {
    person: made('persons'),
    mail,
    name: line(200),
    as: Type.Union([kind('member'), kind('guest')]),
    role: orNull(ref('roles')),
    scope,
    from: Type.Optional(orNull(instant)),
    until: orNull(instant),
    message: text(2000),
    profile: Type.Optional(profile),
    welcome: Type.Optional(orNull(ref('welcomeSets'))),
    mailed: Type.Optional(Type.Boolean()),
  },
  'invitation.change': {
    person: ref('persons'),
    name: Type.Optional(line(200)),
    role: Type.Optional(ref('roles')),
    from: Type.Optional(orNull(instant)),
    until: Type.Optional(orNull(instant)),
    message: Type.Optional(text(2000)),
  },
  'invitation.withdraw': { person: ref('persons') },
  'invitation.renew': { person: ref('persons') },
  'team.create': {
    team: made('teams'),
    home: made('nodes'),
    name,
    note: text(2000),
    joining,
    welcomesGuests: Type.Boolean(),
  },
  'team.change': {
    team: ref('teams'),
    name: Type.Optional(name),
    note: Type.Optional(text(2000)),
    joining: Type.Optional(joining),
    welcomesGuests: Type.Optional(Type.Boolean()),
    picture: Type.Optional(orNull(ref('pictures'))),
    allowsPublishing: Type.Optional(Type.Boolean()),
    posting: Type.Optional(Type.Union([kind('everyone'), kind('members'), kind('leads')])),
    addressing: Type.Optional(Type.Union([kind('everyone'), kind('leads')])),
    keptByDirectory: Type.Optional(Type.Boolean()),
  },
  'member.add': {
    team: ref('teams'),
    person: ref('persons'),
    lead: Type.Boolean(),
    from: orNull(instant),
    until: orNull(instant),
  },
  'member.change': {
    team: ref('teams'),
    person: ref('persons'),
    lead: Type.Optional(Type.Boolean()),
    until: Type.Optional(orNull(instant)),
  },
  'member.remove': { team: ref('teams'), person: ref('persons') },
  'home.create': { node: made('nodes'), name },
  'node.create': {
    node: made('nodes'),
    parent: ref('nodes'),
    as: nodeKind,
    name,
    order: Type.Optional(Type.Number()),
    section: Type.Optional(orNull(ref('sections'))),
  },
  'node.describe': { node: ref('nodes'), name: Type.Optional(name), note: Type.Optional(text(2000)) },
  'grant.add': { node: ref('nodes'), principal, gives, from: orNull(instant), until: orNull(instant) },
  'grant.change': {
    grant: ref('grants'),
    gives: Type.Optional(gives),
    until: Type.Optional(orNull(instant)),
  },
  'grant.end': { grant: ref('grants') },
  'limit.add': {
    node: ref('nodes'),
    principal,
    allows,
    sparesStewards: Type.Boolean(),
    from: orNull(instant),
    until: orNull(instant),
  },
  'limit.change': {
    limit: ref('limits'),
    allows: Type.Optional(allows),
    sparesStewards: Type.Optional(Type.Boolean()),
    until: Type.Optional(orNull(instant)),
  },
  'limit.end': { limit: ref('limits') },
  'node.break': { node: ref('nodes'), mode: Type.Union([kind('keep'), kind('empty')]) },
  'node.restore': { node: ref('nodes'), drop: Type.Union([kind('copies'), kind('none'), kind('own')]) },
  'node.move': { node: ref('nodes'), parent: ref('nodes') },
  'node.state': {
    node: ref('nodes'),
    archived: Type.Optional(Type.Boolean()),
    binned: Type.Optional(Type.Boolean()),
    draft: Type.Optional(Type.Boolean()),
  },
  'person.suspend': { person: ref('persons') },
  'person.reactivate': { person: ref('persons') },
  'node.web': { node: ref('nodes'), web: orNull(Type.Union([kind('published'), kind('excluded')])) },
  'node.order': {
    node: ref('nodes'),
    order: Type.Number(),
    section: Type.Optional(orNull(ref('sections'))),
  },
  'team.archive': { team: ref('teams'), archived: Type.Boolean() },
  'team.delete': { team: ref('teams') },
  'level.create': { level: made('levels'), name, note: text(2000), actions: set },
  'level.change': {
    level: ref('levels'),
    name: Type.Optional(name),
    note: Type.Optional(text(2000)),
    actions: Type.Optional(set),
  },
  'level.delete': { level: ref('levels') },
  'workspace.change': {
    name: Type.Optional(name),
    timeZone: Type.Optional(line(60, 1)),
    guestCeiling: Type.Optional(allows),
    allowsPublishing: Type.Optional(Type.Boolean()),
    defaultRole: Type.Optional(ref('roles')),
    picture: Type.Optional(orNull(ref('pictures'))),
    memberDomains: Type.Optional(domains),
    guestDomains: Type.Optional(domains),
    invitationDays: Type.Optional(Type.Integer({ minimum: 1, maximum: 365 })),
    houseRules: Type.Optional(text(20_000)),
    twoStepFor: Type.Optional(Type.Array(ref('roles'), { maxItems: 50, uniqueItems: true })),
    signInDays: Type.Optional(Type.Integer({ minimum: 1, maximum: 90 })),
    idleHours: Type.Optional(Type.Integer({ minimum: 1, maximum: 90 * 24 })),
    largestFile: Type.Optional(Type.Integer({ minimum: 1, maximum: mostBytes })),
    storageQuota: Type.Optional(orNull(Type.Integer({ minimum: 0, maximum: 2 ** 50 }))),
    versionsKept: Type.Optional(Type.Integer({ minimum: 1, maximum: 1000 })),
    marksPreviews: Type.Optional(Type.Boolean()),
  },
  'person.end': { person: ref('persons'), until: orNull(instant) },
  'person.describe': {
    person: ref('persons'),
    name: Type.Optional(name),
    handle: Type.Optional(orNull(handle)),
    title: Type.Optional(line(200)),
    department: Type.Optional(line(200)),
    country: Type.Optional(line(100)),
    picture: Type.Optional(orNull(ref('pictures'))),
  },
  'person.contact': { person: ref('persons'), contact: ref('persons') },
  'request.make': { wants: wanted, reason: text(1000) },
  'request.withdraw': { request: ref('requests') },
  'request.accept': { request: ref('requests'), gives: given, comment: text(1000) },
  'request.decline': { request: ref('requests'), comment: text(1000) },
  'welcome.create': { welcome: made('welcomeSets'), name, note: text(2000), offer },
  'welcome.change': {
    welcome: ref('welcomeSets'),
    name: Type.Optional(name),
    note: Type.Optional(text(2000)),
    offer: Type.Optional(offer),
  },
  'welcome.delete': { welcome: ref('welcomeSets') },
  'link.create': {
    link: made('joinLinks'),
    name,
    until: instant,
    domains,
    most: orNull(Type.Integer({ minimum: 1, maximum: 10_000 })),
    welcome: orNull(ref('welcomeSets')),
    offer,
  },
  'link.change': {
    link: ref('joinLinks'),
    name: Type.Optional(name),
    until: Type.Optional(instant),
    domains: Type.Optional(domains),
    most: Type.Optional(orNull(Type.Integer({ minimum: 1, maximum: 10_000 }))),
  },
  'link.withdraw': { link: ref('joinLinks') },
  'role.assign': {
    person: ref('persons'),
    role: ref('roles'),
    scope,
    from: orNull(instant),
    until: orNull(instant),
  },
  'role.unassign': { holding: ref('holdings') },
  'node.delete': { node: ref('nodes') },
  'node.duplicate': { node: ref('nodes'), parent: ref('nodes'), name: Type.Optional(name) },
  'person.remove': { person: ref('persons'), contact: Type.Optional(orNull(ref('persons'))) },
  'person.convert': {
    person: ref('persons'),
    as: Type.Union([kind('member'), kind('guest')]),
    taker: orNull(ref('persons')),
  },
  'access.recover': {
    node: ref('nodes'),
    taker: ref('persons'),
    limits: Type.Array(ref('limits'), { maxItems: 20 }),
  },
  'role.create': {
    role: made('roles'),
    name,
    note: text(2000),
    rank,
    privileges: privilegeNames,
    addressable: Type.Boolean(),
    seatExempt: Type.Boolean(),
  },
  'role.change': {
    role: ref('roles'),
    name: Type.Optional(name),
    note: Type.Optional(text(2000)),
    rank: Type.Optional(rank),
    privileges: Type.Optional(privilegeNames),
    addressable: Type.Optional(Type.Boolean()),
    seatExempt: Type.Optional(Type.Boolean()),
  },
  'role.delete': { role: ref('roles') },
  'handover.offer': { to: ref('persons'), keeps: ref('roles'), reason: text(1000) },
  'handover.withdraw': { handover: ref('handovers') },
  'handover.answer': { handover: ref('handovers'), accepted: Type.Boolean() },
  'watch.begin': { node: ref('nodes') },
  'watch.end': { watch: ref('watches') },
  'session.begin': {
    session: made('viewingSessions'),
    through: orNull(ref('persons')),
    reason: text(500),
  },
  'seats.change': {
    seats: Type.Optional(orNull(Type.Integer({ minimum: 1, maximum: 1_000_000 }))),
    suspendedHoldSeats: Type.Optional(Type.Boolean()),
    /** At once, if nothing is said. */
    when: Type.Optional(Type.Union([kind('now'), kind('next period')])),
  },
  ...boardEdits,
  'channel.create': {
    channel: made('channels'),
    team: ref('teams'),
    name,
    note: text(2000),
    only: orNull(principals),
  },
  'channel.change': {
    channel: ref('channels'),
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
  [K in EditRequestKind]: { readonly kind: K } & View<TObject<(typeof edits)[K]>>
}[EditRequestKind]

/** The same once it was checked, and every `new:x` has its id. */
export type CheckedEdit<K extends EditRequestKind> = { readonly kind: K } & CheckedFields<(typeof edits)[K]>

/** The schema of each kind. */
export const editSchemas = Object.fromEntries(
  Object.entries(edits).map(([name, fields]) => [name, editObject(name, fields)]),
)

// One schema a kind, chosen by `kind`, so that a fault is told for the kind that was meant.
export const editRequest = Type.Unsafe<EditRequest>({
  type: 'object',
  required: ['kind'],
  discriminator: { propertyName: 'kind' },
  oneOf: Object.values(editSchemas),
})

/** An edit that changes some fields of something has to say at least one. */
function editObject(name: string, fields: Record<string, TSchema>) {
  const object = Type.Object({ kind: kind(name), ...fields }, strict)
  const isChange = /\.(change|describe|state)$/.test(name)
  return isChange ? { ...object, minProperties: object.required.length + 1 } : object
}
