import { useEffect, useRef, useState } from 'react'
import type { OfferRequest } from '#contract/edit-requests.ts'
import type { ImportedRowView } from '#contract/views/onboarding.ts'
import type { Problem } from '#contract/views/problem.ts'
import { counted } from '#core/words/english.ts'
import type { ImportRow } from '#contract/requests.ts'
import { api } from '../../../api/api.ts'
import { useJudgeImportMutation } from '../../../api/people.ts'
import { useHere } from '../../../api/use-here.ts'
import { say } from '../../../store/message.ts'
import { useAppDispatch } from '../../../store/store.ts'
import type { Outcome } from '../../../ui/tables/Verdict.tsx'

export interface Judging {
  readonly rows: readonly ImportedRowView[]
  readonly problem: Problem | undefined
  readonly isJudging: boolean
}

interface Asked {
  readonly rows: readonly ImportRow[]
  readonly offer: OfferRequest
  readonly welcome: string | null
}

/** Each row as the server judges it, asked anew a moment after something changed. */
export function useJudging(request: Asked | undefined): Judging {
  const { slug } = useHere()
  const [judge] = useJudgeImportMutation()
  const text = request === undefined ? '' : JSON.stringify(request)
  const [answer, setAnswer] = useState<{
    text: string
    rows: readonly ImportedRowView[]
    problem?: Problem
  }>()
  useEffect(() => {
    if (text === '') return
    let isCurrent = true
    const timer = setTimeout(() => {
      const { rows, offer, welcome } = JSON.parse(text) as Asked
      void judge({ slug, rows: [...rows], offer, welcome }).then(({ data, error }) => {
        if (isCurrent)
          setAnswer({ text, rows: data ?? [], ...(error === undefined ? {} : { problem: error as Problem }) })
      })
    }, 400)
    return () => {
      isCurrent = false
      clearTimeout(timer)
    }
  }, [judge, slug, text])
  return { rows: answer?.rows ?? [], problem: answer?.problem, isJudging: answer?.text !== text }
}

export interface Importing {
  /** How many rows have been seen to, while it runs. */
  readonly progress: { readonly done: number; readonly of: number } | undefined
  readonly outcomes: readonly Outcome[] | undefined
  readonly start: (rows: readonly ImportedRowView[], file: string) => Promise<void>
  readonly stop: () => void
  readonly forget: () => void
}

/** Rows in one change set: each set is one entry of the history, and stopping waits for one at most. */
const together = 50

/** Carries rows out in parts. What is refused is told for its row, and the others of its part go on without it. */
export function useImporting(): Importing {
  const { slug } = useHere()
  const dispatch = useAppDispatch()
  const [progress, setProgress] = useState<Importing['progress']>()
  const [outcomes, setOutcomes] = useState<readonly Outcome[]>()
  const stopping = useRef(new AbortController())

  const applied = async (part: readonly Numbered[], reason: string): Promise<Map<number, Outcome>> => {
    const edits = part.flatMap(({ row }) => row.edits)
    const { error } = await dispatch(api.endpoints.change.initiate({ slug, edits, reason }))
    if (error === undefined) return new Map(part.map(({ index }) => [index, 'done']))
    const { title, status, edit } = error as Problem
    const refused = { refused: title }
    if (part.length === 1 || !isJudged(status)) return new Map(part.map(({ index }) => [index, refused]))
    const found = new Map<number, Outcome>()
    const culprit = edit === undefined ? undefined : rowWith(part, edit)
    if (culprit !== undefined) found.set(culprit.index, refused)
    for (const rest of culprit === undefined ? halves(part) : [part.filter(each => each !== culprit)])
      for (const [index, outcome] of await applied(rest, reason)) found.set(index, outcome)
    return found
  }

  const start: Importing['start'] = async (rows, file) => {
    stopping.current = new AbortController()
    const { signal } = stopping.current
    const all: Outcome[] = rows.map(({ verdict }) =>
      verdict === 'wrong' ? 'wrong' : verdict === 'as it is' ? 'as it is' : 'stopped',
    )
    const todo = rows
      .map((row, index) => ({ row, index }))
      .filter(({ row }) => row.verdict === 'new' || row.verdict === 'changes')
    setProgress({ done: 0, of: todo.length })
    let done = 0
    for (let from = 0; from < todo.length && !signal.aborted; from += together) {
      const part = todo.slice(from, from + together)
      const reason = `Imported from ${file}, rows ${(part[0]?.index ?? 0) + 2} to ${(part.at(-1)?.index ?? 0) + 2}`
      for (const [index, outcome] of await applied(part, reason)) all[index] = outcome
      done += part.length
      setProgress({ done, of: todo.length })
    }
    setProgress(undefined)
    setOutcomes(all)
    const count = all.filter(outcome => outcome === 'done').length
    dispatch(say({ text: `${counted(count, 'row is', 'rows are')} imported.` }))
  }
  return {
    progress,
    outcomes,
    start,
    stop: () => stopping.current.abort(),
    forget: () => setOutcomes(undefined),
  }
}

interface Numbered {
  readonly row: ImportedRowView
  readonly index: number
}

/** Refused for what it says, rather than for a line that was cut or tries that came too fast. */
const isJudged = (status: number) => [403, 404, 409, 422].includes(status)

/** What is refused as a whole is looked for in each half. */
const halves = (rows: readonly Numbered[]) => {
  const middle = Math.ceil(rows.length / 2)
  return [rows.slice(0, middle), rows.slice(middle)]
}

function rowWith(rows: readonly Numbered[], edit: number): Numbered | undefined {
  let before = 0
  return rows.find(({ row }) => (before += row.edits.length) > edit)
}
