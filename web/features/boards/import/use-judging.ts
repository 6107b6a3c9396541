import { useEffect, useRef, useState } from 'react'
import type { JudgedRowView } from '#contract/views/boards.ts'
import type { Problem } from '#contract/views/problem.ts'
import { useJudgeRowsMutation } from '../../../api/boards.ts'
import type { Table } from '../../../workers/table.ts'
import { useOpenBoard } from '../board-context.ts'
import { type Mapped, repeatedRows, requestFor, sentOf } from './columns.ts'
import { partsOf } from './parts.ts'

export interface Judging {
  /** By the place of the row; one that is not judged yet is not there. */
  readonly rows: ReadonlyMap<number, JudgedRowView>
  /** When the first of them was. */
  readonly at: number
  readonly problem: Problem | undefined
  readonly done: number
  readonly isJudging: boolean
}

interface Kept {
  readonly of: string
  readonly rows: Map<number, { readonly cells: string; readonly judged: JudgedRowView }>
  at: number
}

/** After the last key was pressed. */
const pause = 400

const nothingKept = (of: string): Kept => ({ of, rows: new Map(), at: 0 })

/** Each row as the server judges it, part after part; of a row that was mended that row anew. Not while rows are brought in. */
export function useJudging(table: Table, mapped: Mapped, isPaused: boolean): Judging {
  const { slug, node, info } = useOpenBoard()
  const [judge] = useJudgeRowsMutation()
  const of = JSON.stringify(requestFor(mapped, info))
  const kept = useRef<Kept>(nothingKept(of))
  const [found, setFound] = useState<Judging>(nothingJudged)
  const { rows } = table
  useEffect(() => {
    if (isPaused) return
    if (kept.current.of !== of) kept.current = nothingKept(of)
    const now = kept.current
    const sent = sentOf(mapped, info)
    const cellsOf = (place: number) => sent.map(column => rows[place]?.[column] ?? '')
    const todo = [...rows.keys()].filter(
      place => now.rows.get(place)?.cells !== JSON.stringify(cellsOf(place)),
    )
    let isCurrent = true
    const told = (isJudging: boolean, problem?: Problem) =>
      setFound({
        rows: withRepeated(now, { rows }, mapped),
        at: now.at,
        problem,
        done: now.rows.size,
        isJudging,
      })
    const run = async () => {
      for (const part of partsOf(todo, cellsOf)) {
        const answer = await judge({
          slug,
          id: node.id,
          ...requestFor(mapped, info),
          rows: part.map(cellsOf),
        })
        if (!isCurrent) return
        if (answer.data === undefined) {
          told(false, answer.error as Problem)
          return
        }
        now.at = now.at === 0 ? answer.data.at : Math.min(now.at, answer.data.at)
        for (const [nth, judged] of answer.data.rows.entries())
          now.rows.set(part[nth] ?? 0, { cells: JSON.stringify(cellsOf(part[nth] ?? 0)), judged })
        told(true)
      }
      told(false)
    }
    if (todo.length > 0 && sent.length > 0) told(true)
    const begin = () => {
      if (sent.length > 0) void run()
      else told(false)
    }
    const timer = setTimeout(begin, pause)
    return () => {
      isCurrent = false
      clearTimeout(timer)
    }
    // What is sent says which columns there are.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [judge, slug, node.id, of, rows, isPaused])
  return found
}

const nothingJudged: Judging = { rows: new Map(), at: 0, problem: undefined, done: 0, isJudging: true }

const twice: JudgedRowView = { verdict: 'wrong', says: ['An earlier row is the same one.'], faults: [] }

/** What is the same row twice stands in other parts of the table, too. */
function withRepeated(
  { rows: judged }: Kept,
  table: Pick<Table, 'rows'>,
  mapped: Mapped,
): ReadonlyMap<number, JudgedRowView> {
  const repeated = repeatedRows(table, mapped)
  return new Map([...judged].map(([place, each]) => [place, repeated.has(place) ? twice : each.judged]))
}
