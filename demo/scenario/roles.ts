import type { Privilege } from '#core/levels/privilege.ts'

/** Roles of the workspace's own, and who holds them over whom. */
export interface DemoRole {
  readonly key: string
  readonly name: string
  readonly note: string
  readonly rung: number
  readonly privileges: readonly Privilege[]
  readonly day: number
  /** Held over the people of a team, or over the whole workspace. */
  readonly held: readonly { readonly by: string; readonly overTeam?: string; readonly day: number }[]
}

export const roles: readonly DemoRole[] = [
  {
    key: 'sign-in-help',
    name: 'Sign-in help',
    note: 'Sends volunteers a new sign-in link, and nothing else.',
    rung: 25,
    privileges: ['reset sign-in'],
    day: 199,
    held: [{ by: 'gesa', overTeam: 'volunteers', day: 196 }],
  },
  {
    key: 'channel-minder',
    name: 'Channel minder',
    note: 'Keeps the channels friendly.',
    rung: 30,
    privileges: ['moderate', 'create channels'],
    day: 188,
    held: [{ by: 'tamsin', day: 187 }],
  },
  {
    key: 'auditor',
    name: 'Auditor',
    note: 'Reads the history and checks who can do what.',
    rung: 40,
    privileges: ['read the history', 'check access'],
    day: 142,
    held: [{ by: 'lotte', day: 141 }],
  },
  // Made with good intent; nobody holds it.
  {
    key: 'station-keeper',
    name: 'Station keeper',
    note: 'For whoever looks after the field station.',
    rung: 35,
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
