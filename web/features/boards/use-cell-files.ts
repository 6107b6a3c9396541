import { useRef } from 'react'
import type { ChosenFile } from '../../api/chosen-files.ts'
import { boardsApi } from '../../api/boards.ts'
import { useUpload } from '../../api/use-upload.ts'
import { useAppDispatch } from '../../store/store.ts'
import { useOpenBoard } from './board-context.ts'
import { valueIn } from './writing.ts'

interface Cell {
  readonly row: string
  readonly name: string
  readonly column: string
}

/** Uploads files into a row; each stands in a cell of it as soon as it has come. */
export function useCellFiles({ row, name, column }: Cell): (chosen: readonly ChosenFile[]) => Promise<void> {
  const { slug, writing } = useOpenBoard()
  const dispatch = useAppDispatch()
  const before = useRef<Promise<unknown>>(Promise.resolve())
  const put = async (file: string) => {
    const asking = dispatch(boardsApi.endpoints.row.initiate({ slug, id: row }, { forceRefetch: true }))
    const { data } = await asking
    asking.unsubscribe()
    if (data === undefined) return
    const there = valueIn(data.row, column)
    const files = [...((there ?? []) as readonly string[]).filter(each => each !== file), file]
    await writing.write([{ row, column, value: files, before: there, seen: data.row.version }])
  }
  // One after another: each is put beside those that stand there.
  const onMade = (file: string) => {
    before.current = before.current.then(() => put(file))
  }
  return useUpload({ place: row, name, isVersion: false, onMade })
}
