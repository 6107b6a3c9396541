import { type ReactNode, useEffect, useRef, useState } from 'react'
import type { Problem } from '#contract/problem.ts'
import type { ForeseenView } from '#contract/views.ts'
import { BeforeAfter } from './BeforeAfter.tsx'
import { onSubmit } from './on-submit.ts'
import { ProblemNote } from './ProblemNote.tsx'
import { ActOrLeave } from './ActOrLeave.tsx'

interface Props {
  /** What happens, as the button says it. */
  readonly act: string
  readonly foreseen: {
    readonly effect: ForeseenView | undefined
    readonly problem: Problem | undefined
    readonly earlier: ForeseenView | undefined
  }
  readonly problem: Problem | undefined
  readonly isBusy: boolean
  readonly onAct: () => Promise<void>
  readonly onLeave: () => void
  /** Why it is done: stands in the history. */
  readonly reason: string
  readonly onReason: (reason: string) => void
  /** The fields that decide what the act is. */
  readonly children?: ReactNode
}

/** An act that changes access: its fields, what it does to whom, then the act itself or leaving it. */
export function Decision({
  act,
  foreseen,
  problem,
  isBusy,
  onAct,
  onLeave,
  reason,
  onReason,
  children,
}: Props) {
  const form = useRef<HTMLFormElement>(null)
  const isSeen = foreseen.effect !== undefined
  // It opens below what opened it, at times below the edge; it grows once, by its effect.
  useEffect(() => {
    form.current?.scrollIntoView({ block: 'nearest' })
  }, [isSeen])
  return (
    <form ref={form} className="mt-2 grid gap-3 bg-base-200 p-3" onSubmit={onSubmit(onAct)}>
      {children}
      {foreseen.problem === undefined && <ProblemNote problem={problem} />}
      <BeforeAfter {...foreseen} />
      {isSeen && <Reason reason={reason} onReason={onReason} />}
      <ActOrLeave act={act} isDisabled={isBusy || !isSeen} onLeave={onLeave} />
    </form>
  )
}

function Reason({ reason, onReason }: Pick<Props, 'reason' | 'onReason'>) {
  const [isOpen, setOpen] = useState(false)
  if (!isOpen)
    return (
      <button type="button" className="act justify-self-start text-sm" onClick={() => setOpen(true)}>
        Say why
      </button>
    )
  return (
    <input
      className="field"
      aria-label="Why"
      placeholder="Why: stands in the history"
      maxLength={500}
      autoFocus
      value={reason}
      onChange={event => onReason(event.target.value)}
    />
  )
}
