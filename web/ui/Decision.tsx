import { type ReactNode, useState } from 'react'
import type { PreviewView } from '#contract/views/impact.ts'
import type { Problem } from '#contract/views/problem.ts'
import { nounFor, peopleWords } from '#core/words/english.ts'
import { BeforeAfter, losersIn } from './BeforeAfter.tsx'
import { OpenedForm } from './OpenedForm.tsx'
import { ProblemNote } from './ProblemNote.tsx'
import { ActOrLeave } from './ActOrLeave.tsx'
import { Progress, type Waiting } from './WorkingOut.tsx'

interface Props {
  /** What happens, as the button says it. */
  readonly label: string
  readonly preview: {
    readonly preview: PreviewView | undefined
    readonly problem: Problem | undefined
    readonly waiting?: Waiting
    readonly earlier: PreviewView | undefined
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
  readonly onAddToDraft: (() => Promise<boolean>) | undefined
  /** The fields that decide what the act is. */
  readonly children?: ReactNode
}

/** An act that changes access: its fields, what it does to whom, then the act itself or leaving it. */
export function Decision({
  label,
  preview,
  problem,
  isBusy,
  applying,
  onAct,
  onLeave,
  onAddToDraft,
  isDrastic = false,
  isWaiting = false,
  children,
  ...words
}: Props) {
  const isVisible = preview.preview !== undefined
  const addToDraft = async () => {
    if ((await onAddToDraft?.()) === true) onLeave()
  }
  return (
    <OpenedForm label={label} isGrown={isVisible} onAct={onAct} onLeave={onLeave}>
      {children}
      {preview.problem === undefined && <ProblemNote problem={problem} />}
      {!isWaiting && <BeforeAfter {...preview} />}
      {isVisible && <Words {...words} />}
      {applying !== undefined && <Progress label="Applying a large change" {...applying} />}
      <ActOrLeave
        label={isDrastic ? withLosses(label, preview.preview) : label}
        isDrastic={isDrastic}
        isDisabled={isBusy || !isVisible}
        onLeave={onLeave}
        onAddToDraft={isVisible && onAddToDraft !== undefined ? () => void addToDraft() : undefined}
      />
    </OpenedForm>
  )
}

function withLosses(label: string, preview: PreviewView | undefined): string {
  const losing = losersIn(preview)
  return losing === 0 ? label : `${label}, ${peopleWords(losing)} ${nounFor(losing, 'loses', 'lose')} access`
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
      <Opened label="Add a message">
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
    <Opened label="Add a reason">
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

function Opened({ label, children }: { readonly label: string; readonly children: ReactNode }) {
  const [isOpen, setOpen] = useState(false)
  if (isOpen) return <div className="w-full">{children}</div>
  return (
    <button type="button" className="btn-inline text-sm" onClick={() => setOpen(true)}>
      {label}
    </button>
  )
}
