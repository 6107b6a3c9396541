import { createContext, useEffect } from 'react'
import type { EditedCellView } from '#contract/views/boards.ts'
import { useEditCellMutation } from '../../api/boards.ts'
import type { OfCells } from './writing.ts'

/** In which cells others write right now. */
export const EditedCells = createContext<OfCells<EditedCellView>>(new Map())

export interface EditedBy {
  readonly name: string
  readonly initials: string
}

export function editedBy({ person }: EditedCellView): EditedBy {
  const name = person ?? 'Somebody'
  const initials = name
    .split(/\s+/)
    .map(word => word[0] ?? '')
    .slice(0, 2)
    .join('')
  return { name, initials: initials.toUpperCase() }
}

/** Says so again while one goes on: after a minute nobody is taken to write any more. */
const againEvery = 40_000

/** Tells others in which cell one writes. */
export function useTellEditing(
  at: { readonly slug: string; readonly id: string },
  cell: { readonly row: string; readonly column: string } | undefined,
): void {
  const [send] = useEditCellMutation()
  const { slug, id } = at
  const [row, column] = [cell?.row, cell?.column]
  useEffect(() => {
    if (row === undefined || column === undefined) return
    const tell = () => void send({ slug, id, cell: { row, column } })
    tell()
    const timer = setInterval(tell, againEvery)
    return () => {
      clearInterval(timer)
      void send({ slug, id, cell: null })
    }
  }, [send, slug, id, row, column])
}
