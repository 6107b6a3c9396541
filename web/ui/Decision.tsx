import type { ReactNode } from 'react'
import type { Problem } from '#contract/problem.ts'
import type { ForeseenView } from '#contract/views.ts'
import { BeforeAfter } from './BeforeAfter.tsx'
import { onSubmit } from './on-submit.ts'
import { ProblemNote } from './ProblemNote.tsx'

interface Props {
  /** What happens, as the button says it. */
  readonly act: string
  readonly foreseen: { readonly effect: ForeseenView | undefined; readonly problem: Problem | undefined }
  readonly problem: Problem | undefined
  readonly isBusy: boolean
  readonly onAct: () => Promise<void>
  readonly onLeave: () => void
  /** The fields that decide what the act is. */
  readonly children?: ReactNode
}

/** An act that changes access: its fields, what it does to whom, then the act itself or leaving it. */
export const Decision = ({ act, foreseen, problem, isBusy, onAct, onLeave, children }: Props) => (
  <form className="mt-2 grid gap-3 bg-base-200 p-3" onSubmit={onSubmit(onAct)}>
    {children}
    <BeforeAfter {...foreseen} />
    {foreseen.problem === undefined && <ProblemNote problem={problem} />}
    <div className="flex justify-between gap-2">
      <button className="btn-act" disabled={isBusy || foreseen.effect === undefined}>
        {act}
      </button>
      <button type="button" className="btn-plain" onClick={onLeave}>
        Leave it
      </button>
    </div>
  </form>
)
