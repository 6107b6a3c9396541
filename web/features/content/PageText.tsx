import { useState } from 'react'
import type { TextView } from '#contract/views/content.ts'
import type { Problem } from '#contract/views/problem.ts'
import { useSaveTextMutation, useTextQuery } from '../../api/api.ts'
import { useHere } from '../../api/use-here.ts'
import { say } from '../../store/message.ts'
import { useAppDispatch } from '../../store/store.ts'
import { CommonMark } from '../../ui/CommonMark.tsx'
import { Day } from '../../ui/dates.tsx'
import { ProblemNote } from '../../ui/ProblemNote.tsx'

interface Props {
  readonly id: string
  readonly mayEdit: boolean
}

/** A page's text: read as it will look, written as CommonMark. What is typed outlives a reload. */
export function PageText({ id, mayEdit }: Props) {
  const { slug } = useHere()
  const { data: text } = useTextQuery({ slug, id })
  const [isWriting, setWriting] = useState(() => mayEdit && draftOf(id) !== null)
  if (text === undefined) return null
  if (isWriting) return <Writing id={id} text={text} onDone={() => setWriting(false)} />
  return (
    <article>
      {text.text === '' ? (
        <p className="quiet">{mayEdit ? 'This page is empty.' : 'This page is empty.'}</p>
      ) : (
        <CommonMark text={text.text} />
      )}
      <p className="quiet mt-4 flex items-center gap-4 text-sm">
        {mayEdit && (
          <button type="button" className="btn-plain text-base-content" onClick={() => setWriting(true)}>
            Edit
          </button>
        )}
        {text.changedAt !== null && (
          <span>
            Version {text.version}
            {text.changedBy !== null && ` by ${text.changedBy}`}, <Day at={text.changedAt} />
          </span>
        )}
      </p>
    </article>
  )
}

function Writing({
  id,
  text,
  onDone,
}: {
  readonly id: string
  readonly text: TextView
  readonly onDone: () => void
}) {
  const { slug } = useHere()
  const dispatch = useAppDispatch()
  const [draft, setDraft] = useState(() => draftOf(id) ?? { text: text.text, version: text.version })
  const [save, { error, isLoading }] = useSaveTextMutation()
  const change = (written: string) => {
    const next = { ...draft, text: written }
    setDraft(next)
    localStorage.setItem(draftKey(id), JSON.stringify(next))
  }
  const leave = () => {
    localStorage.removeItem(draftKey(id))
    onDone()
  }
  const submit = async () => {
    const { data } = await save({ slug, id, ...draft })
    if (data === undefined) return
    dispatch(say({ text: 'The page is saved.' }))
    leave()
  }
  const isBehind = text.version !== draft.version
  return (
    <div className="grid gap-2">
      <textarea
        className="area h-80 font-mono text-sm"
        aria-label="Text of the page, in CommonMark"
        autoFocus
        value={draft.text}
        onChange={event => change(event.target.value)}
      />
      {isBehind && <Theirs text={text} onKeepMine={() => setDraft({ ...draft, version: text.version })} />}
      {!isBehind && <ProblemNote problem={error as Problem | undefined} />}
      <div className="flex gap-2">
        <button
          type="button"
          className="btn-main"
          disabled={isLoading || isBehind}
          onClick={() => void submit()}
        >
          Save page
        </button>
        <button type="button" className="btn-plain" onClick={leave}>
          Discard my changes
        </button>
      </div>
    </div>
  )
}

/** Somebody saved meanwhile: their text is shown, and nothing of either is lost unasked. */
const Theirs = ({ text, onKeepMine }: { readonly text: TextView; readonly onKeepMine: () => void }) => (
  <section role="alert" className="border-l-4 border-warning bg-base-200 px-3 py-2">
    <p className="font-semibold">
      {text.changedBy ?? 'Somebody'} changed this page in the meantime. Their text:
    </p>
    <pre className="my-2 max-h-40 overflow-y-auto text-sm whitespace-pre-wrap">{text.text}</pre>
    <button type="button" className="btn-plain" onClick={onKeepMine}>
      Replace it with my version
    </button>
  </section>
)

const draftKey = (id: string) => `noskel page ${id}`

function draftOf(id: string): { text: string; version: number } | null {
  return JSON.parse(localStorage.getItem(draftKey(id)) ?? 'null') as { text: string; version: number } | null
}
