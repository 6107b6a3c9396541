import { Type } from '@sinclair/typebox'
import { auditCategories } from '#core/changes/audit-event.ts'
import { editRequest, mostBytes, offer, scope } from './edit-requests.ts'
import { type ImportField, importFields } from './import-fields.ts'
import {
  id,
  kind,
  mail,
  name,
  oneOf,
  orNull,
  password,
  strict,
  line,
  text,
  type View,
  wholeNumber,
} from './pieces.ts'

/** JSON Schemas of all that comes in, each with its type. Nothing reaches a service unchecked. */

export const changeSetRequest = Type.Object(
  {
    reason: Type.Optional(text(500)),
    /** What its author saw that it would do. */
    preview: Type.Optional(line(100)),
    /** What those for whom something is opened are told besides. */
    message: Type.Optional(text(2000)),
    /** The kept change set that this is: gone once it is applied. */
    draft: Type.Optional(id('drafts')),
    edits: Type.Array(editRequest, { minItems: 1, maxItems: 6000 }),
  },
  strict,
)
export type ChangeSetRequest = View<typeof changeSetRequest>

const code = line(40, 1)
/** The code of a second step, where one is asked for. */
export const signInRequest = Type.Object({ mail: line(254, 1), password, code: Type.Optional(code) }, strict)
export type SignInRequest = View<typeof signInRequest>

const timeZone = line(60, 1)
export const setUpRequest = Type.Object({ workspace: name, timeZone, name, mail, password }, strict)
export type SetUpRequest = View<typeof setUpRequest>

export const newWorkspaceRequest = Type.Object({ name, timeZone }, strict)
export type NewWorkspaceRequest = View<typeof newWorkspaceRequest>

const token = Type.String({ pattern: '^[A-Za-z0-9_.-]{10,200}$' })
export const tokenRequest = Type.Object({ token }, strict)

/** The name is left out by somebody who has an account already, the password by who is signed in to it. */
export const acceptRequest = Type.Object(
  {
    token,
    name: Type.Optional(name),
    password: Type.Optional(password),
    code: Type.Optional(code),
    agrees: Type.Optional(Type.Boolean()),
  },
  strict,
)
export type AcceptRequest = View<typeof acceptRequest>

/** By somebody who is signed in, for an invitation to their own address. */
export const acceptMineRequest = Type.Object({ agrees: Type.Boolean() }, strict)

/** Somebody who comes by a join link says to which address the invitation goes. */
export const joinByLinkRequest = Type.Object({ token, mail: Type.Optional(mail) }, strict)
export type JoinByLinkRequest = View<typeof joinByLinkRequest>

export const forgottenRequest = Type.Object({ mail: line(254, 1) }, strict)
export const useLinkRequest = Type.Object(
  { token, password: Type.Optional(password), endsTwoStep: Type.Optional(Type.Boolean()) },
  strict,
)
export type UseLinkRequest = View<typeof useLinkRequest>

export const accountRequest = Type.Object(
  {
    name: Type.Optional(name),
    language: Type.Optional(Type.String({ pattern: '^[a-z]{2,3}(-[A-Za-z0-9]{2,8})*$' })),
    timeZone: Type.Optional(Type.Union([timeZone, Type.Null()])),
  },
  { ...strict, minProperties: 1 },
)
export type AccountRequest = View<typeof accountRequest>
export const newPasswordRequest = Type.Object({ password, next: password, code: Type.Optional(code) }, strict)
export type NewPasswordRequest = View<typeof newPasswordRequest>
export const codeRequest = Type.Object({ code }, strict)
/** Who is signed in shows once more that it is them. */
export const passwordRequest = Type.Object({ password, code: Type.Optional(code) }, strict)
export type PasswordRequest = View<typeof passwordRequest>

export const textRequest = Type.Object({ text: text(200_000), version: Type.Integer({ minimum: 0 }) }, strict)
export type TextRequest = View<typeof textRequest>

