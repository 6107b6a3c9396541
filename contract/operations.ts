/**
 * Every operation of the API: how it is asked for. What goes in and comes out says contract/routes.ts, by the same
 * names; the pages ask by this table alone, so that no schema goes to the browser. Addresses are for ever.
 */
export const operations = {
  session: ['GET', '/session'],
  signIn: ['POST', '/session'],
  signOut: ['DELETE', '/session'],
  setUp: ['POST', '/set-up'],
  readInvitation: ['POST', '/invitations/read'],
  acceptInvitation: ['POST', '/invitations/accept'],
  readJoinLink: ['POST', '/join-links/read'],
  joinByLink: ['POST', '/join-links/join'],
  resetPassword: ['POST', '/password-resets'],
  readAccountLink: ['POST', '/account-links/read'],
  useAccountLink: ['POST', '/account-links/use'],
  description: ['GET', '/openapi.json'],
  mailbox: ['GET', '/mailbox'],

  account: ['GET', '/account'],
  changeAccount: ['PUT', '/account'],
  changePassword: ['PUT', '/account/password'],
  confirmAddress: ['POST', '/account/address'],
  beginTwoStep: ['POST', '/account/two-step'],
  confirmTwoStep: ['POST', '/account/two-step/confirm'],
  endTwoStep: ['POST', '/account/two-step/end'],
  endOtherSignIns: ['DELETE', '/account/sign-ins'],
  endSignIn: ['DELETE', '/account/sign-ins/{id}'],
  acceptMine: ['POST', '/account/invitations/{id}'],
  createWorkspace: ['POST', '/workspaces'],

  workspace: ['GET', '/at/{slug}'],
  live: ['GET', '/at/{slug}/live'],
  settings: ['GET', '/at/{slug}/settings'],
  onboarding: ['GET', '/at/{slug}/onboarding'],
  myAccess: ['GET', '/at/{slug}/me/access'],
  teams: ['GET', '/at/{slug}/teams'],
  bin: ['GET', '/at/{slug}/bin'],
  tree: ['GET', '/at/{slug}/tree'],
  places: ['GET', '/at/{slug}/places'],
  search: ['GET', '/at/{slug}/search'],
  keepPicture: ['POST', '/at/{slug}/pictures'],
  picture: ['GET', '/at/{slug}/pictures/{id}'],

  node: ['GET', '/at/{slug}/nodes/{id}'],
  children: ['GET', '/at/{slug}/nodes/{id}/children'],
  changesWithin: ['GET', '/at/{slug}/nodes/{id}/changes'],
  moveTargets: ['GET', '/at/{slug}/nodes/{id}/move-targets'],
  access: ['GET', '/at/{slug}/nodes/{id}/access'],
  ownAccess: ['GET', '/at/{slug}/nodes/{id}/own-access'],
  accessToCopy: ['GET', '/at/{slug}/nodes/{id}/access-to-copy'],
  explanation: ['GET', '/at/{slug}/nodes/{id}/why/{person}'],
  whyNot: ['GET', '/at/{slug}/nodes/{id}/why-not/{person}/{action}'],
  peopleWithAccess: ['GET', '/at/{slug}/nodes/{id}/people'],
  zip: ['GET', '/at/{slug}/nodes/{id}/zip'],
  columns: ['GET', '/at/{slug}/nodes/{id}/columns'],
  peopleOfColumn: ['GET', '/at/{slug}/nodes/{id}/columns/{column}/people'],
  text: ['GET', '/at/{slug}/nodes/{id}/text'],
  saveText: ['PUT', '/at/{slug}/nodes/{id}/text'],
  textVersions: ['GET', '/at/{slug}/nodes/{id}/text/versions'],
  textVersion: ['GET', '/at/{slug}/nodes/{id}/text/versions/{version}'],
  file: ['GET', '/at/{slug}/nodes/{id}/file'],
  fileVersions: ['GET', '/at/{slug}/nodes/{id}/file/versions'],
  restoreFileVersion: ['POST', '/at/{slug}/nodes/{id}/file/versions/{version}/restore'],
  fileBytes: ['GET', '/at/{slug}/nodes/{id}/file/bytes'],
  fileVersionBytes: ['GET', '/at/{slug}/nodes/{id}/file/versions/{version}/bytes'],
  filePreview: ['GET', '/at/{slug}/nodes/{id}/file/preview'],
  filePreviewPage: ['GET', '/at/{slug}/nodes/{id}/file/preview/{page}'],
  filePreviewWords: ['GET', '/at/{slug}/nodes/{id}/file/preview/{page}/words'],

  storage: ['GET', '/at/{slug}/storage'],
  uploads: ['GET', '/at/{slug}/uploads'],
  uploadProtocol: ['OPTIONS', '/at/{slug}/uploads'],
  beginUpload: ['POST', '/at/{slug}/uploads'],
  uploadOffset: ['HEAD', '/at/{slug}/uploads/{id}'],
  appendToUpload: ['PATCH', '/at/{slug}/uploads/{id}'],
  endUpload: ['DELETE', '/at/{slug}/uploads/{id}'],

  people: ['GET', '/at/{slug}/people'],
  peopleIds: ['GET', '/at/{slug}/people/ids'],
  peopleNames: ['GET', '/at/{slug}/people/names'],
  peopleCsv: ['GET', '/at/{slug}/people.csv'],
  judgeAddresses: ['POST', '/at/{slug}/people/addresses'],
  previewOffer: ['POST', '/at/{slug}/people/offer-preview'],
  judgeImport: ['POST', '/at/{slug}/imports'],
  person: ['GET', '/at/{slug}/people/{id}'],
  accessOfPerson: ['GET', '/at/{slug}/people/{id}/access'],
  placesOfPerson: ['GET', '/at/{slug}/people/{id}/places'],
  offboarding: ['GET', '/at/{slug}/people/{id}/offboarding'],
  rolesToAssign: ['GET', '/at/{slug}/people/{id}/roles-to-assign'],
  passOnInvitation: ['POST', '/at/{slug}/people/{id}/invitation-link'],
  sendSignInLink: ['POST', '/at/{slug}/people/{id}/sign-in-link'],
  endTheirSignIns: ['DELETE', '/at/{slug}/people/{id}/sign-ins'],

  roles: ['GET', '/at/{slug}/roles'],
  holders: ['GET', '/at/{slug}/roles/{id}/holders'],
  owners: ['GET', '/at/{slug}/owners'],
  seats: ['GET', '/at/{slug}/seats'],
  requests: ['GET', '/at/{slug}/requests'],
  viewingSessions: ['GET', '/at/{slug}/sessions'],
  viewed: ['GET', '/at/{slug}/sessions/{id}'],

  grants: ['GET', '/at/{slug}/grants'],
  check: ['POST', '/at/{slug}/check'],
  placesToCheck: ['GET', '/at/{slug}/check/places'],
  diff: ['GET', '/at/{slug}/diff'],
  history: ['GET', '/at/{slug}/history'],
  auditEntry: ['GET', '/at/{slug}/history/{revision}'],
  notifications: ['GET', '/at/{slug}/notifications'],
  readNotifications: ['POST', '/at/{slug}/notifications/read'],
  chooseNotifications: ['PUT', '/at/{slug}/notifications/choices'],

  drafts: ['GET', '/at/{slug}/drafts'],
  addToDraft: ['POST', '/at/{slug}/drafts'],
  draft: ['GET', '/at/{slug}/drafts/{id}'],
  changeDraft: ['PUT', '/at/{slug}/drafts/{id}'],
  discardDraft: ['DELETE', '/at/{slug}/drafts/{id}'],
  draftItems: ['GET', '/at/{slug}/drafts/{id}/items'],
  draftRecipients: ['GET', '/at/{slug}/drafts/{id}/recipients'],
  handOverDraft: ['POST', '/at/{slug}/drafts/{id}/handover'],
  preview: ['POST', '/at/{slug}/changes/preview'],
  change: ['POST', '/at/{slug}/changes'],
} as const satisfies Readonly<Record<string, readonly [Method, `/${string}`]>>

export type Method = 'GET' | 'HEAD' | 'OPTIONS' | 'POST' | 'PUT' | 'PATCH' | 'DELETE'
export type Operation = keyof typeof operations
export const operationNames = Object.keys(operations) as readonly Operation[]

/** The names of what stands in the address of an operation. */
export type ParamsIn<Path extends string> = Path extends `${string}{${infer Name}}${infer Rest}`
  ? Name | ParamsIn<Rest>
  : never
export type PathOf<O extends Operation> = (typeof operations)[O][1]

/** The address of an operation, with what stands in it filled in. */
export const addressOf = (operation: Operation, params: Readonly<Record<string, unknown>>): string =>
  operations[operation][1].replaceAll(/\{(\w+)\}/g, (_, name: string) =>
    encodeURIComponent(String(params[name])),
  )
