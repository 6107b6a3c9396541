import { type ReactNode, useState } from 'react'
import type { Problem } from '#contract/problem.ts'
import type { ForeseenView } from '#contract/effect-views.ts'
import { nounFor, peopleWords } from '#core/words/english.ts'
import { BeforeAfter, losersIn } from './BeforeAfter.tsx'
import { OpenedForm } from './OpenedForm.tsx'
import { ProblemNote } from './ProblemNote.tsx'
import { ActOrLeave } from './ActOrLeave.tsx'
import { Progress, type Waiting } from './WorkingOut.tsx'

interface Props {
  /** What happens, as the button says it. */
  readonly act: string
  readonly foreseen: {
    readonly effect: ForeseenView | undefined
    readonly problem: Problem | undefined
    readonly waiting?: Waiting
    readonly earlier: ForeseenView | undefined
  }
  readonly problem: Problem | undefined
  readonly isBusy: boolean
  readonly applying: { readonly done: number; readonly onStop: () => void } | undefined
  readonly onAct: () => Promise<void>
  readonly onLeave: () => void
  /** Why it is done: stands in the history. */
  readonly reason: string
  readonly onReason: (reason: string) => void
  /** What those for whom something is opened are told besides; asked for where the act `tells`. */
  readonly message: string
  readonly onMessage: (message: string) => void
  readonly tells?: boolean
  /** It takes something away that is hard to get back: it wears the colour of warning, and says how many people lose access. */
  readonly isDrastic?: boolean
  /** Something has to be chosen before there is an effect. */
  readonly isWaiting?: boolean
  /** Puts it with other changes, to be applied together later; where it can be. */
  readonly onGather: (() => Promise<boolean>) | undefined
  /** The fields that decide what the act is. */
  readonly children?: ReactNode
}

/** An act that changes access: its fields, what it does to whom, then the act itself or leaving it. */
export function Decision({
  act,
  foreseen,
  problem,
  isBusy,
  applying,
  onAct,
  onLeave,
  onGather,
  isDrastic = false,
  isWaiting = false,
  children,
  ...words
}: Props) {
  const isSeen = foreseen.effect !== undefined
  const gather = async () => {
    if ((await onGather?.()) === true) onLeave()
  }
  return (
    <OpenedForm label={act} isGrown={isSeen} onAct={onAct} onLeave={onLeave}>
      {children}
      {foreseen.problem === undefined && <ProblemNote problem={problem} />}
      {!isWaiting && <BeforeAfter {...foreseen} />}
      {isSeen && <Words {...words} />}
      {applying !== undefined && <Progress said="Applying a large change" {...applying} />}
      <ActOrLeave
        act={isDrastic ? withLosses(act, foreseen.effect) : act}
        isDrastic={isDrastic}
        isDisabled={isBusy || !isSeen}
        onLeave={onLeave}
        onGather={isSeen && onGather !== undefined ? () => void gather() : undefined}
      />
    </OpenedForm>
  )
}

function withLosses(act: string, effect: ForeseenView | undefined): string {
  const losing = losersIn(effect)
  return losing === 0 ? act : `${act}, ${peopleWords(losing)} ${nounFor(losing, 'loses', 'lose')} access`
}

/** Why it is done, and what those whom it concerns are told: neither is asked for, both are at hand. */
const Words = ({
  reason,
  onReason,
  message,
  onMessage,
  tells = false,
}: Pick<Props, 'reason' | 'onReason' | 'message' | 'onMessage' | 'tells'>) => (
  <div className="flex flex-wrap gap-x-4 gap-y-2">
    {tells && (
      <Opened act="Add a message">
        <textarea
          className="area"
          rows={2}
          aria-label="Message"
          placeholder="Message to the people you share it with"
          maxLength={2000}
          autoFocus
          value={message}
          onChange={event => onMessage(event.target.value)}
        />
      </Opened>
    )}
    <Opened act="Add a reason">
      <input
        className="field"
        aria-label="Reason"
        placeholder="Reason, kept in the history"
        maxLength={500}
        autoFocus
        value={reason}
        onChange={event => onReason(event.target.value)}
      />
    </Opened>
  </div>
)

function Opened({ act, children }: { readonly act: string; readonly children: ReactNode }) {
  const [isOpen, setOpen] = useState(false)
  if (isOpen) return <div className="w-full">{children}</div>
  return (
    <button type="button" className="act text-sm" onClick={() => setOpen(true)}>
      {act}
    </button>
  )
}
