import fc from 'fast-check'
import { expect, test } from 'vitest'
import { allRows } from '../base/collection.ts'
import { plainView } from '../boards/view.ts'
import type { NodeId, PersonId } from '../base/ids.ts'
import { snapshotOf } from '../state/snapshot.ts'
import { applyChanges, type State } from '../state/state.ts'
import { judged, judgedColumn } from '../tests/judge.ts'
import { edit, reader, refusal } from '../tests/judging.ts'
import { now, person, team } from '../tests/world.ts'
import { anyWorld, nodeIds, personIds } from '../tests/worlds.ts'
import type { Edit } from './edit.ts'

/** Whoever cannot see something cannot find out by an edit that it is there: it is refused as what is not. */

const span = { from: null, until: null }
const to = 'person:p1'

/** Every edit that names a place, by what it names; the others are of people, teams and roles. */
const naming: readonly ((node: string, other: string) => Edit)[] = [
  node => edit('node.describe', { node, name: 'Known' }),
  node => edit('node.order', { node, order: 3 }),
  node => edit('node.create', { node: 'made', parent: node, as: 'folder', name: 'In it' }),
  (node, other) => edit('node.move', { node, parent: other }),
  (node, other) => edit('node.move', { node: other, parent: node }),
  (node, other) => edit('node.duplicate', { node, parent: other, name: 'Copy', copies: 'c' }),
  (node, other) => edit('node.duplicate', { node: other, parent: node, name: 'Copy', copies: 'c' }),
  node => edit('node.break', { node, mode: 'keep', copies: 'c' }),
  node => edit('node.restore', { node, drop: 'none' }),
  node => edit('node.state', { node, archived: true }),
  node => edit('node.state', { node, binned: true }),
  node => edit('node.state', { node, draft: true }),
  node => edit('node.web', { node, web: 'published' }),
  node => edit('grant.add', { grant: 'g', node, principal: to, gives: reader, ...span }),
  node =>
    edit('limit.add', { limit: 'l', node, principal: to, allows: reader, sparesStewards: true, ...span }),
  node => edit('watch.begin', { watch: 'w', node }),
  node =>
    edit('column.create', {
      as: 'text',
      settings: {},
      column: 'c',
      board: node,
      name: 'C',
      order: 1,
      viewers: null,
      editors: null,
    }),
  node => edit('section.create', { section: 's', board: node, name: 'S', order: 1 }),
  node => edit('view.create', { view: 'v', board: node, name: 'V', order: 1, state: plainView }),
]

const withoutIds = (refused: unknown, ids: readonly string[]) =>
  ids.reduce((text, id) => text.replaceAll(JSON.stringify(id), '"it"'), JSON.stringify(refused))

const sees = (state: State, who: string, node: string) =>
  judged(snapshotOf(state, now), who as PersonId, node as NodeId).length > 0

test('an edit of a place that the author cannot see is refused as one of a place that is not there', () => {
  const tried = naming.map(() => 0)
  fc.assert(
    fc.property(
      anyWorld,
      fc.constantFrom(...personIds.slice(1)),
      fc.constantFrom(...nodeIds.slice(1)),
      fc.constantFrom(...nodeIds.slice(1)),
      (state, author, node, other) => {
        fc.pre(node !== other && !sees(state, author, node))
        for (const [index, draft] of naming.entries()) {
          const refused = refusal(state, author, draft(node, other))
          const absent = refusal(state, author, draft('nowhere', other))
          expect([draft(node, other), withoutIds(refused, [node])]).toEqual([
            draft(node, other),
            withoutIds(absent, ['nowhere']),
          ])
          tried[index] = (tried[index] ?? 0) + 1
        }
      },
    ),
    { numRuns: 600 },
  )
  expect(Math.min(...tried)).toBeGreaterThan(200)
})

/** Edits of what lies at a place: an entry, a column. */
const entries = (id: string): readonly Edit[] => [
  edit('grant.change', { grant: id, gives: reader, until: null }),
  edit('grant.end', { grant: id }),
  edit('limit.change', { limit: id, allows: reader, until: null }),
  edit('limit.end', { limit: id }),
]

test('so is one of an entry at such a place', () => {
  let tried = 0
  fc.assert(
    fc.property(anyWorld, fc.constantFrom(...personIds.slice(1)), (state, author) => {
      for (const { id, node, principal } of [...allRows(state.grants), ...allRows(state.limits)]) {
        // What one is given oneself is known, and may be given up.
        const isOwn = principal === `person:${author}`
        if (node === 'root' || isOwn || sees(state, author, node)) continue
        for (const [index, own] of entries(id).entries()) {
          tried += 1
          const absent = refusal(state, author, entries('none')[index] as Edit)
          expect(withoutIds(refusal(state, author, own), [id, node])).toEqual(withoutIds(absent, ['none']))
        }
      }
    }),
    { numRuns: 300 },
  )
  expect(tried).toBeGreaterThan(500)
})

/** A board with a column that only one person sees. */
const anyBoard = anyWorld.map(state => {
  const board = allRows(state.nodes).find(each => each.id === 'n0')
  const column = { id: 'fees', board: 'n0', name: 'Fees', order: 1, viewers: ['person:p3'], editors: null }
  const parts = [
    { table: 'nodes', before: board, after: { ...board, kind: 'board' } },
    { table: 'columns', before: null, after: column },
    { table: 'persons', before: null, after: person('outsider').row },
    { table: 'teams', before: null, after: team('hidden', { joining: 'unlisted' }).row },
  ]
  return applyChanges(state, parts.map(each => ({ ...each, id: each.after.id })) as never)
})

test('so is one of a column or a team that the author is not told of', () => {
  let hidden = 0
  fc.assert(
    fc.property(anyBoard, fc.constantFrom(...personIds.slice(1), 'outsider'), (state, author) => {
      const column = allRows(state.columns).find(each => each.board === 'n0')
      if (column === undefined) throw new Error('the column is gone')
      const at = { row: 'n0' as NodeId, column }
      const isKept = judgedColumn(snapshotOf(state, now), author as PersonId, at) === 'none'
      const columns = (id: string) => [
        edit('column.change', { column: id, name: 'Known' }),
        edit('column.delete', { column: id }),
      ]
      const teams = (id: string) => [
        edit('team.change', { team: id, name: 'Known' }),
        edit('member.add', { team: id, person: author, lead: false, membership: 'm', ...span }),
        edit('request.make', { wants: { of: 'team', team: id }, request: 'r', reason: '' }),
        edit('grant.add', { grant: 'g', node: 'n0', principal: `team:${id}`, gives: reader, ...span }),
      ]
      const pairs = [
        ...(isKept ? [[columns('fees'), columns('none')]] : []),
        [teams('hidden'), teams('none')],
      ]
      for (const [own = [], absent = []] of pairs)
        for (const [index, each] of own.entries()) {
          hidden += 1
          const refused = withoutIds(refusal(state, author, each), ['fees', 'hidden', 'team:hidden'])
          const other = refusal(state, author, absent[index] as Edit)
          expect([each, refused]).toEqual([each, withoutIds(other, ['none', 'team:none'])])
        }
    }),
    { numRuns: 300 },
  )
  expect(hidden).toBeGreaterThan(1000)
})
