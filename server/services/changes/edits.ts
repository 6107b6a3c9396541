import type { CheckedEdit, EditRequest, EditRequestKind } from '#contract/edit-requests.ts'
import { isTimeZone } from '#contract/dates.ts'
import type { LevelId, NodeId } from '#core/base/ids.ts'
import type { Instant } from '#core/base/instant.ts'
import type { EditOf } from '#core/changes/context.ts'
import type { Edit } from '#core/changes/edit.ts'
import type { RequestAnswer } from '#core/changes/requests/rule.ts'
import { type ActionSet, decodeActions } from '#core/levels/action.ts'
import type { Wanted } from '#core/people/request.ts'
import type { Gives } from '#core/rules/access-entry.ts'
import type { Offer } from '#core/rules/offer.ts'
import { problemOf } from '../../problem-error.ts'

/** What turns requested edits into edits of the core: new ids, and the time. */
export interface Minting {
  readonly newId: () => string
  readonly now: Instant
  /** Filled as `new:x` are met, so that later edits of the set mean the same thing. */
  readonly made: Map<string, string>
  /** For how many days the link of an invitation works. */
  readonly linkDays: number
  /** When the next period of what is paid by the month begins. */
  readonly nextPeriod: () => Instant
}

/** What undoes is made of the entry that it undoes, elsewhere. */
type Kind = Exclude<EditRequestKind, 'undo'>
type Requested = Extract<EditRequest, { readonly kind: Kind }>

/** What only the server decides: a new id of whatever kind, when links die, when a period begins. */
interface Given {
  // Ids of every kind are made alike.
  // eslint-disable-next-line @typescript-eslint/no-unnecessary-type-parameters
  readonly fresh: <Id extends string>() => Id
  readonly linkUntil: (from?: Instant | null) => Instant
  readonly nextPeriod: () => Instant
}

type Making<K extends Kind> = (edit: CheckedEdit<K>, given: Given) => EditOf<K>

/** Gives every `new:x` its id and fills in what only the server decides. */
export function editFrom(request: EditRequest, minting: Minting): Edit {
  if (request.kind === 'undo') throw new Error('an undo is made of the entry that it undoes')
  return made(withIds(request, minting), givenBy(minting))
}

function givenBy({ newId, now, linkDays, nextPeriod }: Minting): Given {
  return {
    fresh: newId as Given['fresh'],
    // Who is to come on a later day can accept until some days after that.
    linkUntil: (from = null) => Math.max(now, from ?? 0) + linkDays * 86_400_000,
    nextPeriod,
  }
}

/** The request was checked, and names ids alone by now: this is where that becomes its type. */
const made = (request: Requested, given: Given): Edit =>
  (makings[request.kind] as Making<Kind>)(request, given)

const asItIs = <E>(edit: E): E => edit

