import fc from 'fast-check'
import { expect, test } from 'vitest'
import { allRows, rowOf, rowsBy } from '../base/collection.ts'
import type { ColumnId, NodeId, PersonId, SectionId } from '../base/ids.ts'
import type { ColumnForm } from '../boards/kind.ts'
import { kindNames } from '../boards/kind.ts'
import { plainView } from '../boards/view.ts'
import { kindOf } from '../boards/kinds/all.ts'
import { anySettings } from '../boards/tests/cells.ts'
import { has } from '../levels/action.ts'
import { check } from '../access/evaluate.ts'
import { columnRights } from '../access/columns.ts'
import { subjectOf } from '../access/subject.ts'
import { snapshotOf } from '../state/snapshot.ts'
import type { State } from '../state/state.ts'
import { done, edit, editor, judging, reader, refusal, steward } from '../tests/judging.ts'
import { grant, node, now, person, world } from '../tests/world.ts'
import type { Edit } from './edit.ts'
import { undoingOf } from './undo.ts'

/** What holds of boards whatever is done to them: of their numbers, their columns, and who may arrange them. */

const people = ['ada', 'ben', 'cleo', 'dan'] as const
const start = world(
  ...people.map(id => person(id)),
  node('home', 'root'),
  node('b1', 'home', { kind: 'board' }),
  node('b2', 'home', { kind: 'board' }),
  grant('home', 'person:ada', steward),
  grant('b1', 'person:ben', editor),
  grant('b1', 'person:cleo', reader),
)

const nth = fc.nat(40)
const pick = <T>(all: readonly T[], at: number): T | undefined => all[at % Math.max(1, all.length)]
const rowsIn = (state: State) => allRows(state.nodes).filter(each => each.kind === 'row')
const board = fc.constantFrom('b1', 'b2')

/** A step: edits drafted at a state, or something that was done taken back. */
type Step = (state: State, count: number) => Edit[] | 'undo'

const anyStep: fc.Arbitrary<Step> = fc.oneof(
  {
    weight: 4,
    arbitrary: board.map(parent => (_: State, count: number) => [
      edit('node.create', { node: `r${count}`, parent, as: 'row', name: 'Row', order: count, section: null }),
    ]),
  },
  fc.record({ nth, board }).map(({ nth, board: parent }) => (state: State) => {
    const row = pick(rowsIn(state), nth)
    return row === undefined || row.parent === parent ? [] : [edit('node.move', { node: row.id, parent })]
  }),
  fc.record({ nth, board }).map(({ nth, board: parent }) => (state: State, count: number) => {
    const row = pick(rowsIn(state), nth)
    return row === undefined
      ? []
      : [edit('node.duplicate', { node: row.id, parent, name: 'Copy', copies: `d${count}` })]
  }),
  fc.record({ nth, binned: fc.boolean() }).map(({ nth, binned }) => (state: State) => {
    const row = pick(rowsIn(state), nth)
    return row === undefined ? [] : [edit('node.state', { node: row.id, binned })]
  }),
  nth.map(nth => (state: State) => {
    const row = pick(rowsIn(state), nth)
    return row === undefined
      ? []
      : [edit('node.state', { node: row.id, binned: true }), edit('node.delete', { node: row.id })]
  }),
  { weight: 2, arbitrary: fc.constant(() => 'undo' as const) },
)

test('a number that a board gave to a row is never given to another, whatever is moved, deleted and undone', () => {
  let given = 0
  fc.assert(
    fc.property(
      fc.array(anyStep, { minLength: 5, maxLength: 40 }),
      fc.infiniteStream(nth),
      (steps, picks) => {
        let state = start
        const made: Edit[] = []
        const ownerOf = new Map<string, NodeId>()
        for (const [count, step] of steps.entries()) {
          const drafted = step(state, count)
          const edits =
            drafted === 'undo'
              ? [pick(made, picks.next().value as number)].filter(each => each !== undefined)
              : drafted
          if (edits.length === 0) continue
          const result = judging(state, 'ada', ...edits)
          if (!result.ok) continue
          made.push({ kind: 'undo', revision: 1, changes: result.value.changes, written: [] })
          const before = state
          state = result.value.state
          for (const row of rowsIn(state)) {
            const key = `${row.parent} ${row.serial}`
            const owner = ownerOf.get(key)
            // It may come back to the board with the number that it had there.
            expect([key, owner ?? row.id]).toEqual([key, row.id])
            ownerOf.set(key, row.id)
            if (rowOf(before.nodes, row.id) === undefined) given += 1
          }
          for (const id of ['b1', 'b2'] as NodeId[]) {
            const most = Math.max(0, ...rowsBy(state.nodes, 'parent', id).map(each => each.serial ?? 0))
            expect(rowOf(state.nodes, id)?.serial).toBeGreaterThanOrEqual(most)
          }
        }
      },
    ),
    { numRuns: 400 },
  )
  expect(given).toBeGreaterThan(1000)
})

const anyForm = fc
  .constantFrom(...kindNames)
  .chain(kind => anySettings(kind).map(settings => ({ kind, settings: settings as object })))

