import { columnKinds } from '#core/boards/kinds/all.ts'
import { plainView, type ViewState } from '#core/boards/view.ts'
import type { Edit } from '#core/changes/edit.ts'
import { idOf, placeId, principalOf } from './ids.ts'
import { edit, type Plan } from './plan.ts'
import { boards, type DemoBoard, type DemoColumn, type DemoView, transectColumns } from './scenario/boards.ts'
import { type DemoPlace, sharedHomes } from './scenario/places.ts'

/** The boards with their columns, sections and views, and the rows that are filled by hand. */
export const planBoards = (): Plan[] => [
  ...boards.flatMap((board, index) => [
    { day: 187 - index, author: board.by, edits: settingUp(board) },
    ...(board.rows === undefined ? [] : [{ day: 60 - index, author: board.by, edits: makingRows(board) }]),
  ]),
  ...transectBoards.map((board, index) => ({
    day: 186 - index / 10,
    author: 'ilse',
    edits: settingUp({ board, by: 'ilse', columns: transectColumns }),
  })),
]

/** The path of every board that holds transects at the sites. */
export const transectBoards: readonly string[] = sharedHomes
  .filter(home => home.name === 'Sites')
  .flatMap(home => home.within.flatMap(site => boardsIn(site, `${home.name}/${site.name}`)))
  .filter(path => path.includes('/Transects/'))

function boardsIn(place: DemoPlace, path: string): string[] {
  return place.within.flatMap(each =>
    each.kind === 'board' ? [`${path}/${each.name}`] : boardsIn(each, `${path}/${each.name}`),
  )
}

export const columnId = (board: string, name: string): string => idOf('column', board, name)
export const sectionId = (board: string, index: number): string => idOf('section', board, String(index))
export const rowId = (board: string, name: string): string => placeId(`${board}/${name}`)

const settingUp = (board: DemoBoard): Edit[] => [
  ...board.columns.map((column, order) => creatingColumn(board.board, column, order)),
  ...(board.sections ?? []).map((name, order) =>
    edit('section.create', {
      section: sectionId(board.board, order),
      board: placeId(board.board),
      name,
      order,
    }),
  ),
  ...(board.views ?? []).map((view, order) =>
    edit('view.create', {
      view: idOf('view', board.board, view.name),
      board: placeId(board.board),
      name: view.name,
      order,
      state: stateOf(board.board, view),
    }),
  ),
]

const creatingColumn = (
  board: string,
  { name, kind, settings, viewers, editors }: DemoColumn,
  order: number,
) =>
  edit('column.create', {
    column: columnId(board, name),
    board: placeId(board),
    name,
    as: kind,
    settings: settings ?? columnKinds[kind].settings.plain,
    order,
    viewers: viewers?.map(principalOf) ?? null,
    editors: editors?.map(principalOf) ?? null,
  })

const stateOf = (board: string, { as, by, where = [], sort = [] }: DemoView): ViewState => ({
  ...plainView,
  layout: as ?? 'table',
  by: by === undefined ? null : columnId(board, by),
  group: where.length > 0 || sort.length > 0 ? null : plainView.group,
  where: {
    join: 'all',
    of: where.map(([column, word, ...given]) => ({ column: columnId(board, column), word, given })),
  },
  sort: sort.map(column => ({ column: columnId(board, column), isDown: false })),
})

const makingRows = ({ board, rows = [] }: DemoBoard): Edit[] =>
  rows.map(({ name, section }, index) =>
    edit('node.create', {
      node: rowId(board, name),
      parent: placeId(board),
      as: 'row',
      name,
      order: (index + 1) * 1024,
      section: section === undefined ? null : sectionId(board, section),
    }),
  )
