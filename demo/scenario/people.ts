/** The people of Marram Coast Survey. All of them, and their addresses, are made up. */

export interface DemoPerson {
  /** Short name by which the other tables speak of the person; the address is made from it. */
  readonly key: string
  readonly name: string
  readonly as: 'member' | 'guest'
  /** What they do, as they write it themselves. */
  readonly title?: string
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
  /** How many days ago they were suspended, or removed, and by whom. */
  readonly suspended?: { readonly day: number; readonly by: string; readonly reason: string }
  readonly removed?: { readonly day: number; readonly by: string; readonly reason: string }
  readonly message?: string
  /** The welcome set that they are invited with. */
  readonly welcome?: string
}

export const founder = { key: 'ilse', name: 'Ilse Brandt', title: 'Survey director' }

type Row = readonly [key: string, name: string, title: string, day: number]

const member = ([key, name, title, day]: Row, more: Partial<DemoPerson> = {}): DemoPerson => ({
  key,
  name,
  title,
  as: 'member',
  by: 'wiebke',
  day,
  ...more,
})

const guest = ([key, name, title, day]: Row, by: string, more: Partial<DemoPerson> = {}): DemoPerson => ({
  key,
  name,
  title,
  as: 'guest',
  by,
  day,
  ...more,
})

/** Those who come for a season leave by themselves when it is over. */
const season = { until: 60 }

const staff: readonly DemoPerson[] = [
  member(['tomas', 'Tomas Reuss', 'Head warden', 268], { role: 'role-owner', by: 'ilse' }),
  member(['noor', 'Noor Haddix', 'Office', 266], { role: 'role-administrator', by: 'ilse' }),
  member(['wiebke', 'Wiebke Aalders', 'Volunteer co-ordinator', 260], {
    role: 'role-people-lead',
    by: 'noor',
  }),
  member(['aino', 'Aino Vuori', 'Ornithologist', 255]),
  member(['davit', 'Davit Orbel', 'Field assistant, birds', 255]),
  member(['maren', 'Maren Holt', 'Dune ecologist', 254]),
  member(['joss', 'Joss Penhale', 'Boat skipper', 250]),
  member(['pilar', 'Pilar Onsund', 'Ringer', 248]),
  member(['edda', 'Edda Kroon', 'Landowner liaison', 240]),
  member(['ravi', 'Ravi Tolland', 'Kit and engines', 212]),
  member(['hedvig', 'Hedvig Sorel', 'Saltmarsh ecologist', 252]),
  member(['piran', 'Piran Yeo', 'Warden, Harrow Creek', 251]),
  member(['amadi', 'Amadi Crane', 'Warden, Gull Sands', 249]),
  member(['lotte', 'Lotte Venn', 'Data clerk', 247]),
  member(['kasper', 'Kasper Thule', 'Data desk', 246], {
    suspended: { day: 17, by: 'noor', reason: 'On leave until spring' },
  }),
  member(['yara', 'Yara Elmhirst', 'Botanist', 236]),
  member(['finlo', 'Finlo Kewish', 'Deckhand', 233]),
  member(['gesa', 'Gesa Marwick', 'Office, mornings', 231]),
  member(['oren', 'Oren Sallow', 'Sediment and levels', 228]),
  member(['tamsin', 'Tamsin Arkell', 'Education', 224]),
  member(['bastian', 'Bastian Rook', 'Mapping', 220]),
  member(['ilka', 'Ilka Fennimore', 'Fundraising', 215]),
  member(['mercy', 'Mercy Oduba', 'Warden, Long Marsh', 209]),
]

const volunteers: readonly DemoPerson[] = [
  member(['sunniva', 'Sunniva Berg', 'Volunteer', 180]),
  member(['callum', 'Callum Drey', 'Season volunteer', 120], season),
  member(['imke', 'Imke Fenwright', 'Season volunteer', 90], season),
  member(['jory', 'Jory Tresk', 'Volunteer', 198]),
  member(['solveig', 'Solveig Aune', 'Volunteer', 196]),
  member(['nadim', 'Nadim Sharrow', 'Volunteer', 192]),
  member(['branwen', 'Branwen Pugh', 'Season volunteer', 126], season),
  member(['tjark', 'Tjark Onnen', 'Season volunteer', 124], season),
  member(['odile', 'Odile Massy', 'Season volunteer', 122], season),
  member(['ruben', 'Ruben Halloran', 'Season volunteer', 118], season),
  member(['saskia', 'Saskia Wold', 'Season volunteer', 111], season),
  member(['emeka', 'Emeka Farr', 'Season volunteer', 108], season),
  member(['liv', 'Liv Tarrant', 'Season volunteer', 97], season),
  member(['hal', 'Hal Bressay', 'Season volunteer', 94], season),
  member(['petra', 'Petra Quillan', 'Volunteer', 88], {
    removed: { day: 33, by: 'noor', reason: 'Moved inland' },
  }),
  member(['anton', 'Anton Reve', 'Season volunteer', 86], {
    suspended: { day: 41, by: 'noor', reason: 'Lost the radio twice; talk in the new year' },
  }),
  member(['wren', 'Wren Castellan', 'Volunteer', 64]),
  member(['joachim', 'Joachim Lund-Marsh', 'Volunteer', 52]),
]

