import type { DraftItemView, DraftsView, DraftView, TakersView } from '#contract/access-views.ts'
import { type EditRequest, isGatherable } from '#contract/edit-requests.ts'
import type { DraftRequest, GatherRequest, HandRequest } from '#contract/requests.ts'
import { isActive, peopleOf } from '#core/access/subject.ts'
import { rowOf } from '#core/base/collection.ts'
import type { PersonId } from '#core/base/ids.ts'
import { compareWords } from '#core/base/compare-words.ts'
import type { Edit } from '#core/changes/edit.ts'
import { factsOf } from '#core/changes/fact.ts'
import { applyEdits, lacksRights } from '#core/changes/judge.ts'
import { momentOf } from '#core/state/moment.ts'
import type { Parts } from '../parts.ts'
import type { Batch } from '../store/batch.ts'
import { problemOf } from '../problem-error.ts'
import type { DraftRow, NoticeRow } from '../store/tables.ts'
import { type Asker, knowsPerson, nameOf, readerAt } from './asker.ts'
import { keepBook } from './bookkeeping.ts'
import { draftOf, mintingFor } from './change-set.ts'
import { editFrom, withPlaceholders } from './edits.ts'
import { factView, knowsOf } from './fact.ts'
import { knowsAll } from './known-ids.ts'
import { nothingWritten } from './notices/kind.ts'
import { handed, type Handed } from './notices/kinds/handed.ts'
import { writeNotices } from './notices/write.ts'

/**
 * Change sets that are not applied yet: one that is gathered act by act over several screens, those kept under a
 * name, and those that somebody handed over. They are their holder's alone, no part of the state, and judged only
 * when they are foreseen or applied.
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
  const views = rows.map(row => draftView(parts, asker, row))
  return {
    gathered: views.find(each => each.name === '') ?? null,
    kept: views.filter(each => each.name !== ''),
  }
}

function draftView(parts: Parts, asker: Asker, row: DraftRow): DraftView {
  const items = itemsOf(row)
  const { id, name, word, from, changedAt } = row
  return {
    id,
    name,
    word,
    from: from === null ? null : { id: from, name: nameOf(asker.moment, from) },
    changedAt,
    items: itemViews(parts, asker, items),
    edits: items.flat(),
  }
}

const unknownLine = 'something that you cannot see, or that is not there'

/**
 * Each act as the history would tell of it, made after those before it. One that names anything that its reader does
 * not know of is told like one that names what is not there.
 */
function itemViews(parts: Parts, asker: Asker, items: readonly Item[]): DraftItemView[] {
  let { moment } = asker
  const made = new Map<string, string>()
  return items.map(item => {
    if (!item.every(edit => knowsAll(asker, edit))) return { lines: [unknownLine], problem: null }
    const minting = mintingFor(parts, moment.state, made)
    const applied = applyEdits(
      moment,
      item.map(edit => editFrom(edit, minting)),
    )
    if (applied === undefined) return { lines: [], problem: problemOf('does-not-fit').problem }
    moment = momentOf(applied.state, moment.at)
    const reader = readerAt(asker.workspace, moment, asker.person) ?? asker
    const lines = factsOf(applied.changes)
      .filter(fact => knowsOf(asker, fact, true) || knowsOf(reader, fact))
      .map(fact => factView(reader, fact).text)
    return { lines: lines.length === 0 ? [unknownLine] : lines, problem: null }
  })
}

const itemsAtMost = 200

/** Adds an act to what is being gathered; `new:x` in it means what it makes itself, and nothing of other acts. */
export async function gather(parts: Parts, asker: Asker, { edits }: GatherRequest): Promise<DraftsView> {
  if (!edits.every(each => isGatherable(each.kind))) throw problemOf('not-gathered')
  const { workspace, person } = asker
  const { drafts } = parts.writer.tables
  const at = parts.clock()
  const write = async ({ transaction }: Batch) => {
    const where = { workspace, person, name: '' }
    const row = (await drafts.findOne({ where, raw: true, transaction })) as unknown as DraftRow | null
    const items = row === null ? [] : itemsOf(row)
    if (items.length >= itemsAtMost) throw problemOf('not-gathered')
    const item = edits.map(edit =>
      withPlaceholders(edit, each => `${each}-${items.length}-${at.toString(36)}`),
    )
    const next = JSON.stringify([...items, item])
    if (row === null)
      await drafts.create(
        { ...where, id: parts.newId(), word: '', items: next, from: null, madeAt: at, changedAt: at },
        { transaction },
      )
    else
      await drafts.update({ items: next, changedAt: at }, { where: { workspace, id: row.id }, transaction })
  }
  await keepBook(parts, asker, { write })
  return draftsView(parts, asker)
}

