import type { EditRequest, OfferRequest } from '#contract/edit-requests.ts'
import { type ActionSet, decodeActions } from '#core/levels/action.ts'
import type { Edit } from '#core/changes/edit.ts'
import type { LevelId } from '#core/base/ids.ts'
import type { Instant } from '#core/base/instant.ts'
import type { Gives } from '#core/rules/access-entry.ts'
import { isTimeZone } from '#contract/dates.ts'
import { problemOf } from '../problem-error.ts'

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

/** Gives every `new:x` its id and fills in what only the server decides. */
export function editFrom(request: EditRequest, minting: Minting): Edit {
  const fresh = minting.newId
  // Who is to come on a later day can accept until some days after that.
  const linkUntil = (from: number | null = null) =>
    Math.max(minting.now, from ?? 0) + minting.linkDays * 86_400_000
  const own = withIds(request, minting)
  switch (own.kind) {
    case 'person.invite':
      return {
        ...own,
        from: own.from ?? null,
        profile: own.profile ?? {},
        welcome: own.welcome ?? null,
        mailed: own.mailed ?? true,
        invitation: fresh(),
        holding: fresh(),
        linkUntil: linkUntil(own.from),
      } as unknown as Edit
    case 'invitation.renew':
      return { ...own, linkUntil: linkUntil() } as Edit
    case 'person.remove':
      return { ...own, contact: own.contact ?? null } as Edit
    case 'request.make':
      return { ...own, request: fresh(), wants: wantedFrom(own.wants) } as Edit
    case 'request.accept':
      return { ...own, gives: givenFrom(own.gives, fresh) } as Edit
    case 'member.add':
      return { ...own, membership: fresh() } as Edit
    case 'grant.add':
      return { ...own, grant: fresh(), gives: givesFrom(own.gives) } as Edit
    case 'grant.change':
      return (own.gives === undefined ? own : { ...own, gives: givesFrom(own.gives) }) as Edit
    case 'limit.add':
      return { ...own, limit: fresh(), allows: setFrom(own.allows, 'allows') } as Edit
    case 'limit.change':
      return (own.allows === undefined ? own : { ...own, allows: setFrom(own.allows, 'allows') }) as Edit
    case 'level.create':
      return { ...own, actions: setFrom(own.actions, 'actions') } as Edit
    case 'level.change':
      return (own.actions === undefined ? own : { ...own, actions: setFrom(own.actions, 'actions') }) as Edit
    case 'workspace.change':
      return workspaceEdit(own)
    case 'welcome.create':
    case 'link.create':
      return { ...own, offer: offerFrom(own.offer) } as unknown as Edit
    case 'welcome.change':
      return (own.offer === undefined ? own : { ...own, offer: offerFrom(own.offer) }) as unknown as Edit
    case 'node.break':
    case 'node.duplicate':
      return { ...own, copies: fresh() } as Edit
    case 'person.convert':
      return { ...own, holding: fresh(), folder: fresh(), grant: fresh() } as Edit
    default:
      return roleEdit(own, minting)
  }
}

/** Edits about roles, ownership and seats. */
function roleEdit(own: EditRequest, { newId, nextPeriod }: Minting): Edit {
  switch (own.kind) {
    case 'role.assign':
      return { ...own, holding: newId() } as Edit
    case 'handover.offer':
      return { ...own, handover: newId() } as Edit
    case 'handover.answer':
      return { ...own, holding: newId(), kept: newId() } as Edit
    case 'seats.change': {
      const { when = 'now', ...seats } = own
      return { ...seats, from: when === 'now' ? null : nextPeriod() }
    }
    default:
      return accessEdit(own, newId)
  }
}

/** Edits about access that is watched or recovered; any other is as it came in. */
function accessEdit(own: EditRequest, newId: Minting['newId']): Edit {
  switch (own.kind) {
    case 'watch.begin':
      return { ...own, watch: newId() } as Edit
    case 'access.recover':
      return { ...own, grant: newId() } as unknown as Edit
    default:
      return own as Edit
  }
}

function workspaceEdit(own: Extract<EditRequest, { kind: 'workspace.change' }>): Edit {
  const { timeZone, guestCeiling } = own
  if (timeZone !== undefined && !isTimeZone(timeZone))
    throw problemOf('bad-input', { faults: [{ at: 'timeZone', message: 'This is not a time zone.' }] })
  return (guestCeiling === undefined
    ? own
    : { ...own, guestCeiling: setFrom(guestCeiling, 'guestCeiling') }) as unknown as Edit
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
])

function withIds(request: EditRequest, { newId, made }: Minting): EditRequest {
  return withPlaceholders(request, placeholder => {
    const id = made.get(placeholder) ?? newId()
    made.set(placeholder, id)
    return id
  })
}

/** The same edit with another word for each `new:x` in it. */
export function withPlaceholders(
  request: EditRequest,
  wordFor: (placeholder: string) => string,
): EditRequest {
  const named = (value: unknown): unknown => {
    if (typeof value === 'string') return value.replace(/new:[a-z0-9-]+/, wordFor)
    if (Array.isArray(value)) return value.map(named)
    return typeof value === 'object' && value !== null ? fieldsOf(value) : value
  }
  const fieldsOf = (of: object) =>
    Object.fromEntries(
      Object.entries(of).map(([field, value]) => [field, freeText.has(field) ? value : named(value)]),
    )
  return fieldsOf(request) as EditRequest
}

const offerFrom = (offer: OfferRequest) => ({
  ...offer,
  places: offer.places.map(({ node, gives }) => ({ node, gives: givesFrom(gives) })),
})

const wantedFrom = (wants: Extract<EditRequest, { kind: 'request.make' }>['wants']) =>
  wants.of === 'access' ? { ...wants, actions: setFrom(wants.actions, 'actions') } : wants

function givenFrom(given: Extract<EditRequest, { kind: 'request.accept' }>['gives'], newId: () => string) {
  switch (given.of) {
    case 'team':
      return { ...given, membership: newId() }
    case 'role':
      return { ...given, holding: newId() }
    case 'access':
      return { ...given, grant: newId(), gives: givesFrom(given.gives) }
  }
}

const givesFrom = (gives: number | string): Gives =>
  typeof gives === 'string' ? (gives as LevelId) : setFrom(gives, 'gives')

function setFrom(mask: number, at: string): ActionSet {
  const set = decodeActions(mask)
  if (set === undefined)
    throw problemOf('bad-input', {
      faults: [{ at, message: 'Some of these actions need others that are missing.' }],
    })
  return set
}
