import { DataTypes, type Model, type ModelStatic, type Sequelize } from 'sequelize'
import type { TableName } from '#core/state/kinds.ts'
import { records } from '#core/records/all.ts'
import type { RecordShapes } from '#core/state/shape.ts'
import type { AccountId, ColumnId, NodeId, PersonId, PictureId, WorkspaceId } from '#core/base/ids.ts'
import type { Instant } from '#core/base/instant.ts'
import { defineTable } from './fields.ts'

/** The models of one database file: those of the core's records, and those of the server's own. */
export interface Tables {
  readonly database: Sequelize
  /** What there is to know of each kind of record that is kept. */
  readonly kinds: RecordShapes
  readonly records: Readonly<Record<TableName, ModelStatic<Model>>>
  readonly accounts: ModelStatic<Model>
  readonly accountLinks: ModelStatic<Model>
  readonly pictures: ModelStatic<Model>
  readonly texts: ModelStatic<Model>
  readonly blobs: ModelStatic<Model>
  readonly fileVersions: ModelStatic<Model>
  readonly uploads: ModelStatic<Model>
  readonly rowCells: ModelStatic<Model>
  readonly cellChanges: ModelStatic<Model>
  readonly goneColumns: ModelStatic<Model>
  readonly comments: ModelStatic<Model>
  readonly ownViews: ModelStatic<Model>
  readonly ownColumns: ModelStatic<Model>
  readonly cellsBeingEdited: ModelStatic<Model>
  readonly fileOpens: ModelStatic<Model>
  readonly placeChanges: ModelStatic<Model>
  readonly formerNames: ModelStatic<Model>
  readonly changeSets: ModelStatic<Model>
  readonly mails: ModelStatic<Model>
  readonly notifications: ModelStatic<Model>
  readonly notificationChoices: ModelStatic<Model>
  readonly drafts: ModelStatic<Model>
  readonly appliedTransitions: ModelStatic<Model>
  readonly uses: ModelStatic<Model>
  readonly log: ModelStatic<Model>
}

/** The server's own tables, by name. */
export type OwnTable = Exclude<keyof Tables, 'database' | 'kinds' | 'records'>

export interface AccountRow {
  readonly id: AccountId
  readonly mail: string
  readonly name: string
  readonly passwordHash: string
  readonly madeAt: Instant
  /** When it was shown that the address is the holder's; `null` for who came by a link that was passed on by hand. */
  readonly provenAt: Instant | null
  /** The second step: the sealed secret, since when, and the last code's time step, which is never taken twice. */
  readonly codeSecret: string | null
  readonly codeSince: Instant | null
  readonly codeStep: number | null
  /** JSON of the hashes of those that are left. */
  readonly recoveryCodes: string
  /** In which dates are written. */
  readonly language: string
  readonly timeZone: string | null
}

/** A link that is mailed to an account's own address. It works once. */
export interface AccountLinkRow {
  readonly id: string
  readonly account: AccountId
  /** A new password; the same and the second step off; or only that the address is the holder's. */
  readonly purpose: 'password' | 'sign-in' | 'address'
  readonly until: Instant
}

export interface PictureRow {
  readonly workspace: WorkspaceId
  readonly id: PictureId
  /** Base64 of WebP. */
  readonly data: string
  readonly by: PersonId
  readonly at: Instant
}

/** Bytes that lie in the store of files, once for all of a workspace who have them. */
export interface BlobRow {
  readonly workspace: WorkspaceId
  /** SHA-256, in hexadecimal digits. */
  readonly hash: string
  /** Under which the store has them. */
  readonly name: string
  readonly size: number
  /** The media type that the bytes are, not what a name says. */
  readonly kind: string
  readonly madeAt: Instant
}

/** A file that is on its way. */
export interface UploadRow {
  readonly workspace: WorkspaceId
  readonly id: string
  readonly person: PersonId
  /** Into which it comes, or of which it is a version. */
  readonly place: NodeId
  readonly isVersion: boolean
  readonly name: string
  readonly size: number
  /** How many bytes have come and will last. */
  readonly received: number
  /** JSON of the parts in which they lie, in order: their names and how many bytes of each count. */
  readonly parts: string
  readonly madeAt: Instant
  readonly changedAt: Instant
}

/** What stands in the cells of a row. */
export interface RowCellsRow {
  readonly workspace: WorkspaceId
  readonly node: NodeId
  /** How often it was written. */
  readonly version: number
  /** JSON by column: see store/content/row-cells.ts. */
  readonly cells: string
}

/** One write of some cells of a row: the same version as its cells then had. */
export interface CellChangesRow {
  readonly workspace: WorkspaceId
  readonly node: NodeId
  readonly version: number
  readonly at: Instant
  readonly by: PersonId
  /** JSON by column of what stood there before and after. */
  readonly changes: string
}