const guests: readonly DemoPerson[] = [
  guest(['sefa', 'Sefa Lund', 'Lund estate', 175], 'wiebke', { until: 120 }),
  guest(['aldous', 'Aldous Brakes', 'Manager, Lund estate', 172], 'noor', { until: 120 }),
  guest(['rosamund', 'Rosamund Quill', 'Coast fund, reviewer', 140], 'noor'),
  guest(['henrik', 'Henrik Maas', 'County ecologist', 96], 'noor'),
  guest(['tove', 'Tove Askeland', 'Student', 60], 'noor', { until: 30 }),
  guest(['milo', 'Milo Vantongeren', 'Student', 58], 'noor', { until: 30 }),
  guest(['greer', 'Greer Inskip', 'Highline drones, pilot', 150], 'noor'),
  guest(['ottoline', 'Ottoline Speke', 'Sediment laboratory', 132], 'noor'),
  guest(['casimir', 'Casimir Dowle', 'Sediment laboratory', 131], 'noor'),
  guest(['bridie', 'Bridie Hallam', 'Neighbouring trust', 128], 'noor'),
  guest(['leif', 'Leif Tangen', 'Neighbouring trust', 127], 'noor'),
  guest(['una', 'Una Prowse', 'Harrow farm', 160], 'wiebke'),
  // Past the season, and nobody thought of an end.
  guest(['dorian', 'Dorian Vale', 'Summer photographer', 171], 'wiebke'),
]

const invited: readonly DemoPerson[] = [
  member(['oskar', 'Oskar Lindow', '', 6], {
    isInvited: true,
    message: 'Welcome to the winter counts!',
    welcome: 'winter-counts',
  }),
  member(['maud', 'Maud Ferrier', '', 77], { isInvited: true }),
  member(['severin', 'Severin Kell', '', 71], { isInvited: true }),
  guest(['bram', 'Bram Ostler', '', 3], 'noor', {
    isInvited: true,
    message: 'For the drone flights over Gull Sands.',
  }),
]

export const people: readonly DemoPerson[] = [...staff, ...volunteers, ...guests, ...invited]

export const mailOf = (key: string): string => `${key}@${guestDomains[key] ?? 'marram.example'}`

const guestDomains: Readonly<Record<string, string>> = {
  sefa: 'lund-estate.example',
  aldous: 'lund-estate.example',
  rosamund: 'coastfund.example',
  henrik: 'county-ecology.example',
  tove: 'fjord-college.example',
  milo: 'fjord-college.example',
  bram: 'highline-drones.example',
  greer: 'highline-drones.example',
  ottoline: 'silt-lab.example',
  casimir: 'silt-lab.example',
  bridie: 'next-bay-trust.example',
  leif: 'next-bay-trust.example',
  una: 'harrow-farm.example',
  dorian: 'lightbox.example',
}

/** What people tell of themselves besides; a guest's department is the organisation. */
export const profiles: Readonly<Record<string, { readonly department?: string; readonly country?: string }>> =
  {
    ilse: { department: 'Office', country: 'Germany' },
    tomas: { department: 'Wardens', country: 'Germany' },
    noor: { department: 'Office' },
    wiebke: { department: 'Office', country: 'Netherlands' },
    gesa: { department: 'Office' },
    ilka: { department: 'Office' },
    tamsin: { department: 'Office', country: 'United Kingdom' },
    aino: { department: 'Science', country: 'Finland' },
    maren: { department: 'Science' },
    hedvig: { department: 'Science', country: 'Sweden' },
    yara: { department: 'Science', country: 'United Kingdom' },
    oren: { department: 'Science' },
    bastian: { department: 'Science' },
    davit: { department: 'Science', country: 'Georgia' },
    pilar: { department: 'Science', country: 'Spain' },
    piran: { department: 'Wardens', country: 'United Kingdom' },
    amadi: { department: 'Wardens' },
    mercy: { department: 'Wardens', country: 'Nigeria' },
    joss: { department: 'Boats', country: 'United Kingdom' },
    ravi: { department: 'Boats' },
    finlo: { department: 'Boats' },
    lotte: { department: 'Data', country: 'Denmark' },
    edda: { department: 'Liaison' },
    sefa: { department: 'Lund estate', country: 'Denmark' },
    aldous: { department: 'Lund estate' },
    rosamund: { department: 'Coast fund' },
    henrik: { department: 'County', country: 'Netherlands' },
    greer: { department: 'Highline drones' },
    ottoline: { department: 'Sediment laboratory' },
    casimir: { department: 'Sediment laboratory' },
    bridie: { department: 'Neighbouring trust' },
    leif: { department: 'Neighbouring trust', country: 'Norway' },
    una: { department: 'Harrow farm' },
  }

/** Everybody in the demo signs in with it. */
export const demoPassword = 'sea-holly-and-marram'