test('a column that becomes another kind, and back, keeps what each of its forms was, for as long as it is there', () => {
  fc.assert(
    fc.property(
      anyForm,
      fc.array(fc.option(anyForm, { nil: 'undo' as const }), { maxLength: 12 }),
      (first, forms) => {
        const create = edit('column.create', {
          column: 'c',
          board: 'b1',
          name: 'C',
          order: 1,
          as: first.kind,
          settings: first.settings,
          viewers: null,
          editors: null,
        })
        let { state } = done(start, 'ada', create)
        const seen: Pick<ColumnForm, 'kind' | 'settings'>[][] = []
        const backs: Edit[] = []
        const column = () => rowOf(state.columns, 'c' as ColumnId)
        for (const form of forms) {
          const before = column()
          const next =
            form === 'undo'
              ? backs.pop()
              : edit('column.change', { column: 'c', as: form.kind, settings: form.settings })
          if (next === undefined) continue
          const result = judging(state, 'ada', next)
          if (!result.ok) continue
          if (form !== 'undo')
            backs.push({ kind: 'undo', revision: 1, changes: result.value.changes, written: [] })
          ;({ state } = result.value)
          seen.push([...(before?.former ?? [])])
          const after = column()
          // What is written names a form by its number: none ever changes its own.
          for (const former of seen) expect(after?.former.slice(0, former.length)).toEqual(former)
          expect(kindOf(after ?? first).settings.wrong((after ?? first).settings)).toBeUndefined()
        }
      },
    ),
    { numRuns: 400 },
  )
})

const createColumn = (column: string, viewers: readonly string[] | null) => (board: string) =>
  edit('column.create', {
    column,
    board,
    name: column,
    order: 1,
    as: 'text',
    settings: {},
    viewers,
    editors: null,
  })

/** Every edit by which a board is arranged, with the least that it needs. */
const arranging: readonly (readonly [(id: string) => Edit, 'arrange' | 'share'])[] = [
  [board => edit('section.create', { section: 's', board, name: 'S', order: 1 }), 'arrange'],
  [board => edit('view.create', { view: 'v', board, name: 'V', order: 1, state: plainView }), 'arrange'],
  [createColumn('c', null), 'arrange'],
  [createColumn('c', ['person:ada']), 'share'],
]

const arranged = done(
  start,
  'ada',
  ...arranging.slice(0, 2).map(([draft]) => draft('b1')),
  createColumn('open', null)('b1'),
  createColumn('closed', ['person:ada'])('b1'),
).state

const ofParts = (
  section: string,
  view: string,
  open: string,
  closed: string,
): readonly (readonly [Edit, 'arrange' | 'share'])[] => [
  [edit('section.change', { section, name: 'T' }), 'arrange'],
  [edit('section.delete', { section }), 'arrange'],
  [edit('view.change', { view, name: 'W' }), 'arrange'],
  [edit('view.delete', { view }), 'arrange'],
  [edit('column.change', { column: open, name: 'D' }), 'arrange'],
  [edit('column.change', { column: open, viewers: ['person:ada'] }), 'share'],
  [edit('column.delete', { column: open }), 'arrange'],
  [edit('column.change', { column: closed, name: 'D' }), 'arrange'],
  [edit('column.delete', { column: closed }), 'share'],
]

test('only who may arrange a board, or share it where somebody is named, changes what it is made of', () => {
  const snapshot = snapshotOf(arranged, now)
  for (const who of ['owner', ...people]) {
    const held = check(snapshot, who as PersonId, 'b1' as NodeId)
    const subject = subjectOf(snapshot, who as PersonId)
    const rights = subject === undefined ? new Map() : columnRights(snapshot, subject, 'b1' as NodeId)
    for (const [draft, needs] of arranging.map(([of, needs]) => [of('b1'), needs] as const).slice(2))
      expect([who, draft.kind, refusal(arranged, who, draft) === 'allowed']).toEqual([
        who,
        draft.kind,
        has(held, needs),
      ])
    for (const [index, [draft, needs]] of ofParts('s', 'v', 'open', 'closed').entries()) {
      const column = draft.kind.startsWith('column')
        ? (draft as unknown as { column: ColumnId }).column
        : undefined
      const sees = column === undefined || rights.has(column)
      const answer = refusal(arranged, who, draft)
      expect([who, index, answer === 'allowed']).toEqual([who, index, has(held, needs) && sees])
      // Of what one does not see it is told as of what is not there.
      if (!has(held, 'see') || !sees) {
        const absent = ofParts('no', 'no', 'no', 'no')[index]?.[0] as Edit
        expect(answer).toEqual(refusal(arranged, who, absent))
      }
    }
  }
})

test('a row goes into a section of its own board, and into no other', () => {
  const withRow = done(
    arranged,
    'ada',
    edit('node.create', { node: 'r', parent: 'b1', as: 'row', name: 'R', order: 1, section: 's' }),
    edit('section.create', { section: 'other', board: 'b2', name: 'O', order: 1 }),
  ).state
  const into = (section: string | null) => edit('node.order', { node: 'r', order: 2, section })
  expect(refusal(withRow, 'ada', into('s'))).toBe('allowed')
  expect(refusal(withRow, 'ada', into(null))).toBe('allowed')
  expect(refusal(withRow, 'ada', into('other'))).toEqual(refusal(withRow, 'ada', into('no')))
  expect(refusal(withRow, 'cleo', into(null))).not.toBe('allowed')
  // A section that is gone is in no row's way, and comes back with its rows.
  const { state, back } = done(withRow, 'ada', edit('section.delete', { section: 's' }))
  expect(rowOf(state.nodes, 'r' as NodeId)?.section).toBe('s')
  const { changes } = undoingOf(state, now, back)
  expect(changes.map(each => each.id)).toEqual(['s' as SectionId])
})
