import type {
  DraftHead,
  DraftItemView,
  DraftItemsView,
  DraftView,
  DraftsView,
  RecipientsView,
} from '#contract/views/drafts.ts'
import type { PlaceName } from '#contract/views/names.ts'
import type { EditRequest } from '#contract/edit-requests.ts'
import { isDraftable } from '#contract/draftable.ts'
import type { DraftRequest, AddToDraftRequest, HandOverRequest } from '#contract/requests.ts'
import { isActive, peopleOf } from '#core/access/subject.ts'
import { rowOf } from '#core/base/collection.ts'
import type { PersonId } from '#core/base/ids.ts'
import { compareWords } from '#core/base/compare-words.ts'
import type { Edit } from '#core/changes/edit.ts'
import { auditEventsOf } from '#core/changes/audit-event.ts'
import { applying, lackingRights } from '#core/changes/judge.ts'
import { snapshotOf } from '#core/state/snapshot.ts'
import type { Snapshot, RecordChange } from '#core/state/state.ts'
import type { Parts } from '../../parts.ts'
import type { CountCondition } from '../../store/commit.ts'
import { problemOf } from '../../problem-error.ts'
import type { Patience } from '../../worker/asking.ts'
import type { DraftRow, NotificationRow } from '../../store/tables.ts'
import { type Asker, knowsPerson, nameOf, readerAt } from '../viewer/asker.ts'
import { writeBookkeeping } from '../notifications/bookkeeping.ts'
import { draftOf, mintingFor } from './change-set.ts'
import { editFrom, type Minting, withPlaceholders } from './edits.ts'
import { auditEventView, knowsOf } from '../oversight/audit-event.ts'
import { knowsAll } from './known-ids.ts'
import { nothingWritten } from '../notifications/kind.ts'
import { handed, type Handed } from '../notifications/kinds/handed.ts'
import { telling } from '../notifications/write.ts'
import { spending } from '../viewer/quota.ts'
import { inTurns, type Turn } from '../viewer/turns.ts'

/**
 * Change sets that are not applied yet: one that grows act by act over several screens, those kept under a
 * name, and those that somebody handed over. They are their holder's alone, no part of the state, and judged only
 * when they are previewed or applied.
 */

type Item = readonly EditRequest[]
const itemsOf = (row: DraftRow): Item[] => JSON.parse(row.items) as Item[]

export async function draftsView(parts: Parts, asker: Asker): Promise<DraftsView> {
  const { workspace, person } = asker
  const rows = (await parts.writer.tables.drafts.findAll({
    where: { workspace, person },
    order: [['changedAt', 'DESC']],
    raw: true,
  })) as unknown as DraftRow[]
  const heads = rows.map(row => headOf(asker, row))
  return {
    draft: heads.find(each => each.name === '') ?? null,
    kept: heads.filter(each => each.name !== ''),
  }
}

const headOf = ({ snapshot }: Asker, { id, name, comment, from, changedAt, items }: DraftRow): DraftHead => ({
  id,
  name,
  comment,
  from: from === null ? null : { id: from, name: nameOf(snapshot, from) },
  changedAt,
  count: (JSON.parse(items) as Item[]).length,
})

export async function draftView(parts: Parts, asker: Asker, id: string): Promise<DraftView> {
  const row = await draftOf(parts, asker, id)
  return { ...headOf(asker, row), edits: itemsOf(row).flat() }
}

const unknownLine = 'something that you cannot see, or that was deleted'
const linesAtMost = 50

/**
 * Each act as the history would tell of it, made after those before it. One that names anything that its reader does
 * not know of is told like one that names what is not there.
 */
export async function draftItems(
  parts: Parts,
  asker: Asker,
  { id, patience }: { readonly id: string; readonly patience: Patience },
): Promise<DraftItemsView> {
  const items = itemsOf(await draftOf(parts, asker, id))
  return inTurns(parts, { asker, patience }, async turn => {
    let { snapshot } = asker
    const made = new Map<string, string>()
    const views: DraftItemView[] = []
    for (const item of items) {
      if (!(await knowsEach(asker, item, turn))) {
        views.push({ lines: [unknownLine], more: 0, problem: null })
        continue
      }
      const minting = mintingFor(parts, snapshot.state, made)
      const edits = await mintedIn(item, minting, turn)
      const applied = await turn.run(applying(snapshot, edits))
      if (applied === undefined) {
        views.push({ lines: [], more: 0, problem: problemOf('does-not-fit').problem })
        continue
      }
      snapshot = snapshotOf(applied.state, snapshot.at)
      views.push(await itemView(asker, { changes: applied.changes, snapshot, turn }))
    }
    return { items: views }
  })
}

