import type { JudgeRowsRequest } from '#contract/board-requests.ts'
import { fold } from '#core/base/fold-words.ts'
import type { NodeId } from '#core/base/ids.ts'
import type { Usage } from '#core/boards/kind.ts'
import { kindOf } from '#core/boards/kinds/all.ts'
import { keyKinds } from '#core/boards/row-key.ts'
import { nameColumn, sectionColumn } from '#core/boards/view.ts'
import { namesIn } from '#core/boards/words.ts'
import type { BoardColumn } from '#core/rules/column.ts'
import type { Section } from '#core/rules/board.ts'
import type { Parts } from '../../parts.ts'
import { problemOf } from '../../problem-error.ts'
import type { Asker } from '../viewer/asker.ts'
import { placesNamed } from './places-named.ts'
import { type LookedAt, lookAt, sectionsOf } from './looking.ts'
import { seenBoard } from './rows.ts'
import { usageFor } from './usage.ts'

/** A column of a table as what it is on the board. */
export type Field =
  | { readonly of: 'name' }
  | { readonly of: 'section' }
  /** One that is there. */
  | { readonly of: 'column'; readonly column: BoardColumn; readonly usage: Usage }
  /** One that is made before the rows come. */
  | { readonly of: 'new'; readonly form: Pick<BoardColumn, 'kind' | 'settings'>; readonly usage: Usage }

export interface Fields {
  readonly board: NodeId
  readonly looked: LookedAt
  readonly sections: readonly Section[]
  readonly fields: readonly Field[]
}

interface Asked {
  readonly id: string
  readonly request: JudgeRowsRequest
}

/** Reads what the columns of a table are said to be. Throws where one cannot be that. */
export async function fieldsFor(parts: Parts, asker: Asker, { id, request }: Asked): Promise<Fields> {
  const board = seenBoard(asker, id)
  const looked = await lookAt(parts, asker, { id })
  const places = await placesIn(parts, asker, { request, looked })
  const fields = request.columns.map(
    ({ column: of, as: kind, settings, decimal, isDayFirst }, index): Field => {
      if (of === nameColumn) return { of: 'name' }
      if (of === sectionColumn) return { of: 'section' }
      const usage = usageFor(asker, { decimal, isDayFirst, places })
      if (of === null) return { of: 'new', form: { kind, settings }, usage }
      const column = looked.columns.find(each => each.id === of)
      if (column === undefined) throw problemOf('not-found')
      const isKey = index === request.key
      if (!kindOf(column).isWritten && !isKey)
        throw wrongColumn(index, 'The board fills this column by itself.')
      return { of: 'column', column, usage }
    },
  )
  if (request.key !== null && !isKeyField(fields[request.key]))
    throw wrongColumn(request.key, 'Rows are told apart by their name, a text, a number or a link.')
  return { board, looked, fields, sections: sectionsOf(asker.snapshot.state, board) }
}

const isKeyField = (field: Field | undefined): boolean =>
  field?.of === 'name' || (field?.of === 'column' && keyKinds.has(field.column.kind))

const wrongColumn = (index: number, message: string) =>
  problemOf('bad-input', { faults: [{ at: `columns.${index}`, message }] })

interface Naming {
  readonly request: JudgeRowsRequest
  readonly looked: LookedAt
}

/** The places that the cells of a table name. */
async function placesIn(parts: Parts, asker: Asker, { request, looked }: Naming) {
  const isPlace = ({ column, as }: JudgeRowsRequest['columns'][number]) =>
    column === null
      ? as === 'place'
      : looked.columns.some(each => each.id === column && each.kind === 'place')
  const at = request.columns.flatMap((each, index) => (isPlace(each) ? [index] : []))
  const names = new Map(
    request.rows.flatMap(row =>
      at.flatMap(index =>
        [row[index] ?? '', ...namesIn(row[index] ?? '')].map(name => [fold(name.trim()), name] as const),
      ),
    ),
  )
  return placesNamed(parts, asker, [...names.values()])
}
