/** What a figure is to come to, itself or as so many times its floor. */
export interface Aim {
  readonly of: 'value' | 'ratio'
  readonly atMost?: number
  readonly atLeast?: number
}

interface Figure {
  readonly what: string
  readonly aim?: Aim
}

const timedToo = 'one in ten starts or ends'

/** Every figure that `npm run bench` tells, by an id that stays: what it is, and what it is to come to where that was set. */
export const figures = {
  'check.cold': { what: 'check, cold' },
  'check.warm': { what: 'check, warm' },
  who: { what: 'who' },
  'what.counted': { what: 'what, counted' },
  'impact.person': { what: 'impact: a person’s grant somewhere' },
  'impact.team': { what: 'impact: a team’s grant somewhere' },
  'impact.team-tenth': { what: 'impact: a team’s grant on a tenth of all places' },
  'impact.everybody-tenth': { what: 'impact: everybody’s grant on a tenth of all places' },
  build: { what: 'build from arrays' },
  'memory.index': { what: 'memory of the index' },
  'memory.ids': { what: 'memory of the ids by which places are found' },
  'check.cold.timed': { what: `check, cold; ${timedToo}` },
  'check.warm.timed': { what: `check, warm; ${timedToo}` },
  'who.timed': { what: `who; ${timedToo}` },
  'what.counted.timed': { what: `what, counted; ${timedToo}` },
  'impact.person.timed': { what: `impact: a person’s grant somewhere; ${timedToo}` },
  'impact.team.timed': { what: `impact: a team’s grant somewhere; ${timedToo}` },
  'impact.team-tenth.timed': { what: `impact: a team’s grant on a tenth of all places; ${timedToo}` },
  'impact.everybody-tenth.timed': {
    what: `impact: everybody’s grant on a tenth of all places; ${timedToo}`,
  },
  start: { what: 'start: from the file to the first answer' },
  'impact.membership': { what: 'impact: a person into a team' },
  'impact.break': { what: 'impact: a break on a tenth of all places' },
  remedies: { what: 'remedies' },
  'thread.diff': { what: 'asked of the thread: everybody’s grant on a tenth of all places' },
  'thread.diff.held': { what: 'the server held meanwhile' },
  'thread.sending': { what: 'to the thread: the server held' },
  'thread.first': { what: 'to the thread with the whole index' },
  preview: { what: 'previewed over HTTP: everybody’s grant on a tenth of all places' },
  'preview.held': { what: 'the server held for it' },
  'listing.rate': { what: 'a listing over HTTP' },
  'listing.p99': { what: 'and the slowest of a hundred' },
  'writes.rate': { what: 'confirmed writes, fifty at once' },
  'aged.listing.rate': {
    what: 'a listing after as many changes as a month has',
    aim: { of: 'ratio', atLeast: 0.9 },
  },
  'aged.writes.rate': {
    what: 'confirmed writes after them, fifty at once',
    aim: { of: 'ratio', atLeast: 0.9 },
  },
  'many.start': {
    what: 'start with 5,000 small workspaces, to the first answer',
    aim: { of: 'value', atMost: 2000 },
  },
  'many.first': { what: 'the first answer of one that nobody has used' },
  'following.state': {
    what: 'a change, from its confirmation to the answer of another process, 19 of 20 times',
    aim: { of: 'value', atMost: 200 },
  },
  'people.first': { what: 'first rows of 20,000 people' },
  'people.search': { what: 'a search among them' },
  'people.ending': { what: 'guests whose time ends soon, by end' },
  'people.far': { what: 'the rows from 15,000 on' },
  'people.one': { what: 'one of them' },
  'people.names': { what: 'all names, to pick from' },
  'people.csv': { what: 'all of it as CSV' },
  'people.addresses': { what: '500 addresses judged' },
  'people.offer': { what: 'an offer looked through, 2,000 places' },
  'people.inviting': { what: '500 invited, each into a team and a place, with mails and history' },
  'people.import.judged': { what: 'a table of 5,000 rows judged' },
  'people.import.done': { what: 'the 5,000 brought in, 50 at a time' },
  'people.page': { what: 'opening the list in Chromium, first rows drawn' },
  'people.page.filtered': { what: 'opening it with a filter' },
  'roles.assign.preview': { what: 'a role for 5,000 people, its effect on each' },
  'roles.assign': { what: 'the same, done: judged, compared with what was seen, written' },
  'roles.change.preview': { what: 'a privilege more for a role that 5,000 hold, its effect' },
  'roles.list': { what: '60 roles with who holds what' },
  'roles.holders': { what: 'the 5,000 holders of one' },
  'roles.seats': { what: 'the seats and how that came' },
  'roles.matrix': { what: 'opening 60 roles side by side in Chromium' },
  'roles.matrix.cell': { what: 'a cell turned there, drawn' },
  'bytes.upload': {
    what: '1 GiB uploaded, until it is a file',
    aim: { of: 'ratio', atMost: 1.67 },
  },
  'bytes.memory': {
    what: 'memory that the server takes more while 5 GiB come in',
    aim: { of: 'value', atMost: 150 },
  },
  'bytes.many': { what: 'twenty uploads of 64 MiB at once' },
  'bytes.thumbnail': {
    what: 'a small picture of a photograph of 12 million pixels, the first time',
    aim: { of: 'value', atMost: 150 },
  },
  'bytes.range': { what: 'a part of 8 MiB of a file', aim: { of: 'ratio', atMost: 1.25 } },
  'words.made': { what: 'the index of 1,000,000 places made anew' },
  'words.first': { what: 'the first search after a start' },
  'words.owner': {
    what: 'what is in nine of ten texts, for an owner, 19 of 20 times',
    aim: { of: 'value', atMost: 60 },
  },
  'words.owner.begun': { what: 'that word without its last letter', aim: { of: 'value', atMost: 60 } },
  'words.owner.two': { what: 'two words, for an owner', aim: { of: 'value', atMost: 60 } },
  'words.few.first': { what: 'the first search of who sees one place in a thousand' },
  'words.few': {
    what: 'the same word for who sees one place in a thousand',
    aim: { of: 'value', atMost: 150 },
  },
  'words.few.hidden': {
    what: 'a word that only others may read, for the same person',
    aim: { of: 'ratio', atMost: 1.1 },
  },
  'indexing.write': {
    what: 'a text of 400 words written, with the index of words behind it',
    aim: { of: 'ratio', atMost: 1.2 },
  },
  'board.cold': { what: 'a board opened that nobody looked at before' },
  'board.window': { what: 'its first hundred rows', aim: { of: 'value', atMost: 60 } },
  'board.far': { what: 'a hundred rows from the middle of it' },
  'board.filter': { what: 'two conditions and a sort', aim: { of: 'value', atMost: 100 } },
  'board.group': { what: 'a condition, grouped and sorted' },
  'board.totals': { what: 'sums of all columns', aim: { of: 'value', atMost: 50 } },
  'board.cell': { what: 'one cell written', aim: { of: 'value', atMost: 60 } },
  'board.cell.asked': { what: 'one cell written, and the rows asked for again' },
  'board.paste': { what: '5,000 cells written', aim: { of: 'value', atMost: 1000 } },
  'board.memory': { what: 'memory of a cell', aim: { of: 'value', atMost: 60 } },
  'board.memory.process': { what: 'memory that the server takes more for it' },
  'board.page': {
    what: 'from the click on it to its first rows, in Chromium',
    aim: { of: 'value', atMost: 400 },
  },
  'board.frames': {
    what: 'the longest frame while one scrolls, 120 pixels a frame',
    aim: { of: 'value', atMost: 50 },
  },
  'board.frames.usual': { what: 'the usual frame of these' },
  'board.frames.fast': { what: 'the usual frame at 400 pixels a frame' },
  'board.cell.other': {
    what: 'from the key to the cell in another browser',
    aim: { of: 'value', atMost: 150 },
  },
  'screen.sign-in.code': { what: 'signing in: code and styles', aim: { of: 'value', atMost: 190 } },
  'screen.sign-in.drawn': { what: 'signing in: largest part drawn' },
  'screen.arrival.code': { what: 'where one arrives: code and styles', aim: { of: 'value', atMost: 190 } },
  'screen.arrival.drawn': { what: 'where one arrives: largest part drawn' },
  'screen.place.code': { what: 'a place with its access: code and styles' },
  'screen.place.drawn': { what: 'a place with its access: largest part drawn' },
} as const satisfies Readonly<Record<string, Figure>>

export type FigureId = keyof typeof figures
export const figureOf = (id: FigureId): Figure => figures[id]