/** A column that is no more, whose cells are still kept. */
export interface GoneColumnRow {
  readonly workspace: WorkspaceId
  /** The column's. */
  readonly id: ColumnId
  readonly board: NodeId
  readonly at: Instant
}

export interface CommentRow {
  readonly workspace: WorkspaceId
  readonly id: string
  readonly node: NodeId
  /** The comment that it replies to, or itself. */
  readonly thread: string
  readonly text: string
  readonly madeAt: Instant
  readonly madeBy: PersonId
  readonly editedAt: Instant | null
  /** Of the first of a thread. */
  readonly resolvedAt: Instant | null
  readonly resolvedBy: PersonId | null
  readonly removedAt: Instant | null
  readonly removedBy: PersonId | null
}

/** A view that is somebody's own. */
export interface OwnViewRow {
  readonly workspace: WorkspaceId
  readonly id: string
  readonly person: PersonId
  readonly board: NodeId
  readonly name: string
  /** As it stands in an address, after the question mark. */
  readonly state: string
}

/** Which columns of a board somebody wants to see, how wide and in what order, where no view says so. */
export interface OwnColumnsRow {
  readonly workspace: WorkspaceId
  readonly person: PersonId
  readonly board: NodeId
  readonly columns: string
}

/** In which cell somebody writes, until when that is taken for so. */
export interface EditedCellRow {
  readonly workspace: WorkspaceId
  readonly board: NodeId
  readonly person: PersonId
  readonly node: NodeId
  readonly column: string
  readonly until: Instant
}

/** When somebody last looked at a file or took it, to a day. */
export interface FileOpenRow {
  readonly workspace: WorkspaceId
  /** The place's. */
  readonly id: NodeId
  readonly at: Instant
}

/** Who changed a place last: its record, or what it holds. */
export interface PlaceChangeRow {
  readonly workspace: WorkspaceId
  /** The place's. */
  readonly id: NodeId
  readonly at: Instant
  /** `null` for what the workspace did by itself. */
  readonly by: PersonId | null
}

/** What something was called until this revision. */
export interface FormerNameRow {
  readonly workspace: WorkspaceId
  readonly table: TableName
  readonly id: string
  readonly revision: number
  readonly name: string
}

export interface MailRow {
  readonly workspace: WorkspaceId
  readonly id: string
  readonly to: string
  readonly subject: string
  readonly text: string
  readonly html: string
  readonly madeAt: Instant
  readonly sentAt: Instant | null
  readonly tries: number
  readonly nextTryAt: Instant
}

/** A change set as it lies in the history. What is `json` here is parsed where it is read. */
export interface ChangeSetRow {
  readonly workspace: WorkspaceId
  readonly revision: number
  readonly at: Instant
  readonly author: PersonId
  readonly reason: string
  /** JSON of the edits; an undo without the changes that it took back, which stand in their own row. */
  readonly edits: string
  /** JSON of the record changes. */
  readonly changes: string
  /** JSON of who came to have what where: [person, node, before, after] each. */
  readonly impact: string
  readonly undoes: number | null
}

export interface NotificationRow {
  readonly workspace: WorkspaceId
  readonly id: string
  readonly person: PersonId
  readonly kind: string
  readonly at: Instant
  readonly data: string
  readonly readAt: Instant | null
}

/** A change set that somebody drafts, keeps for later, or was handed. */
export interface DraftRow {
  readonly workspace: WorkspaceId
  readonly id: string
  /** Whose it is now. */
  readonly person: PersonId
  /** Empty while it is the draft. */
  readonly name: string
  /** What whoever handed it over said. */
  readonly comment: string
  /** JSON of lists of edits as they would be sent: one list an act of it. */
  readonly items: string
  readonly from: PersonId | null
  readonly madeAt: Instant
  readonly changedAt: Instant
}

const text = DataTypes.TEXT
const number = DataTypes.DOUBLE
// A new object each time: Sequelize writes the field's name into the one that it is given.
const key = () => ({ type: text, primaryKey: true })