const makings: { readonly [K in Kind]: Making<K> } = {
  'person.invite': (
    { from = null, profile = {}, welcome = null, mailed = true, ...edit },
    { fresh, linkUntil },
  ) => ({
    ...edit,
    from,
    profile,
    welcome,
    mailed,
    invitation: fresh(),
    holding: fresh(),
    linkUntil: linkUntil(from),
  }),
  'invitation.change': asItIs,
  'invitation.withdraw': asItIs,
  'invitation.renew': (edit, { linkUntil }) => ({ ...edit, linkUntil: linkUntil() }),
  'person.suspend': asItIs,
  'person.reactivate': asItIs,
  'person.end': asItIs,
  'person.describe': asItIs,
  'person.contact': asItIs,
  'person.remove': ({ contact = null, ...edit }) => ({ ...edit, contact }),
  'person.convert': (edit, { fresh }) => ({ ...edit, holding: fresh(), folder: fresh(), grant: fresh() }),
  'team.create': asItIs,
  'team.change': asItIs,
  'team.archive': asItIs,
  'team.delete': asItIs,
  'member.add': (edit, { fresh }) => ({ ...edit, membership: fresh() }),
  'member.change': asItIs,
  'member.remove': asItIs,
  'request.make': ({ wants, ...edit }, { fresh }) => ({
    ...edit,
    request: fresh(),
    wants: wantedFrom(wants),
  }),
  'request.withdraw': asItIs,
  'request.accept': ({ gives, ...edit }, given) => ({ ...edit, gives: answerFrom(gives, given) }),
  'request.decline': asItIs,
  'home.create': asItIs,
  'node.create': asItIs,
  'node.describe': asItIs,
  'node.break': (edit, { fresh }) => ({ ...edit, copies: fresh() }),
  'node.restore': asItIs,
  'node.move': asItIs,
  'node.state': asItIs,
  'node.web': asItIs,
  'node.order': asItIs,
  'node.delete': asItIs,
  'node.duplicate': (edit, { fresh }) => ({ ...edit, copies: fresh() }),
  'grant.add': ({ gives, ...edit }, { fresh }) => ({ ...edit, grant: fresh(), gives: givesFrom(gives) }),
  'grant.change': ({ gives, ...edit }) => ({
    ...edit,
    ...(gives === undefined ? {} : { gives: givesFrom(gives) }),
  }),
  'grant.end': asItIs,
  'limit.add': ({ allows, ...edit }, { fresh }) => ({
    ...edit,
    limit: fresh(),
    allows: setFrom(allows, 'allows'),
  }),
  'limit.change': ({ allows, ...edit }) => ({
    ...edit,
    ...(allows === undefined ? {} : { allows: setFrom(allows, 'allows') }),
  }),
  'limit.end': asItIs,
  'level.create': ({ actions, ...edit }) => ({ ...edit, actions: setFrom(actions, 'actions') }),
  'level.change': ({ actions, ...edit }) => ({
    ...edit,
    ...(actions === undefined ? {} : { actions: setFrom(actions, 'actions') }),
  }),
  'level.delete': asItIs,
  'workspace.change': ({ guestCeiling, ...edit }) => {
    const { timeZone } = edit
    if (timeZone !== undefined && !isTimeZone(timeZone))
      throw problemOf('bad-input', { faults: [{ at: 'timeZone', message: 'This is not a time zone.' }] })
    return {
      ...edit,
      ...(guestCeiling === undefined ? {} : { guestCeiling: setFrom(guestCeiling, 'guestCeiling') }),
    }
  },
  'seats.change': ({ when = 'now', ...edit }, { nextPeriod }) => ({
    ...edit,
    from: when === 'now' ? null : nextPeriod(),
  }),
  'welcome.create': ({ offer, ...edit }) => ({ ...edit, offer: offerFrom(offer) }),
  'welcome.change': ({ offer, ...edit }) => ({
    ...edit,
    ...(offer === undefined ? {} : { offer: offerFrom(offer) }),
  }),
  'welcome.delete': asItIs,
  'link.create': ({ offer, ...edit }) => ({ ...edit, offer: offerFrom(offer) }),
  'link.change': asItIs,
  'link.withdraw': asItIs,
  'role.create': asItIs,
  'role.change': asItIs,
  'role.delete': asItIs,
  'role.assign': (edit, { fresh }) => ({ ...edit, holding: fresh() }),
  'role.unassign': asItIs,
  'handover.offer': (edit, { fresh }) => ({ ...edit, handover: fresh() }),
  'handover.withdraw': asItIs,
  'handover.answer': (edit, { fresh }) => ({ ...edit, holding: fresh(), kept: fresh() }),
  'session.begin': asItIs,
  'access.recover': (edit, { fresh }) => ({ ...edit, grant: fresh() }),
  'watch.begin': (edit, { fresh }) => ({ ...edit, watch: fresh() }),
  'watch.end': asItIs,
  'column.create': asItIs,
  'column.change': asItIs,
  'column.delete': asItIs,
  'section.create': asItIs,
  'section.change': asItIs,
  'section.delete': asItIs,
  'view.create': asItIs,
  'view.change': asItIs,
  'view.delete': asItIs,
  'channel.create': asItIs,
  'channel.change': asItIs,
}

type CheckedOffer = CheckedEdit<'welcome.create'>['offer']

const offerFrom = ({ places, ...offer }: CheckedOffer): Offer => ({
  ...offer,
  places: places.map(({ node, gives }) => ({ node, gives: givesFrom(gives) })),
})

const wantedFrom = (wants: CheckedEdit<'request.make'>['wants']): Wanted =>
  wants.of === 'access'
    ? { of: 'access', node: wants.node as NodeId, actions: setFrom(wants.actions, 'actions') }
    : wants

function answerFrom(answer: CheckedEdit<'request.accept'>['gives'], { fresh }: Given): RequestAnswer {
  switch (answer.of) {
    case 'team':
      return { ...answer, membership: fresh() }
    case 'role':
      return { ...answer, holding: fresh() }
    case 'access':
      return { ...answer, grant: fresh(), gives: givesFrom(answer.gives) }
  }
}

const givesFrom = (gives: number | LevelId): Gives =>
  typeof gives === 'string' ? gives : setFrom(gives, 'gives')

function setFrom(mask: number, at: string): ActionSet {
  const set = decodeActions(mask)
  if (set === undefined)
    throw problemOf('bad-input', {
      faults: [{ at, message: 'Some of these actions need others that are missing.' }],
    })
  return set
}

/** Fields whose text is somebody's own: a `new:x` written there is not an id. */
const freeText = new Set([
  'name',
  'note',
  'message',
  'mail',
  'timeZone',
  'title',
  'department',
  'country',
  'handle',
  'reason',
  'comment',
  'houseRules',
  'unit',
  'prefix',
  'given',
])

function withIds<R extends EditRequest>(request: R, { newId, made }: Minting): R {
  return withPlaceholders(request, placeholder => {
    const id = made.get(placeholder) ?? newId()
    made.set(placeholder, id)
    return id
  })
}

/** The same edit with another word for each `new:x` in it. */
export function withPlaceholders<R extends EditRequest>(
  request: R,
  wordFor: (placeholder: string) => string,
): R {
  const named = (value: unknown): unknown => {
    if (typeof value === 'string') return value.replace(/new:[a-z0-9-]+/, wordFor)
    if (Array.isArray(value)) return value.map(named)
    return typeof value === 'object' && value !== null ? fieldsOf(value) : value
  }
  const fieldsOf = (of: object) =>
    Object.fromEntries(
      Object.entries(of).map(([field, value]) => [field, freeText.has(field) ? value : named(value)]),
    )
  return fieldsOf(request) as R
}