/** Keeps it under a name, or leaves one of its acts out; with none left it is gone. */
export async function changeDraft(
  parts: Parts,
  asker: Asker,
  { id, name, without }: DraftRequest & { readonly id: string },
): Promise<DraftsView> {
  const row = await draftOf(parts, asker, id)
  const { workspace } = asker
  const { drafts } = parts.writer.tables
  const items = itemsOf(row).filter((_, index) => index !== without)
  const write = async ({ transaction }: Batch) => {
    const where = { workspace, id }
    if (items.length === 0) await drafts.destroy({ where, transaction })
    else
      await drafts.update(
        { name: name?.trim() ?? row.name, items: JSON.stringify(items), changedAt: parts.clock() },
        { where, transaction },
      )
  }
  await keepBook(parts, asker, { write })
  return draftsView(parts, asker)
}

export async function dropDraft(parts: Parts, asker: Asker, id: string): Promise<DraftsView> {
  await draftOf(parts, asker, id)
  const { workspace } = asker
  const write = async ({ transaction }: Batch) => {
    await parts.writer.tables.drafts.destroy({ where: { workspace, id }, transaction })
  }
  await keepBook(parts, asker, { write })
  return draftsView(parts, asker)
}

/** Whoever the asker knows has the rights for all of it; whether guards would refuse it, they see when they foresee it. */
export async function takersView(parts: Parts, asker: Asker, id: string): Promise<TakersView> {
  const { moment } = asker
  const row = await draftOf(parts, asker, id)
  // Who may do what at a place that the asker does not know of is not told by who could apply it.
  if (
    !itemsOf(row)
      .flat()
      .every(edit => knowsAll(asker, edit))
  )
    return { mayI: false, takers: [] }
  const edits = editsOf(parts, asker, row)
  const mayApply = (author: PersonId) => lacksRights(moment, { author, reason: '', edits }) === undefined
  return {
    mayI: mayApply(asker.person),
    takers: [...peopleOf(moment)]
      .filter(each => each.id !== asker.person && isActive(moment, each) && knowsPerson(asker, each.id))
      .filter(each => mayApply(each.id))
      .map(({ id }) => ({ id, name: nameOf(moment, id) }))
      .sort((a, b) => compareWords(a.name, b.name)),
  }
}

function editsOf(parts: Parts, asker: Asker, row: DraftRow): Edit[] {
  const minting = mintingFor(parts, asker.moment.state, new Map())
  return itemsOf(row)
    .flat()
    .map(edit => editFrom(edit, minting))
}

/** Hands it to somebody who may apply it: it is theirs from then on, and they are told. */
export async function handDraft(
  parts: Parts,
  asker: Asker,
  { id, to, word }: HandRequest & { readonly id: string },
): Promise<DraftsView> {
  const { takers } = await takersView(parts, asker, id)
  const taker = rowOf(asker.moment.state.persons, to as PersonId)?.id
  if (taker === undefined || !takers.some(each => each.id === taker)) throw problemOf('not-a-taker')
  const row = await draftOf(parts, asker, id)
  const { workspace, person, moment } = asker
  const at = parts.clock()
  const name = row.name === '' ? `From ${nameOf(moment, person)}` : row.name
  const data: Handed = { by: person, word }
  const notice: NoticeRow = {
    workspace,
    id: parts.newId(),
    person: taker,
    kind: handed.kind,
    at,
    data: JSON.stringify(data),
    readAt: null,
  }
  const write = async (batch: Batch) => {
    await parts.writer.tables.drafts.update(
      { person: taker, from: person, word, name, changedAt: at },
      { where: { workspace, id }, transaction: batch.transaction },
    )
    writeNotices(parts, { rows: [notice], written: nothingWritten(person, moment), batch })
  }
  await keepBook(parts, asker, { write, others: [taker] })
  return draftsView(parts, asker)
}
