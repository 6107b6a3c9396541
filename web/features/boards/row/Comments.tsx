import { type ReactNode, useState } from 'react'
import { partsOfText } from '#contract/mentions.ts'
import type { CommentsView, CommentView } from '#contract/views/boards.ts'
import type { Problem } from '#contract/views/problem.ts'
import {
  useCommentsQuery,
  useEditCommentMutation,
  useRemoveCommentMutation,
  useResolveCommentMutation,
} from '../../../api/boards.ts'
import { useHere } from '../../../api/use-here.ts'
import { Day, Time } from '../../../ui/dates.tsx'
import { onSubmit } from '../../../ui/on-submit.ts'
import { ProblemNote } from '../../../ui/ProblemNote.tsx'
import { Initials } from '../cells/CellShown.tsx'
import { CommentForm } from './CommentForm.tsx'

interface Props {
  readonly id: string
  /** Only what is open. */
  readonly isShort?: boolean
}

/** What people say about a row: threads, each resolved or open. */
export function Comments({ id, isShort = false }: Props) {
  const { slug } = useHere()
  const { data } = useCommentsQuery({ slug, id })
  const [showsResolved, setShowsResolved] = useState(false)
  if (data === undefined) return null
  const threads = data.comments.filter(each => each.id === each.thread)
  const open = threads.filter(each => !each.isResolved)
  const resolved = threads.length - open.length
  const shown = showsResolved ? threads : open
  return (
    <div className="grid gap-3">
      {shown.map(first => (
        <Thread key={first.id} id={id} first={first} all={data} />
      ))}
      {shown.length === 0 && !isShort && <p className="quiet">Nobody has commented on this yet.</p>}
      {resolved > 0 && !isShort && (
        <button
          type="button"
          className="btn-inline justify-self-start text-sm"
          onClick={() => setShowsResolved(!showsResolved)}
        >
          {showsResolved ? 'Hide' : 'Show'} {resolved} resolved
        </button>
      )}
      {data.mayComment && <CommentForm id={id} thread={null} />}
    </div>
  )
}

interface ThreadProps {
  readonly id: string
  readonly first: CommentView
  readonly all: CommentsView
}

function Thread({ id, first, all }: ThreadProps) {
  const { slug } = useHere()
  const [resolve, { error }] = useResolveCommentMutation()
  const [isReplying, setReplying] = useState(false)
  const replies = all.comments.filter(each => each.thread === first.id && each.id !== first.id)
  return (
    <article
      aria-label={`Thread by ${first.by?.name ?? 'somebody'}`}
      className={first.isResolved ? 'opacity-80' : ''}
    >
      <One id={id} comment={first} names={all.names} />
      {replies.length > 0 && (
        <div className="mt-1 ml-3 grid gap-1.5 border-l border-base-300 pl-3">
          {replies.map(each => (
            <One key={each.id} id={id} comment={each} names={all.names} />
          ))}
        </div>
      )}
      {all.mayComment && (
        <div className="mt-1 ml-7 flex gap-2 text-sm">
          <button type="button" className="btn-inline" onClick={() => setReplying(!isReplying)}>
            Reply
          </button>
          <button
            type="button"
            className="btn-inline"
            onClick={() => void resolve({ slug, id, comment: first.id, isResolved: !first.isResolved })}
          >
            {first.isResolved ? 'Reopen' : 'Resolve'}
          </button>
          {first.isResolved && (
            <span className="quiet">
              resolved{first.resolvedBy === null ? '' : ` by ${first.resolvedBy}`}
            </span>
          )}
        </div>
      )}
      <ProblemNote problem={error as Problem | undefined} />
      {isReplying && <CommentForm id={id} thread={first.id} onDone={() => setReplying(false)} />}
    </article>
  )
}

interface OneProps {
  readonly id: string
  readonly comment: CommentView
  readonly names: Readonly<Record<string, string>>
}

function One({ id, comment, names }: OneProps) {
  const [isEditing, setEditing] = useState(false)
  const { by, at, isEdited, text } = comment
  return (
    <div className="flex gap-2">
      {by !== null && <Initials name={by.name} />}
      <div className="min-w-0 grow">
        <p>
          <strong>{by?.name ?? 'Somebody'}</strong>{' '}
          <span className="quiet text-sm">
            <Day at={at} />, <Time at={at} />
            {isEdited && ' · edited'}
          </span>
        </p>
        {text === null && <p className="quiet italic">This comment was removed.</p>}
        {text !== null && isEditing && (
          <Editing id={id} comment={comment.id} text={text} onDone={() => setEditing(false)} />
        )}
        {text !== null && !isEditing && (
          <>
            <p className="break-words whitespace-pre-wrap">{mentioning(text, names)}</p>
            <CommentActs id={id} comment={comment} onEdit={() => setEditing(true)} />
          </>
        )}
      </div>
    </div>
  )
}

interface ActsProps {
  readonly id: string
  readonly comment: CommentView
  readonly onEdit: () => void
}

function CommentActs({ id, comment: { id: comment, mayEdit, mayRemove }, onEdit }: ActsProps) {
  const { slug } = useHere()
  const [remove, { error }] = useRemoveCommentMutation()
  return (
    <div className="flex flex-wrap gap-2 text-sm empty:hidden">
      {mayEdit && (
        <button type="button" className="quiet cursor-pointer hover:underline" onClick={onEdit}>
          Edit
        </button>
      )}
      {mayRemove && (
        <button
          type="button"
          className="quiet cursor-pointer hover:underline"
          onClick={() => void remove({ slug, id, comment })}
        >
          Remove
        </button>
      )}
      <ProblemNote problem={error as Problem | undefined} />
    </div>
  )
}

interface EditingProps {
  readonly id: string
  readonly comment: string
  readonly text: string
  readonly onDone: () => void
}

function Editing({ id, comment, text: before, onDone }: EditingProps) {
  const { slug } = useHere()
  const [edit, { error }] = useEditCommentMutation()
  const [text, setText] = useState(before)
  const save = async () => {
    const saved = await edit({ slug, id, comment, text })
    if (saved.error === undefined) onDone()
  }
  return (
    <form className="grid gap-1.5" onSubmit={onSubmit(save)}>
      <textarea
        className="area"
        rows={3}
        aria-label="Comment"
        autoFocus
        value={text}
        onChange={event => setText(event.target.value)}
      />
      <ProblemNote problem={error as Problem | undefined} />
      <div className="flex gap-2">
        <button className="btn-plain" disabled={text.trim() === ''}>
          Save
        </button>
        <button type="button" className="btn-plain" onClick={onDone}>
          Cancel
        </button>
      </div>
    </form>
  )
}

/** Names are shown as they are by now; of somebody whom the reader may not know there is none. */
const mentioning = (text: string, names: Readonly<Record<string, string>>): ReactNode[] =>
  partsOfText(text).map((part, index) =>
    typeof part === 'string' ? (
      part
    ) : (
      <span key={index} className="font-semibold">
        @{(Object.hasOwn(names, part.mention) ? names[part.mention] : undefined) ?? 'somebody'}
      </span>
    ),
  )