export function createTables(database: Sequelize, kinds: RecordShapes = records): Tables {
  const define: Define = (name, fields) =>
    database.define(name, fields, { tableName: name, timestamps: false })
  const models = Object.entries(kinds).map(([table, { fields }]) => [
    table,
    defineTable(database, table, fields),
  ])
  return {
    database,
    kinds,
    records: Object.fromEntries(models) as Tables['records'],
    ...ofAccounts(define),
    ...ofNotifications(define),
    ...besideHistory(define),
    ...ofFiles(define),
    ...ofBoards(define),
    drafts: define('drafts', {
      workspace: key(),
      id: key(),
      person: text,
      name: text,
      comment: text,
      items: text,
      from: text,
      madeAt: number,
      changedAt: number,
    }),
    pictures: define('pictures', { workspace: key(), id: key(), data: text, by: text, at: number }),
    texts: define('texts', {
      workspace: key(),
      node: key(),
      version: { type: number, primaryKey: true },
      text,
      changedAt: number,
      changedBy: text,
    }),
    changeSets: define('changeSets', {
      workspace: key(),
      revision: { type: number, primaryKey: true },
      at: number,
      author: text,
      reason: text,
      edits: text,
      changes: text,
      impact: text,
      undoes: number,
    }),
    appliedTransitions: define('appliedTransitions', { workspace: key(), at: number, dueAt: number }),
    uses: define('uses', { workspace: key(), who: key(), what: key(), hour: number, times: number }),
    log: logModel(database),
  }
}

/** Each database has a log of its own. */
export const logModel = (database: Sequelize): ModelStatic<Model> =>
  database.define(
    'log',
    { position: { type: number, primaryKey: true }, id: text, at: number, news: text },
    { tableName: 'log', timestamps: false },
  )

type Define = (name: string, fields: Parameters<Sequelize['define']>[1]) => ModelStatic<Model>

/** What is kept of accounts is of no workspace. */
const ofAccounts = (define: Define) => ({
  accounts: define('accounts', {
    id: key(),
    mail: text,
    name: text,
    passwordHash: text,
    madeAt: number,
    provenAt: number,
    codeSecret: text,
    codeSince: number,
    codeStep: number,
    recoveryCodes: text,
    language: text,
    timeZone: text,
  }),
  accountLinks: define('accountLinks', { id: key(), account: text, purpose: text, until: number }),
})

const ofFiles = (define: Define) => ({
  blobs: define('blobs', {
    workspace: key(),
    hash: key(),
    name: text,
    size: number,
    kind: text,
    madeAt: number,
  }),
  fileVersions: define('fileVersions', {
    workspace: key(),
    node: key(),
    version: { type: number, primaryKey: true },
    hash: text,
    size: number,
    kind: text,
    restoredFrom: number,
    changedAt: number,
    changedBy: text,
  }),
  fileOpens: define('fileOpens', { workspace: key(), id: key(), at: number }),
  uploads: define('uploads', {
    workspace: key(),
    id: key(),
    person: text,
    place: text,
    isVersion: DataTypes.BOOLEAN,
    name: text,
    size: number,
    received: number,
    parts: text,
    madeAt: number,
    changedAt: number,
  }),
})

const ofBoards = (define: Define) => ({
  rowCells: define('rowCells', { workspace: key(), node: key(), version: number, cells: text }),
  cellChanges: define('cellChanges', {
    workspace: key(),
    node: key(),
    version: { type: number, primaryKey: true },
    at: number,
    by: text,
    changes: text,
  }),
  goneColumns: define('goneColumns', { workspace: key(), id: key(), board: text, at: number }),
  comments: define('comments', {
    workspace: key(),
    id: key(),
    node: text,
    thread: text,
    text,
    madeAt: number,
    madeBy: text,
    editedAt: number,
    resolvedAt: number,
    resolvedBy: text,
    removedAt: number,
    removedBy: text,
  }),
  ownViews: define('ownViews', {
    workspace: key(),
    id: key(),
    person: text,
    board: text,
    name: text,
    state: text,
  }),
  ownColumns: define('ownColumns', { workspace: key(), person: key(), board: key(), columns: text }),
  cellsBeingEdited: define('cellsBeingEdited', {
    workspace: key(),
    board: key(),
    person: key(),
    node: text,
    column: text,
    until: number,
  }),
})

/** What follows from the history, and is found without reading it. */
const besideHistory = (define: Define) => ({
  placeChanges: define('placeChanges', { workspace: key(), id: key(), at: number, by: text }),
  formerNames: define('formerNames', {
    workspace: key(),
    revision: { type: number, primaryKey: true },
    table: key(),
    id: key(),
    name: text,
  }),
})

const ofNotifications = (define: Define) => ({
  mails: define('mails', {
    workspace: text,
    id: key(),
    to: text,
    subject: text,
    text,
    html: text,
    madeAt: number,
    sentAt: number,
    tries: number,
    nextTryAt: number,
  }),
  notifications: define('notifications', {
    workspace: key(),
    id: key(),
    person: text,
    kind: text,
    at: number,
    data: text,
    readAt: number,
  }),
  notificationChoices: define('notificationChoices', {
    workspace: key(),
    person: key(),
    kind: key(),
    choice: text,
  }),
})
