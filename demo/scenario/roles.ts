import type { Privilege } from '#core/levels/privilege.ts'

/** Roles of the workspace's own, and who holds them over whom. */
export interface DemoRole {
  readonly key: string
  readonly name: string
  readonly note: string
  readonly rank: number
  readonly privileges: readonly Privilege[]
  /** Its holders may be called in channels. */
  readonly addressable?: boolean
  readonly day: number
  /** Held over the people of a team, or over the whole workspace. */
  readonly held: readonly { readonly by: string; readonly overTeam?: string; readonly day: number }[]
}

export const roles: readonly DemoRole[] = [
  {
    key: 'sign-in-help',
    name: 'Sign-in help',
    note: 'Sends volunteers a new sign-in link, and nothing else.',
    rank: 25,
    privileges: ['reset sign-in'],
    day: 199,
    held: [{ by: 'gesa', overTeam: 'volunteers', day: 196 }],
  },
  {
    key: 'channel-minder',
    name: 'Channel minder',
    note: 'Keeps the channels friendly.',
    rank: 30,
    privileges: ['moderate', 'create channels'],
    day: 188,
    held: [{ by: 'tamsin', day: 187 }],
  },
  {
    key: 'warden',
    name: 'Warden',
    note: 'Called when something happens on a site.',
    rank: 25,
    privileges: ['address everyone'],
    addressable: true,
    day: 180,
    held: [
      { by: 'tomas', day: 180 },
      { by: 'piran', day: 179 },
      { by: 'amadi', day: 179 },
      { by: 'mercy', day: 171 },
    ],
  },
  {
    key: 'auditor',
    name: 'Auditor',
    note: 'Reads the history and checks who can do what.',
    rank: 40,
    privileges: ['read the history', 'check access'],
    day: 142,
    held: [{ by: 'lotte', day: 141 }],
  },
  // Made with good intent; nobody holds it.
  {
    key: 'station-keeper',
    name: 'Station keeper',
    note: 'For whoever looks after the field station.',
    rank: 35,
    privileges: ['create homes', 'see storage'],
    day: 137,
    held: [],
  },
]

/** A level of the workspace's own, and where it is used. */
export const ownLevel = {
  key: 'proofreader',
  name: 'Proofreader',
  note: 'Corrects what is there, and adds nothing.',
  actions: ['copy', 'comment', 'change'],
  day: 165,
  by: 'ilse',
  given: { place: 'Funder Report/Summary', to: 'tamsin', by: 'ilse', day: 134 },
} as const

export const seats = { bought: 60, by: 'ilse', day: 240 } as const

/** Who asks for what a privilege lets one do; one was declined. */
export const requests: readonly {
  readonly by: string
  readonly privilege: Privilege
  readonly reason: string
  readonly day: number
  readonly declined?: { readonly by: string; readonly reason: string; readonly day: number }
}[] = [
  {
    by: 'tamsin',
    privilege: 'read the history',
    reason: 'To write the yearly report.',
    day: 60,
    declined: { by: 'noor', reason: 'Lotte takes out what you need.', day: 59 },
  },
  {
    by: 'maren',
    privilege: 'invite guests',
    reason: 'The lab sends two more people in spring.',
    day: 3,
  },
  { by: 'joss', privilege: 'create homes', reason: 'A place for the repair lists.', day: 1 },
]

/** When an owner or the office looked by a privilege, and why. */
export const looked = [
  { by: 'noor', through: 'sefa', reason: 'She could not find the access notes.', day: 96 },
  { by: 'ilse', through: null, reason: 'Which homes does nobody use?', day: 41 },
  { by: 'noor', through: 'henrik', reason: 'Does the county see the fees?', day: 12 },
] as const