const commentText = text(10_000, 1)
/** A new comment; a reply, where it names the one that it replies to. */
export const commentRequest = Type.Object(
  { text: commentText, thread: orNull(Type.String({ pattern: '^[a-z0-9-]{1,40}$' })) },
  strict,
)
export type CommentRequest = View<typeof commentRequest>
export const commentTextRequest = Type.Object({ text: commentText }, strict)
export const resolvedRequest = Type.Object({ isResolved: Type.Boolean() }, strict)

/** Of a text that somebody writes at a place: whom and what it names. */
export const reachRequest = Type.Object(
  {
    people: Type.Array(id('persons'), { maxItems: 50 }),
    places: Type.Array(id('nodes'), { maxItems: 50 }),
  },
  strict,
)
export type ReachRequest = View<typeof reachRequest>

/** A file that is announced: a name is what stands behind the last stroke of a path, whatever was sent. */
export const uploadRequest = Type.Object(
  {
    place: id('nodes'),
    /** Whether it is the next version of that file, and nothing that comes into a place. */
    isVersion: Type.Boolean(),
    name,
    size: Type.Integer({ minimum: 0, maximum: mostBytes }),
  },
  strict,
)
export type UploadRequest = View<typeof uploadRequest>

const choice = Type.Union([kind('by mail too'), kind('here only'), kind('not at all')])
export const notificationChoiceRequest = Type.Object({ kind: line(40, 1), choice }, strict)
export type NotificationChoiceRequest = View<typeof notificationChoiceRequest>

/** Without ids: all of them. */
export const readNotificationsRequest = Type.Object(
  { ids: Type.Optional(Type.Array(id('notifications'), { maxItems: 500 })), isRead: Type.Boolean() },
  strict,
)
export type ReadNotificationsRequest = View<typeof readNotificationsRequest>

const act = Type.Union(auditCategories.map(each => kind(each)))
export const historyQuery = Type.Object(
  {
    person: Type.Optional(id('persons')),
    place: Type.Optional(id('nodes')),
    category: Type.Optional(act),
    /** Only entries before this revision. */
    before: Type.Optional(wholeNumber),
  },
  strict,
)
export type HistoryQuery = View<typeof historyQuery>

export const liveQuery = Type.Object({ after: Type.Optional(line(60)) }, strict)

/** With a column, about that column in a row, or on its board. */
const question = Type.Object(
  { person: id('persons'), place: id('nodes'), column: Type.Optional(id('columns')) },
  strict,
)
export const checkRequest = Type.Object(
  { questions: Type.Array(question, { minItems: 1, maxItems: 1000 }) },
  strict,
)
export type CheckRequest = View<typeof checkRequest>

const instantText = Type.String({ pattern: '^[0-9]{1,16}$' })
export const pageQuery = Type.Object({ from: Type.Optional(wholeNumber) }, strict)
export type PageQuery = View<typeof pageQuery>
/** The same, about a past instant. */
export const pastQuery = Type.Object(
  { from: Type.Optional(wholeNumber), at: Type.Optional(instantText) },
  strict,
)
export const diffQuery = Type.Object(
  {
    from: instantText,
    to: instantText,
    person: Type.Optional(id('persons')),
    place: Type.Optional(id('nodes')),
  },
  strict,
)
export type DiffQuery = View<typeof diffQuery>

/** What the list of people is looked through by: the same words stand in the address of the page. */
export const peopleQuery = Type.Object(
  {
    find: Type.Optional(line(200)),
    /** Only those whom the asker looks after. */
    kept: Type.Optional(kind('1')),
    as: Type.Optional(oneOf('member', 'guest')),
    status: Type.Optional(oneOf('active', 'invited', 'suspended', 'coming', 'over')),
    role: Type.Optional(id('roles')),
    team: Type.Optional(id('teams')),
    /** Marks, with commas between them: all of them have to fit. */
    only: Type.Optional(line(200)),
    sort: Type.Optional(
      oneOf(
        ...(['name', 'handle', 'mail', 'role', 'teams', 'department', 'contact', 'inviter'] as const),
        ...(['joined', 'active', 'ends', 'status', 'seat', 'link'] as const),
      ),
    ),
    down: Type.Optional(kind('1')),
    from: Type.Optional(wholeNumber),
  },
  strict,
)
export type PeopleQuery = View<typeof peopleQuery>

