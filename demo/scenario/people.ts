/** The people of Marram Coast Survey. All of them, and their addresses, are made up. */

export interface DemoPerson {
  /** Short name by which the other tables speak of the person; the address is made from it. */
  readonly key: string
  readonly name: string
  readonly as: 'member' | 'guest'
  /** A role beside Member; the owner founds the workspace and has none here. */
  readonly role?: 'role-owner' | 'role-administrator' | 'role-people-lead'
  /** Who invites. */
  readonly by: string
  /** How many days ago. */
  readonly day: number
  /** When the person's time here ends, in days from now. */
  readonly until?: number
  /** Invited, but has not come in. */
  readonly isInvited?: boolean
  readonly message?: string
}

export const founder = { key: 'ilse', name: 'Ilse Brandt' }

export const people: readonly DemoPerson[] = [
  { key: 'tomas', name: 'Tomas Reuss', as: 'member', role: 'role-owner', by: 'ilse', day: 268 },
  { key: 'noor', name: 'Noor Haddix', as: 'member', role: 'role-administrator', by: 'ilse', day: 266 },
  { key: 'wiebke', name: 'Wiebke Aalders', as: 'member', role: 'role-people-lead', by: 'noor', day: 260 },
  { key: 'aino', name: 'Aino Vuori', as: 'member', by: 'wiebke', day: 255 },
  { key: 'davit', name: 'Davit Orbel', as: 'member', by: 'wiebke', day: 255 },
  { key: 'maren', name: 'Maren Holt', as: 'member', by: 'wiebke', day: 254 },
  { key: 'joss', name: 'Joss Penhale', as: 'member', by: 'wiebke', day: 250 },
  { key: 'pilar', name: 'Pilar Onsund', as: 'member', by: 'wiebke', day: 248 },
  { key: 'edda', name: 'Edda Kroon', as: 'member', by: 'wiebke', day: 240 },
  { key: 'ravi', name: 'Ravi Tolland', as: 'member', by: 'wiebke', day: 212 },
  { key: 'sunniva', name: 'Sunniva Berg', as: 'member', by: 'wiebke', day: 180 },
  { key: 'callum', name: 'Callum Drey', as: 'member', by: 'wiebke', day: 120, until: 60 },
  { key: 'imke', name: 'Imke Fenwright', as: 'member', by: 'wiebke', day: 90, until: 60 },
  {
    key: 'oskar',
    name: 'Oskar Lindow',
    as: 'member',
    by: 'wiebke',
    day: 6,
    isInvited: true,
    message: 'Welcome to the winter counts!',
  },
  { key: 'sefa', name: 'Sefa Lund', as: 'guest', by: 'wiebke', day: 175, until: 120 },
  { key: 'rosamund', name: 'Rosamund Quill', as: 'guest', by: 'noor', day: 140 },
  { key: 'henrik', name: 'Henrik Maas', as: 'guest', by: 'noor', day: 96 },
  { key: 'tove', name: 'Tove Askeland', as: 'guest', by: 'noor', day: 60, until: 30 },
  {
    key: 'bram',
    name: 'Bram Ostler',
    as: 'guest',
    by: 'noor',
    day: 3,
    isInvited: true,
    message: 'For the drone flights over Gull Sands.',
  },
]

export const mailOf = (key: string): string => `${key}@${guestDomains[key] ?? 'marram.example'}`

const guestDomains: Readonly<Record<string, string>> = {
  sefa: 'lund-estate.example',
  rosamund: 'coastfund.example',
  henrik: 'county-ecology.example',
  tove: 'fjord-college.example',
  bram: 'highline-drones.example',
}

/** Everybody in the demo signs in with it. */
export const demoPassword = 'sea-holly-and-marram'
