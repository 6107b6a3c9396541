import type { Operation, operations } from './operations.ts'

/**
 * What a live event is about, and what an answer hangs on: a page asks anew for what hangs on a topic that it hears. A topic
 * never says what changed, and is told to whoever may know that something of it did.
 */
export const topics = [
  /** What the reader may do: everything hangs on it. */
  'own',
  /** Grants, limits, inheritance, of whatever place. */
  'access',
  'places',
  /** What rows are called, and where they stand on their boards. */
  'rows',
  'people',
  'teams',
  'roles',
  'requests',
  'workspace',
  'sessions',
  'history',
  'notifications',
  'drafts',
  /** What only the reader wants of boards. */
  'own-board',
] as const
type Common = (typeof topics)[number]

/**
 * Of one place, with all that lies below it; what is written in one; that something that lies in one was written; what is
 * said about one; and where somebody writes right now.
 */
export const topicsOfPlaces = ['node', 'document', 'within', 'comments', 'editing'] as const
export type TopicOfPlace = (typeof topicsOfPlaces)[number]
export type Topic = Common | `${TopicOfPlace}:${string}`

/** What can be asked in a workspace, but for what never changes, the stream itself, files to keep, what is on its way, and what is worked out anew each time. */
export type Question = Exclude<
  {
    [O in Operation]: (typeof operations)[O] extends readonly ['GET', `/at/{slug}${string}`] ? O : never
  }[Operation],
  | 'live'
  | 'picture'
  | 'peopleCsv'
  | 'fileBytes'
  | 'fileVersionBytes'
  | 'filePreviewPage'
  | 'zip'
  | 'zipOfPlaces'
  | 'uploads'
  | 'search'
  | 'storage'
  | 'boardCsv'
>

/** Of the place that is asked about. */
type OfPlace = `${TopicOfPlace}:{id}`

const everybody = ['people', 'teams', 'roles', 'workspace'] as const
/** Who may do what at one place. */
const atPlace = ['node:{id}', 'places', 'requests', ...everybody] as const
/** Who may do what at many. */
const anywhere = ['access', 'places', 'rows', ...everybody] as const

/** What each answer hangs on, besides what its reader may do. */
export const topicsOf: Readonly<Record<Question, readonly (Exclude<Common, 'own'> | OfPlace)[]>> = {
  workspace: ['workspace', 'roles', 'people'],
  settings: ['workspace', 'roles', 'people', 'places'],
  onboarding: anywhere,
  myAccess: [...anywhere, 'sessions'],
  teams: [...everybody, 'places', 'requests'],
  bin: ['places', 'rows', 'people'],
  tree: ['places'],
  places: ['places'],
  node: ['places', 'access', 'rows', 'people'],
  children: ['places'],
  changesWithin: ['places', 'rows', 'within:{id}', 'people'],
  moveTargets: ['places'],
  // They tell of what differs below, too.
  access: [...anywhere, 'requests'],
  ownAccess: [...anywhere, 'requests'],
  accessToCopy: [...anywhere, 'node:{id}'],
  explanation: atPlace,
  // Remedies tell how much they open besides, and that wherever it is.
  whyNot: [...anywhere, 'requests'],
  peopleWithAccess: atPlace,
  columns: atPlace,
  board: [...atPlace, 'own-board'],
  boardRows: ['within:{id}', 'node:{id}', 'places', 'access', 'people', 'teams', 'workspace'],
  boardTotals: ['within:{id}', 'node:{id}', 'places', 'access', 'people', 'teams', 'workspace'],
  editedCells: ['editing:{id}', 'people'],
  row: ['document:{id}', 'node:{id}', 'within:{id}', ...anywhere],
  rowHistory: ['document:{id}', 'places', 'rows', 'people', 'access'],
  comments: ['comments:{id}', 'places', 'rows', 'people', 'access'],
  peopleOfColumn: atPlace,
  text: ['document:{id}', 'people'],
  textVersions: ['document:{id}', 'places', 'people'],
  textVersion: ['document:{id}', 'places', 'people'],
  file: ['document:{id}', 'places', 'people'],
  fileVersions: ['document:{id}', 'places', 'people'],
  filePreview: ['document:{id}', 'places', 'people'],
  filePreviewWords: ['document:{id}', 'places'],
  people: [...anywhere, 'requests'],
  peopleIds: [...anywhere, 'requests'],
  peopleNames: ['people', 'roles'],
  person: [...anywhere, 'requests', 'sessions'],
  accessOfPerson: anywhere,
  placesOfPerson: anywhere,
  offboarding: anywhere,
  rolesToAssign: ['roles', 'people', 'teams', 'workspace'],
  roles: [...everybody, 'requests'],
  holders: everybody,
  owners: ['roles', 'people'],
  seats: anywhere,
  requests: [...everybody, 'places', 'rows', 'requests'],
  viewingSessions: ['sessions', 'people', 'roles'],
  viewed: [...anywhere, 'sessions'],
  grants: anywhere,
  placesToCheck: ['places', 'sessions'],
  diff: ['history'],
  history: ['history'],
  auditEntry: ['history'],
  notifications: ['notifications', 'places', 'rows', ...everybody],
  drafts: ['drafts', 'people'],
  draft: ['drafts', 'people'],
  draftItems: ['drafts', ...anywhere],
  draftRecipients: ['drafts', ...anywhere],
}