/** As somebody typed it: each is judged, and none sinks the others. */
const typed = Type.String({ maxLength: 300 })
export const addressesRequest = Type.Object(
  {
    as: oneOf('member', 'guest'),
    addresses: Type.Array(Type.Object({ mail: typed, name: typed }, strict), { maxItems: 5000 }),
  },
  strict,
)
export type AddressesRequest = View<typeof addressesRequest>

/** An offer with over whom its role would be held: the whole workspace if nothing is said. */
export const offerRequest = Type.Object({ offer, scope: Type.Optional(scope) }, strict)
export type OfferPreviewRequest = View<typeof offerRequest>

/** As it is in the file: a bad one is judged with its row. */
const cell = Type.String({ maxLength: 2000 })
const importRow = Type.Partial(
  Type.Object(Object.fromEntries(importFields.map(each => [each, cell])), strict),
  strict,
)
export const importRequest = Type.Object(
  {
    rows: Type.Array(Type.Unsafe<ImportRow>(importRow), { minItems: 1, maxItems: 10_000 }),
    /** What newcomers are offered where their row says nothing else. */
    offer,
    welcome: orNull(id('welcomeSets')),
  },
  strict,
)
export type ImportRow = Partial<Record<ImportField, string>>
export type ImportRequest = View<typeof importRequest>

/** The outline below a place, or from the top. */
export const outlineQuery = Type.Object({ node: Type.Optional(id('nodes')) }, strict)

const draftName = line(200)
/** Adds an act to the change set that is the draft. */
export const addToDraftRequest = Type.Object(
  { edits: Type.Array(editRequest, { minItems: 1, maxItems: 6000 }) },
  strict,
)
export type AddToDraftRequest = View<typeof addToDraftRequest>

/** Keeps it under a name, or leaves one of its acts out. */
export const draftRequest = Type.Object(
  { name: Type.Optional(draftName), without: Type.Optional(Type.Integer({ minimum: 0, maximum: 999 })) },
  { ...strict, minProperties: 1 },
)
export type DraftRequest = View<typeof draftRequest>
export const handOverRequest = Type.Object({ to: id('persons'), comment: text(1000) }, strict)
export type HandOverRequest = View<typeof handOverRequest>

const placeIds = Type.String({ pattern: '^[a-z0-9,-]{1,4000}$' })
/** Several places, with commas between their ids. */
export const pickedQuery = Type.Object({ places: placeIds }, strict)

/** What is given to somebody, or at some places (ids with commas between them). */
export const grantsQuery = Type.Object(
  {
    principal: Type.Optional(Type.String({ pattern: '^(person|team|leads):[a-z0-9-]{1,40}$' })),
    places: Type.Optional(placeIds),
  },
  { ...strict, minProperties: 1 },
)
export type GrantsQuery = View<typeof grantsQuery>
export const takeOverQuery = Type.Object(
  { from: id('nodes'), what: Type.Union([kind('access'), kind('people')]) },
  strict,
)
export type TakeOverQuery = View<typeof takeOverQuery>

/** What is looked for, and the conditions that it has to meet besides. */
export const searchQuery = Type.Object(
  {
    find: Type.Optional(line(200)),
    in: Type.Optional(id('nodes')),
    by: Type.Optional(id('persons')),
    kind: Type.Optional(oneOf('folder', 'board', 'page', 'row', 'file')),
    since: Type.Optional(instantText),
    from: Type.Optional(wholeNumber),
  },
  strict,
)
export type SearchQuery = View<typeof searchQuery>
/** Places to offer, by a part of their name. */
export const placesQuery = Type.Object({ find: line(200) }, strict)
