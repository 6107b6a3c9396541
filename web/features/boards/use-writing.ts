import { createContext, useMemo, useRef, useState } from 'react'
import type { WrittenCells } from '#contract/views/boards.ts'
import type { Problem } from '#contract/views/problem.ts'
import { counted } from '#core/words/english.ts'
import type { CellValue } from '#core/boards/kind.ts'
import { api } from '../../api/api.ts'
import { useWriteCellsMutation } from '../../api/boards.ts'
import { say } from '../../store/message.ts'
import { useAppDispatch } from '../../store/store.ts'
import { useSteady } from '../../ui/use-steady.ts'
import {
  cellKey,
  type CellWrite,
  type OfCells,
  type Step,
  takingBack,
  type Unwritten,
  withCells,
} from './writing.ts'

export interface NewRow {
  readonly row: string
  readonly section: string | null
  readonly order?: number
}

/** What is written and not confirmed yet. */
export const PendingCells = createContext<OfCells<CellValue>>(new Map())

export interface Writing {
  readonly write: (cells: readonly CellWrite[], more?: WriteMore) => Promise<boolean>
  readonly undo: () => Promise<void>
  readonly redo: () => Promise<void>
  readonly unwritten: Unwritten | undefined
  readonly problem: Problem | undefined
  /** Leaves what could not be written as it is. */
  readonly leave: () => void
}

interface WriteMore {
  readonly rows?: readonly NewRow[]
  readonly isPartial?: boolean
}

interface At {
  readonly slug: string
  readonly id: string
}

/** Writes cells: shown at once, confirmed by the server, and taken back step by step. */
export function useWriting(at: At): readonly [Writing, OfCells<CellValue>] {
  const { pending, sent } = useSending(at)
  const [unwritten, setUnwritten] = useState<Unwritten>()
  const [problem, setProblem] = useState<Problem>()
  const steps = useSteps(at.slug, sent)
  const { inTurn, underWay } = useTurns()
  const writeNow = async (cells: readonly CellWrite[], more: WriteMore): Promise<boolean> => {
    setProblem(undefined)
    const { data, error } = await sent(cells, more)
    if (data !== undefined) {
      setUnwritten(undefined)
      steps.add(
        more.rows === undefined
          ? { cells: without(cells, data.left), versions: data.versions }
          : { made: Object.values(data.made) },
      )
      return true
    }
    setUnwritten(unwrittenFrom(cells, error))
    setProblem(error?.conflicts === undefined && error?.cells === undefined ? error : undefined)
    return false
  }
  const write = useSteady(
    async (cells: readonly CellWrite[], more: WriteMore = {}) =>
      cells.length === 0 || (await underWay(writeNow(cells, more))),
  )
  const undo = useSteady(() => inTurn(steps.undo))
  const redo = useSteady(() => inTurn(steps.redo))
  const leave = useSteady(() => {
    setUnwritten(undefined)
    setProblem(undefined)
  })
  const writing = useMemo(
    () => ({ write, unwritten, problem, undo, redo, leave }),
    [write, unwritten, problem, undo, redo, leave],
  )
  return [writing, pending]
}

/** What is on its way is the last step already: steps are taken back once all that was begun before is answered. */
function useTurns() {
  const begun = useRef<Promise<unknown>>(Promise.resolve())
  const underWay = <T>(work: Promise<T>): Promise<T> => {
    begun.current = Promise.allSettled([begun.current, work])
    return work
  }
  const inTurn = (step: () => Promise<void>): Promise<void> => underWay(begun.current.then(step))
  return { inTurn, underWay }
}

interface Sent {
  readonly data: WrittenCells | undefined
  readonly error: Problem | undefined
}

type Send = (cells: readonly CellWrite[], more: WriteMore) => Promise<Sent>

/** For so long what was written is shown before the rows that come anew: what was there before must not be seen between. */
const shownFor = 400

