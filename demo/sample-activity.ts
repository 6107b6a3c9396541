import { check } from '#core/access/evaluate.ts'
import { actionsAt } from '#core/access/evaluate.ts'
import { placeOf } from '#core/access/place.ts'
import { subjectOf } from '#core/access/subject.ts'
import { allRows, rowsBy } from '#core/base/collection.ts'
import type { PersonId } from '#core/base/ids.ts'
import type { Instant } from '#core/base/instant.ts'
import type { Edit } from '#core/changes/edit.ts'
import { type Action, has, holds } from '#core/levels/action.ts'
import { type BuiltInLevel, levelActions } from '#core/levels/level.ts'
import { childrenOf, type Snapshot, pathOf } from '#core/state/state.ts'
import type { ContentNode, NodeKind } from '#core/tree/node.ts'
import { idOf } from './ids.ts'
import { edit, type LatePlan } from './plan.ts'
import { createRandom, type Random } from './random.ts'
import { endings, files, notes, pages, reasons, rows } from './scenario/words.ts'

/** How many small things people do on the days between those that the tables speak of. */
const steps = 260
const firstDay = 182

/**
 * What happens anyway: things are added, described, shared for a while, binned and brought back. Who does
 * what hangs on what they may do by then, so that every step is one that the core allows.
 */
export function planSampleActivity(): LatePlan[] {
  const random = createRandom(20_260_412)
  return Array.from({ length: steps }, (_, index) => ({
    day: firstDay - (index * (firstDay - 1)) / steps,
    plan: snapshot => {
      const act = random.one(acts)
      const author = random.one(activePeople(snapshot))
      const done = act({ snapshot, author, random, key: String(index) })
      return done === undefined ? undefined : { author: author.slice('person-'.length), ...done }
    },
  }))
}

interface Doing {
  readonly snapshot: Snapshot
  readonly author: PersonId
  readonly random: Random
  /** Makes ids of new things. */
  readonly key: string
}

type Act = (doing: Doing) => { readonly reason?: string; readonly edits: readonly Edit[] } | undefined

const adding: Act = ({ snapshot, author, random, key }) => {
  const place = somewhere({ snapshot, author, random, key }, 'add', ({ kind }) => kind in within)
  if (place === undefined) return undefined
  const as = random.one(within[place.kind as keyof typeof within])
  const taken = new Set(childrenOf(snapshot.state, place.id).map(each => each.name))
  const count = place.kind === 'board' || random.chance(3) ? 1 + random.whole(3) : 1
  return {
    edits: Array.from({ length: count }, (_, index) => {
      const name = nameFor(as, { place, at: snapshot.at, random, taken })
      taken.add(name)
      return edit('node.create', {
        node: idOf('node', 'day', key, String(index)),
        parent: place.id,
        as,
        name,
      })
    }),
  }
}

const within = {
  folder: ['page', 'file', 'page'],
  board: ['row'],
  page: ['file', 'page'],
  row: ['file'],
} as const

interface Naming {
  readonly place: ContentNode
  readonly at: Instant
  readonly random: Random
  readonly taken: ReadonlySet<string>
}

/** One of the words, or the next that no neighbour has. How many names there are hangs on no date: what follows is the same every day. */
function nameFor(kind: NodeKind, { place, at, random, taken }: Naming): string {
  const date = new Date(at)
  const day = `${date.getUTCDate()} ${date.toLocaleString('en-GB', { month: 'long', timeZone: 'UTC' })}`
  const inBoard = rows[place.name] ?? rows.else ?? []
  const words = kind === 'row' ? inBoard : kind === 'file' ? files : pages
  const first = random.whole(words.length)
  const names = words.map((_, index) => (words[(first + index) % words.length] ?? '').replace('DAY', day))
  return names.find(name => !taken.has(name)) ?? `${names[0] ?? ''}, ${taken.size + 1}`
}

const describing: Act = doing => {
  const place = somewhere(doing, 'change', node => node.home === null)
  return place === undefined
    ? undefined
    : { edits: [edit('node.describe', { node: place.id, note: doing.random.one(notes) })] }
}

/** Something for somebody by name, mostly until a day. */
const sharing: Act = doing => {
  const { snapshot, author, random, key } = doing
  const place = somewhere(doing, 'share', node => node.kind !== 'file' && node.kind !== 'row')
  const other = random.one(activePeople(snapshot))
  if (place === undefined || other === author) return undefined
  const subject = subjectOf(snapshot, author)
  const at = placeOf(snapshot, place.id)
  const level = random.one(['Reader', 'Commenter', 'Adder', 'Editor'] as const satisfies BuiltInLevel[])
  if (
    subject === undefined ||
    at === undefined ||
    !holds(actionsAt(snapshot, subject, at), levelActions(level))
  )
    return undefined
  const grant = idOf('grant', 'day', key)
  const until = random.chance(3) ? null : snapshot.at + (14 + random.whole(120)) * 86_400_000
  const fields = {
    node: place.id,
    principal: `person:${other}`,
    gives: levelActions(level),
    from: null,
    until,
  }
  return { reason: random.one(reasons), edits: [edit('grant.add', { grant, ...fields })] }
}

const unsharing: Act = ({ snapshot, author, random }) => {
  const mine = allRows(snapshot.state.grants)
    .filter(each => each.by === author && each.id.startsWith('grant-day-'))
    .sort((a, b) => (a.id < b.id ? -1 : 1))
  return mine.length === 0
    ? undefined
    : { reason: random.one(endings), edits: [edit('grant.end', { grant: random.one(mine).id })] }
}

const isSmall = (node: ContentNode) => node.id.startsWith('node-day-')

const binning: Act = doing => {
  const place = somewhere(doing, 'remove', isSmall)
  return place === undefined ? undefined : { edits: [edit('node.state', { node: place.id, binned: true })] }
}

/** What its author had put in the bin, a day ago or more, comes back. */
const bringingBack: Act = ({ snapshot, author, random }) => {
  const mine = rowsBy(snapshot.state.nodes, 'bin', 'bin')
    .filter(({ binned }) => binned?.by === author)
    .sort((a, b) => (a.id < b.id ? -1 : 1))
  return mine.length === 0
    ? undefined
    : { edits: [edit('node.state', { node: random.one(mine).id, binned: false })] }
}

const archiving: Act = doing => {
  const place = somewhere(doing, 'remove', node => isSmall(node) && node.kind === 'page')
  return place === undefined ? undefined : { edits: [edit('node.state', { node: place.id, archived: true })] }
}

const often = (count: number, act: Act): Act[] => Array.from({ length: count }, () => act)

const acts: readonly Act[] = [
  ...often(9, adding),
  ...often(3, describing),
  ...often(6, sharing),
  unsharing,
  ...often(2, binning),
  bringingBack,
  archiving,
]

/** A place where somebody may do something, outside what is private. */
function somewhere(
  { snapshot, author, random }: Doing,
  action: Action,
  fits: (node: ContentNode) => boolean,
): ContentNode | undefined {
  const found = allRows(snapshot.state.nodes)
    .filter(node => has(check(snapshot, author, node.id), action) && fits(node))
    .filter(node => pathOf(snapshot.state, node.id).every(each => each.home?.of !== 'person'))
    .sort((a, b) => (a.id < b.id ? -1 : 1))
  return found.length === 0 ? undefined : random.one(found)
}

const activePeople = (snapshot: Snapshot): PersonId[] =>
  allRows(snapshot.state.persons)
    .filter(person => subjectOf(snapshot, person.id)?.isActive === true)
    .map(person => person.id)
    .sort()
