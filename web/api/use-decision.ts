import { useState } from 'react'
import type { EditRequest } from '#contract/edit-requests.ts'
import { isDraftable } from '#contract/draftable.ts'
import type { PreviewView } from '#contract/views/impact.ts'
import type { AppliedView } from '#contract/views/workspace.ts'
import { useChange } from './use-change.ts'
import { usePreview } from './use-preview.ts'
import { useAddToDraft } from './drafts.ts'
import { useHere } from './use-here.ts'

interface Newer {
  readonly query: string
  readonly preview: PreviewView
  /** What its author had seen. */
  readonly earlier: PreviewView | undefined
}

/**
 * Edits that are about to be decided: what they would do, and the act that does just that. Where it would do
 * something else by then, nothing is done: the new effect is shown, with the one that was seen.
 */
export const useDecision = (
  edits: readonly EditRequest[],
  confirmation: string,
  onDone: (applied: AppliedView) => void,
) => useDecisionOn({ edits, confirmation, onDone })

interface Deciding {
  readonly edits: readonly EditRequest[]
  readonly confirmation: string
  readonly onDone: (applied: AppliedView) => void
  /** The kept change set that the edits are. */
  readonly draft?: string
}

/** The same about a change set that is a draft or was kept: it is gone once it is applied, and is not drafted again. */
export function useDecisionOn({ edits, confirmation, onDone, draft }: Deciding) {
  const { slug } = useHere()
  const query = JSON.stringify(edits)
  const [newer, setNewer] = useState<Newer>()
  const [reason, onReason] = useState('')
  const [message, onMessage] = useState('')
  const addToDraft = useAddToDraft(slug)
  const first = usePreview(slug, edits)
  const preview =
    newer?.query === query
      ? { preview: newer.preview, problem: undefined, earlier: newer.earlier }
      : { ...first, earlier: undefined }
  const { apply, problem, isBusy, applying } = useChange(slug)
  const onAct = async () => {
    const seen = preview.preview?.digest
    const done = await apply(edits, confirmation, {
      ...(seen === undefined ? {} : { preview: seen }),
      reason: reason.trim(),
      message: message.trim(),
    })
    if (done.applied !== undefined) onDone(done.applied)
    else if (done.problem?.preview !== undefined)
      setNewer({ query, preview: done.problem.preview, earlier: preview.preview })
  }
  const mayAddToDraft = draft === undefined && edits.every(each => isDraftable(each.kind))
  const onAddToDraft = mayAddToDraft ? () => addToDraft(edits) : undefined
  return { preview, problem, isBusy, applying, onAct, reason, onReason, message, onMessage, onAddToDraft }
}