/** Sends cells, and shows them as written while they are on their way. */
function useSending(at: At): { readonly pending: OfCells<CellValue>; readonly sent: Send } {
  const [send] = useWriteCellsMutation()
  const [pending, setPending] = useState<OfCells<CellValue>>(new Map())
  const show = (cells: readonly CellWrite[], isThere: boolean) =>
    setPending(before =>
      withCells(
        before,
        // What was written over since stays.
        cells
          .filter(({ row, column, value }) => isThere || before.get(row)?.get(column) === value)
          .map(({ row, column, value }) => [row, column, isThere ? value : undefined]),
      ),
    )
  const sent: Send = async (cells, { rows = [], isPartial = false }) => {
    show(cells, true)
    const request = cells.map(({ row, column, value, seen }) => ({
      row,
      column,
      value: value as never,
      seen,
    }))
    const { data, error } = await send({ ...at, cells: request, isPartial, rows: [...rows] })
    setTimeout(() => show(cells, false), data === undefined ? 0 : shownFor)
    return { data, error: error === undefined || 'type' in error ? error : undefined }
  }
  return { pending, sent }
}

const stepsKept = 100
const notUndone = 'That could not be undone. Try again.'

/** One's own steps: each is taken back as far as nobody else has written in its cells since. Rows go to the bin, and come back. */
function useSteps(slug: string, sent: Send) {
  const dispatch = useAppDispatch()
  const done = useRef<Step[]>([])
  const undone = useRef<Step[]>([])
  const bin = async (rows: readonly string[], binned: boolean): Promise<boolean> => {
    const edits = rows.map(node => ({ kind: 'node.state', node, binned }) as const)
    const { error } = await dispatch(api.endpoints.change.initiate({ slug, edits }))
    const text =
      error === undefined
        ? `${counted(rows.length, 'row is', 'rows are')} ${binned ? 'in the bin' : 'back from the bin'}.`
        : 'title' in error
          ? error.title
          : notUndone
    dispatch(say({ text }))
    return error === undefined
  }
  const turn = async (isBack: boolean) => {
    const [from, to] = isBack ? [done, undone] : [undone, done]
    const step = from.current.at(-1)
    if (step === undefined) return
    from.current = from.current.slice(0, -1)
    if ('made' in step) {
      if (await bin(step.made, isBack)) to.current = [...to.current, step]
      return
    }
    const cells = takingBack(step)
    const { data, error } = await sent(cells, { isPartial: true })
    if (data === undefined) {
      // It can be tried again.
      from.current = [...from.current, step]
      dispatch(say({ text: error === undefined ? notUndone : `${error.title} ${error.detail}` }))
      return
    }
    const turned = without(cells, data.left)
    if (turned.length > 0) to.current = [...to.current, { cells: turned, versions: data.versions }]
    const kept =
      data.left.length === 0
        ? ''
        : ` ${counted(data.left.length, 'cell was', 'cells were')} changed since, and stays so.`
    const word = isBack ? 'undone' : 'written again'
    dispatch(say({ text: `${counted(turned.length, 'cell', 'cells')} ${word}.${kept}` }))
  }
  return {
    add: (step: Step) => {
      done.current = [...done.current, step].slice(-stepsKept)
      undone.current = []
    },
    undo: () => turn(true),
    redo: () => turn(false),
  }
}

function without(cells: readonly CellWrite[], left: WrittenCells['left']): CellWrite[] {
  const keys = new Set(left.map(({ row, column }) => cellKey(row, column)))
  return cells.filter(({ row, column }) => !keys.has(cellKey(row, column)))
}

function unwrittenFrom(cells: readonly CellWrite[], error: Problem | undefined): Unwritten | undefined {
  if (error?.conflicts !== undefined) return { kind: 'conflict', cells, conflicts: error.conflicts }
  if (error?.cells === undefined) return undefined
  const why = [...new Set(error.cells.map(each => each.why))].slice(0, 5)
  return { kind: 'refused', cells, count: error.refused ?? error.cells.length, why }
}
