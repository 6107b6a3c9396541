import { useState } from 'react'
import type { DraftHead } from '#contract/views/drafts.ts'
import type { Problem } from '#contract/views/problem.ts'
import { useHandOverDraftMutation, useDraftRecipientsQuery } from '../../../api/drafts.ts'
import { useHere } from '../../../api/use-here.ts'
import { say } from '../../../store/message.ts'
import { useAppDispatch } from '../../../store/store.ts'
import { ActOrLeave } from '../../../ui/ActOrLeave.tsx'
import { Choice } from '../../../ui/Choice.tsx'
import { OpenedForm } from '../../../ui/OpenedForm.tsx'
import { ProblemNote } from '../../../ui/ProblemNote.tsx'
import { TextField } from '../../../ui/TextField.tsx'

interface Props {
  readonly draft: DraftHead
  readonly onDone: () => void
}

/** Hands a change set to somebody who may apply it, with a word. */
export function HandOver({ draft, onDone }: Props) {
  const { slug } = useHere()
  const dispatch = useAppDispatch()
  const { data } = useDraftRecipientsQuery({ slug, id: draft.id })
  const [hand, { isLoading, error }] = useHandOverDraftMutation()
  const [to, setTo] = useState('')
  const [comment, setComment] = useState('')
  if (data === undefined) return <p className="quiet mt-3">Loading …</p>
  if (data.recipients.length === 0)
    return (
      <p className="mt-3">
        Nobody that you know can apply all of these changes.{' '}
        <button type="button" className="btn-inline" onClick={onDone}>
          Cancel
        </button>
      </p>
    )
  const submit = async () => {
    const { data: done } = await hand({ slug, id: draft.id, to, comment: comment.trim() })
    if (done === undefined) return
    const name = data.recipients.find(each => each.id === to)?.name ?? ''
    dispatch(say({ text: `Handed over to ${name}.` }))
    onDone()
  }
  return (
    <OpenedForm
      label="Hand over"
      className="mt-3 grid max-w-lg gap-3 bg-base-200 p-3"
      onAct={submit}
      onLeave={onDone}
    >
      {!data.mayI && <p className="text-sm">You cannot apply all of these changes yourself.</p>}
      <Choice
        label="Hand over to"
        value={to}
        options={[
          { value: '', name: 'Choose a person' },
          ...data.recipients.map(({ id, name }) => ({ value: id, name })),
        ]}
        onValue={setTo}
      />
      <TextField label="Message" maxLength={1000} value={comment} onValue={setComment} />
      <ProblemNote problem={error as Problem | undefined} />
      <ActOrLeave label="Hand over" isDisabled={isLoading || to === ''} onLeave={onDone} />
    </OpenedForm>
  )
}
