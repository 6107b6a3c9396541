import type { Mistake } from './mistakes.ts'

const boards = 'server/services/boards/boards.test.ts'
const comments = 'server/services/boards/comments.test.ts'
const imports = 'server/services/boards/import.test.ts'
const hidden = 'server/hidden-boards.test.ts'
const rows = 'core/boards/rows.test.ts'

/** Mistakes in what boards show, take and tell: each names the tests that catch it. */
export const boardMistakes: readonly Mistake[] = [
  {
    mistake: 'when a row was written last tells of columns that one does not see',
    file: 'core/boards/last-written.ts',
    find: 'const seen = [nameColumn, ...columns.map(each => each.id)].flatMap(id => board.columns.get(id) ?? [])',
    put: 'const seen = [...board.columns.values()]; void columns; void nameColumn',
    by: rows,
  },
  {
    mistake: 'a column that one does not see decides which rows one finds',
    file: 'core/boards/rows.ts',
    find: 'const form = asked.columns.find(each => each.id === id)',
    put: 'const form = board.columns.get(id)?.form',
    by: rows,
  },
  {
    mistake: 'rows found before are shown though what they are sorted by was written since',
    file: 'core/boards/found-rows.ts',
    find: 'known.basis.every((each, nth) => each === basis[nth])',
    put: 'known.basis.length === basis.length',
    by: rows,
  },
  {
    mistake: 'of people whom one may not know the board tells who they are',
    file: 'core/boards/rows.ts',
    find: 'eachOnce(list.map(id => (unknown.has(id) ? somebody : id)))',
    put: 'list',
    by: rows,
  },
  {
    mistake: 'an order that was kept is not mended for what was written since',
    file: 'core/boards/text-order.ts',
    find: 'const kept = before.order.filter(slot => !moved.has(slot))',
    put: 'const kept = before.order.filter(slot => !moved.has(slot) || slot > 3)',
    by: 'core/boards/text-order.test.ts',
  },
  {
    mistake: 'rows that one does not see are counted',
    file: 'server/services/boards/looking.ts',
    find: '.filter(id => !maySee(asker, id))\n  const naming',
    put: '.filter(() => false)\n  const naming',
    by: boards,
  },
  {
    mistake: 'a cell is written though its column is not theirs to edit',
    file: 'server/services/boards/cell-judging.ts',
    find: '    if (!rights.edits) return { why: `You cannot change the column ${column.name}.` }\n',
    put: '',
    by: boards,
  },
  {
    mistake: 'who only reads a row writes in it',
    file: 'server/services/boards/cell-judging.ts',
    find: "    if (access === 'read') return { why: 'You cannot change this row.' }\n    if (!rights",
    put: '    if (!rights',
    by: boards,
  },
  {
    mistake: 'what somebody else wrote meanwhile is written over',
    file: 'server/services/boards/cell-judging.ts',
    find: 'there[1] > seen && there[2] !== person',
    put: 'there[1] > seen + 1e15 && there[2] !== person',
    by: boards,
  },
  {
    mistake: 'somebody is named in a row that they cannot open',
    file: 'server/services/boards/cell-judging.ts',
    find: "each => knowsPerson(asker, each as PersonId) && has(check(snapshot, each as PersonId, place), 'see')",
    put: 'each => knowsPerson(asker, each as PersonId)',
    by: boards,
  },
  {
    mistake: 'restricted columns are told to who is not named in them',
    file: 'core/access/columns.ts',
    find: "    .filter(column => columnAccess(snapshot, subject, { place, column }) !== 'none')\n",
    put: '    .filter(() => subject !== undefined && place !== undefined)\n',
    by: hidden,
  },
  {
    mistake: 'a board goes out as a file for who may not take copies',
    file: 'server/services/boards/export.ts',
    find: "  if (!has(check(asker.snapshot, asker.person, board), 'copy')) throw problemOf('not-found')\n",
    put: '',
    by: boards,
  },
  {
    mistake: 'that a restricted cell was written is told to all who see the row',
    file: 'server/services/boards/cells.ts',
    find: 'columns: isOpen ? null : (columns as ColumnId[])',
    put: 'columns: null as ColumnId[] | null',
    by: boards,
  },
  {
    mistake: 'rows are put in an order by who may not arrange the board',
    file: 'server/services/boards/row-order.ts',
    find: "  if (!mayArrange(asker, board)) throw problemOf('not-found')\n",
    put: '',
    by: boards,
  },
  {
    mistake: 'a comment is taken from who may not comment',
    file: 'server/services/boards/comments.ts',
    find: "  if (!has(at.actions, 'comment')) throw problemOf('no-comments')\n",
    put: '',
    by: comments,
  },
  {
    mistake: 'a comment that was answered is changed',
    file: 'server/services/boards/comments.ts',
    find: 'mayEdit: isThere && isMine && !isAnswered(row, rows)',
    put: 'mayEdit: isThere && isMine',
    by: comments,
  },
  {
    mistake: 'an import takes two rows of the board for one',
    file: 'server/services/boards/import-judging.ts',
    find: "    if (second !== undefined) return { why: 'More than one row of the board is this one.' }\n",
    put: '    void second\n',
    by: imports,
  },
  {
    mistake: 'of a file two rows are the same row of the board',
    file: 'server/services/boards/import-judging.ts',
    find: "    if (seen.has(key)) return { why: 'An earlier row is the same one.' }\n",
    put: '',
    by: imports,
  },
  {
    mistake: 'a row alone tells of its board, which is not seen',
    file: 'server/services/boards/rows.ts',
    find: "name: seesBoard ? looked.place.node.name : ''",
    put: 'name: looked.place.node.name',
    by: boards,
  },
  {
    mistake: 'a view of somebody else’s own is saved over',
    file: 'server/services/boards/own.ts',
    find: '{ table, where: { ...own, id: request.view }, atLeast: 1,',
    put: '{ table, where: { workspace, id: request.view }, atLeast: 1,',
    by: 'server/services/boards/own.test.ts',
  },
  {
    mistake: 'a view of one’s own names a column that one does not see any more',
    file: 'server/services/boards/own.ts',
    find: 'state: viewSeen(JSON.parse(state) as ViewState, columns),',
    put: 'state: JSON.parse(state) as ViewState,',
    by: 'server/services/boards/own.test.ts',
  },
  {
    mistake: 'who stopped writing in a cell an hour ago still writes there',
    file: 'server/services/boards/own.ts',
    find: '      until > parts.clock() &&\n',
    put: '',
    by: 'server/services/boards/own.test.ts',
  },
  {
    mistake: 'that a place is limited is told to whoever sees it',
    file: 'server/services/content/content.ts',
    find: "has(child.actions as ActionSet, 'share') && ",
    put: '',
    by: 'server/services/changes/change.test.ts',
  },
]