interface Applied {
  readonly changes: readonly RecordChange[]
  readonly snapshot: Snapshot
  readonly turn: Turn
}

async function itemView(asker: Asker, { changes, snapshot, turn }: Applied): Promise<DraftItemView> {
  const reader = readerAt(asker.workspace, snapshot, asker.person) ?? asker
  const lines: string[] = []
  let more = 0
  for (const event of auditEventsOf(snapshot.state, changes)) {
    await turn.breathe()
    if (!knowsOf(asker, event, true) && !knowsOf(reader, event)) continue
    if (lines.length < linesAtMost) lines.push(auditEventView(reader, event).text)
    else more += 1
  }
  return { lines: lines.length === 0 ? [unknownLine] : lines, more, problem: null }
}

async function knowsEach(asker: Asker, edits: Item, turn: Turn): Promise<boolean> {
  for (const edit of edits) {
    await turn.breathe()
    if (!knowsAll(asker, edit)) return false
  }
  return true
}

async function mintedIn(edits: Item, minting: Minting, turn: Turn): Promise<Edit[]> {
  const minted: Edit[] = []
  for (const edit of edits) {
    await turn.breathe()
    minted.push(editFrom(edit, minting))
  }
  return minted
}

const itemsAtMost = 200
/** Of one person. */
const keptAtMost = 100
/** In all its acts: what is applied together. */
const editsAtMost = 6000

/** Adds an act to the draft; `new:x` in it means what it makes itself, and nothing of other acts. */
export async function addToDraft(
  parts: Parts,
  asker: Asker,
  { edits }: AddToDraftRequest,
): Promise<DraftsView> {
  if (!edits.every(each => isDraftable(each.kind))) throw problemOf('not-draftable')
  const { workspace, person } = asker
  const { drafts } = parts.writer.tables
  const at = parts.clock()
  const where = { workspace, person, name: '' }
  for (;;) {
    const row = (await drafts.findOne({ where, raw: true })) as unknown as DraftRow | null
    const items = row === null ? [] : itemsOf(row)
    const count = items.reduce((sum, each) => sum + each.length, edits.length)
    if (items.length >= itemsAtMost || count > editsAtMost) throw problemOf('not-draftable')
    const item = edits.map(edit =>
      withPlaceholders(edit, each => `${each}-${items.length}-${at.toString(36)}`),
    )
    const next = JSON.stringify([...items, item])
    const isFirst = await writeBookkeeping(parts, asker, {
      topics: ['drafts'],
      conditions: [...spending(parts, { workspace, who: person, what: 'drafts' }), asRead(where, row)],
      rows: [
        row === null
          ? {
              kind: 'put',
              table: 'drafts',
              rows: [
                {
                  ...where,
                  id: parts.newId(),
                  comment: '',
                  items: next,
                  from: null,
                  madeAt: at,
                  changedAt: at,
                },
              ],
            }
          : {
              kind: 'update',
              table: 'drafts',
              where: { workspace, id: row.id },
              fields: { items: next, changedAt: at },
            },
      ],
    })
    if (isFirst) return draftsView(parts, asker)
  }
}

/** Holds while nobody wrote since it was read: acts that are added side by side are added one after another. */
const asRead = (where: Partial<DraftRow>, row: DraftRow | null): CountCondition<'outrun'> =>
  row === null
    ? { table: 'drafts', where, atMost: 0, orElse: 'outrun' }
    : { table: 'drafts', where: { ...where, id: row.id, items: row.items }, atLeast: 1, orElse: 'outrun' }

