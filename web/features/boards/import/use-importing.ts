import { useRef, useState } from 'react'
import type { EditRequest } from '#contract/edit-requests.ts'
import type { JudgedRowView } from '#contract/views/boards.ts'
import type { Problem } from '#contract/views/problem.ts'
import { counted } from '#core/words/english.ts'
import { api } from '../../../api/api.ts'
import { useImportRowsMutation } from '../../../api/boards.ts'
import { say } from '../../../store/message.ts'
import { useAppDispatch } from '../../../store/store.ts'
import type { Table } from '../../../workers/table.ts'
import type { Outcome } from '../../../ui/tables/Verdict.tsx'
import { useOpenBoard } from '../board-context.ts'
import { type Mapped, requestFor, sentOf } from './columns.ts'
import { partsOf } from './parts.ts'
import type { Judging } from './use-judging.ts'

export interface Importing {
  readonly progress: { readonly done: number; readonly of: number } | undefined
  readonly outcomes: ReadonlyMap<number, Outcome> | undefined
  readonly problem: Problem | undefined
  readonly start: (given: Given) => Promise<void>
  readonly stop: () => void
  readonly forget: () => void
}

interface Given {
  readonly file: string
  readonly table: Table
  readonly mapped: Mapped
  readonly judging: Judging
  /** With its new columns made, a table is mapped to these. */
  readonly onMapped: (mapped: Mapped) => void
}

/** Brings rows in, part after part: stopping waits for one, and what is in stays. */
export function useImporting(): Importing {
  const { slug, node, info } = useOpenBoard()
  const dispatch = useAppDispatch()
  const [importRows] = useImportRowsMutation()
  const making = useNewColumns()
  const [progress, setProgress] = useState<Importing['progress']>()
  const [outcomes, setOutcomes] = useState<ReadonlyMap<number, Outcome>>()
  const [problem, setProblem] = useState<Problem>()
  const stopping = useRef(new AbortController())

  const bringIn = async ({ table, file, judging }: Given, mapped: Mapped, todo: readonly number[]) => {
    const found = outcomesBefore(judging)
    const sent = sentOf(mapped, info)
    const cellsOf = (place: number) => sent.map(column => table.rows[place]?.[column] ?? '')
    let done = 0
    for (const part of partsOf(todo, cellsOf)) {
      if (stopping.current.signal.aborted) break
      const { data, error } = await importRows({
        slug,
        id: node.id,
        ...requestFor(mapped, info),
        rows: part.map(cellsOf),
        seen: judging.at,
        reason: reasonFor(file, part),
      })
      for (const [nth, place] of part.entries())
        found.set(place, outcomeOf(data?.rows[nth], error as Problem))
      if (data === undefined) {
        setProblem(error as Problem)
        break
      }
      done += part.length
      setProgress({ done, of: todo.length })
    }
    return found
  }

  const start: Importing['start'] = async given => {
    stopping.current = new AbortController()
    setProblem(undefined)
    const todo = [...given.judging.rows].flatMap(([place, { verdict }]) => (isTodo(verdict) ? [place] : []))
    setProgress({ done: 0, of: todo.length })
    const { mapped, problem: refused } = await making(given)
    setProblem(refused)
    if (mapped !== undefined) {
      given.onMapped(mapped)
      const found = await bringIn(given, mapped, todo)
      setOutcomes(found)
      const count = [...found.values()].filter(outcome => outcome === 'done').length
      dispatch(say({ text: `${counted(count, 'row is', 'rows are')} imported.` }))
    }
    setProgress(undefined)
  }
  return {
    progress,
    outcomes,
    problem,
    start,
    stop: () => stopping.current.abort(),
    forget: () => setOutcomes(undefined),
  }
}

type Making =
  | { readonly mapped: Mapped; readonly problem?: undefined }
  | { readonly mapped?: undefined; readonly problem: Problem }

/** Makes the new columns of a table, in one change, so that its rows have where to go. */
function useNewColumns(): (given: Pick<Given, 'table' | 'mapped' | 'file'>) => Promise<Making> {
  const { slug, node, info } = useOpenBoard()
  const dispatch = useAppDispatch()
  return async ({ table, mapped, file }) => {
    const last = info.columns.at(-1)?.order ?? 0
    const edits = mapped.columns.flatMap((each, index): EditRequest[] =>
      each.to === 'new'
        ? [
            {
              kind: 'column.create',
              column: `new:c${index}`,
              board: node.id,
              name: (table.heads[index] ?? '').trim().slice(0, 200) || `Column ${index + 1}`,
              as: each.as,
              settings: each.settings as object,
              order: last + index + 1,
              viewers: null,
              editors: null,
            },
          ]
        : [],
    )
    if (edits.length === 0) return { mapped }
    const reason = `Imported from ${file}`.slice(0, 500)
    const { data, error } = await dispatch(api.endpoints.change.initiate({ slug, edits, reason }))
    if (data === undefined) return { problem: error as Problem }
    const columns = mapped.columns.map((each, index) =>
      each.to === 'new' ? { ...each, to: 'column' as const, column: data.made[`new:c${index}`] ?? '' } : each,
    )
    return { mapped: { ...mapped, columns } }
  }
}

const outcomesBefore = ({ rows }: Judging) =>
  new Map<number, Outcome>(
    [...rows].map(([place, { verdict }]) => [place, isTodo(verdict) ? 'stopped' : verdict]),
  )

const isTodo = (verdict: JudgedRowView['verdict']): verdict is 'new' | 'changes' =>
  verdict === 'new' || verdict === 'changes'

const reasonFor = (file: string, part: readonly number[]): string =>
  `Imported from ${file.slice(0, 200)}, rows ${(part[0] ?? 0) + 2} to ${(part.at(-1) ?? 0) + 2}`

function outcomeOf(row: JudgedRowView | undefined, problem: Problem | undefined): Outcome {
  if (row === undefined) return { refused: problem?.title ?? 'It was not brought in.' }
  return row.verdict === 'wrong'
    ? { refused: row.says.join(' ') }
    : row.verdict === 'as it is'
      ? 'as it is'
      : 'done'
}