/** Keeps it under a name, or leaves one of its acts out; with none left it is gone. */
export async function changeDraft(
  parts: Parts,
  asker: Asker,
  { id, name, without }: DraftRequest & { readonly id: string },
): Promise<DraftsView> {
  const row = await draftOf(parts, asker, id)
  const { workspace, person } = asker
  const items = itemsOf(row).filter((_, index) => index !== without)
  const fields = { name: name?.trim() ?? row.name, items: JSON.stringify(items), changedAt: parts.clock() }
  const kept = { table: 'drafts', where: { workspace, person }, atMost: keptAtMost } as const
  await writeBookkeeping(parts, asker, {
    topics: ['drafts'],
    conditions: [
      ...spending(parts, { workspace, who: person, what: 'drafts' }),
      { ...kept, orElse: 'many-drafts' },
    ],
    rows: [
      items.length === 0
        ? { kind: 'drop', table: 'drafts', workspace, ids: [id] }
        : { kind: 'update', table: 'drafts', where: { workspace, id }, fields },
    ],
  })
  return draftsView(parts, asker)
}

export async function dropDraft(parts: Parts, asker: Asker, id: string): Promise<DraftsView> {
  await draftOf(parts, asker, id)
  const { workspace } = asker
  await writeBookkeeping(parts, asker, {
    topics: ['drafts'],
    rows: [{ kind: 'drop', table: 'drafts', workspace, ids: [id] }],
  })
  return draftsView(parts, asker)
}

/** Whoever the asker knows has the rights for all of it; whether guards would refuse it, they see when they preview it. */
export async function recipientsView(
  parts: Parts,
  asker: Asker,
  { id, patience }: { readonly id: string; readonly patience: Patience },
): Promise<RecipientsView> {
  const { snapshot } = asker
  const items = itemsOf(await draftOf(parts, asker, id)).flat()
  return inTurns(parts, { asker, patience }, async turn => {
    // Who may do what at a place that the asker does not know of is not told by who could apply it.
    if (!(await knowsEach(asker, items, turn))) return { mayI: false, recipients: [] }
    const edits = await mintedIn(items, mintingFor(parts, snapshot.state, new Map()), turn)
    const mayApply = async (author: PersonId) =>
      (await turn.run(lackingRights(snapshot, { author, reason: '', edits }))) === undefined
    const recipients: PlaceName[] = []
    for (const each of peopleOf(snapshot)) {
      await turn.breathe()
      const isOther = each.id !== asker.person && isActive(snapshot, each) && knowsPerson(asker, each.id)
      if (isOther && (await mayApply(each.id)))
        recipients.push({ id: each.id, name: nameOf(snapshot, each.id) })
    }
    return {
      mayI: await mayApply(asker.person),
      recipients: recipients.sort((a, b) => compareWords(a.name, b.name)),
    }
  })
}

/** Hands it to somebody who may apply it: it is theirs from then on, and they are told. */
export async function handOverDraft(
  parts: Parts,
  asker: Asker,
  { id, to, comment }: HandOverRequest & { readonly id: string },
): Promise<DraftsView> {
  const { recipients: recipients } = await recipientsView(parts, asker, { id, patience: {} })
  const recipient = rowOf(asker.snapshot.state.persons, to as PersonId)?.id
  if (recipient === undefined || !recipients.some(each => each.id === recipient))
    throw problemOf('not-a-recipient')
  const row = await draftOf(parts, asker, id)
  const { workspace, person, snapshot } = asker
  const at = parts.clock()
  const name = row.name === '' ? `From ${nameOf(snapshot, person)}` : row.name
  const data: Handed = { by: person, comment }
  const notification: NotificationRow = {
    workspace,
    id: parts.newId(),
    person: recipient,
    kind: handed.kind,
    at,
    data: JSON.stringify(data),
    readAt: null,
  }
  const notified = telling(parts, { rows: [notification], written: nothingWritten(person, snapshot) })
  await writeBookkeeping(parts, asker, {
    topics: ['drafts', 'notifications'],
    conditions: spending(parts, { workspace, who: person, what: 'drafts' }),
    rows: [
      {
        kind: 'update',
        table: 'drafts',
        where: { workspace, id },
        fields: { person: recipient, from: person, comment, name, changedAt: at },
      },
      ...notified.rows,
    ],
    news: notified.news,
    others: [recipient],
  })
  return draftsView(parts, asker)
}
