import { type KeyboardEvent, useRef, useState } from 'react'
import { skipToken } from '@reduxjs/toolkit/query'
import { mentionOf } from '#contract/mentions.ts'
import type { PersonName } from '#contract/views/names.ts'
import type { Problem } from '#contract/views/problem.ts'
import { fold } from '#core/base/fold-words.ts'
import { listed } from '#core/words/english.ts'
import { useReachQuery, useWriteCommentMutation } from '../../../api/boards.ts'
import { useHere } from '../../../api/use-here.ts'
import { activeOf, useKnownPeople } from '../../../api/use-known-people.ts'
import { onSubmit } from '../../../ui/on-submit.ts'
import { ProblemNote } from '../../../ui/ProblemNote.tsx'
import { useDraft } from '../../../ui/use-draft.ts'

interface Props {
  readonly id: string
  readonly thread: string | null
  readonly onDone?: () => void
}

interface Draft {
  readonly text: string
  /** Whom the text names, as they were picked. */
  readonly people: readonly { readonly id: string; readonly name: string }[]
}

const nothing: Draft = { text: '', people: [] }

/** A comment as it is written: `@` finds people, and it is said at once who of them would not be told. */
export function CommentForm({ id, thread, onDone }: Props) {
  const { slug } = useHere()
  const [draft, setDraft, dropDraft] = useDraft<Draft>(`comment ${id} ${thread ?? ''}`, nothing)
  const [send, { isLoading, error }] = useWriteCommentMutation()
  const named = draft.people.filter(({ name }) => draft.text.includes(`@${name}`))
  const leave = () => {
    dropDraft()
    onDone?.()
  }
  const submit = async () => {
    const sent = await send({ slug, id, thread, text: withMentions(draft.text, named) })
    if (sent.error === undefined) leave()
  }
  return (
    <form className="grid gap-1.5" onSubmit={onSubmit(submit)}>
      <MentioningField
        label={thread === null ? 'Comment' : 'Reply'}
        isFocused={thread !== null}
        draft={draft}
        onDraft={setDraft}
        onSend={() => void submit()}
      />
      <NotTold id={id} people={named} />
      <ProblemNote problem={error as Problem | undefined} />
      {draft.text.trim() !== '' && (
        <div className="flex gap-2">
          <button className="btn-main" disabled={isLoading}>
            {thread === null ? 'Comment' : 'Reply'}
          </button>
          <button type="button" className="btn-plain" onClick={leave}>
            Cancel
          </button>
        </div>
      )}
    </form>
  )
}

interface FieldProps {
  readonly label: string
  readonly isFocused: boolean
  readonly draft: Draft
  readonly onDraft: (draft: Draft) => void
  readonly onSend: () => void
}

function MentioningField({ label, isFocused, draft, onDraft, onSend }: FieldProps) {
  const field = useRef<HTMLTextAreaElement>(null)
  const [at, setAt] = useState(0)
  const [caret, setCaret] = useState(draft.text.length)
  const found = usePeople(mentionBegun.exec(draft.text.slice(0, caret))?.[1])
  const choose = ({ id, name, mail }: PersonName) => {
    const word = name || mail
    const before = draft.text.slice(0, caret).replace(/@[^@\n]{0,30}$/, `@${word} `)
    onDraft({ text: before + draft.text.slice(caret), people: [...draft.people, { id, name: word }] })
    setCaret(before.length)
    setAt(0)
    field.current?.focus()
  }
  const keys = (event: KeyboardEvent) => {
    const { key } = event
    const person = found[at]
    if (key === 'Enter' && (event.ctrlKey || event.metaKey)) onSend()
    else if (person === undefined) return
    else if (key === 'ArrowDown' || key === 'ArrowUp')
      setAt((at + (key === 'ArrowDown' ? 1 : found.length - 1)) % found.length)
    else if (key === 'Enter' || key === 'Tab') choose(person)
    else return
    event.preventDefault()
  }
  return (
    <div className="relative">
      <textarea
        ref={field}
        className="area"
        rows={2}
        aria-label={label}
        placeholder={`${label}; @ mentions somebody`}
        maxLength={9000}
        autoFocus={isFocused}
        value={draft.text}
        onChange={event => {
          onDraft({ ...draft, text: event.target.value })
          setCaret(event.target.selectionStart)
        }}
        onSelect={event => setCaret(event.currentTarget.selectionStart)}
        onKeyDown={keys}
      />
      {found.length > 0 && <People people={found} at={at} onChoose={choose} />}
    </div>
  )
}

const mentionBegun = /(?:^|\s)@([^@\n]{0,30})$/

interface PeopleProps {
  readonly people: readonly PersonName[]
  readonly at: number
  readonly onChoose: (person: PersonName) => void
}

const People = ({ people, at, onChoose }: PeopleProps) => (
  <ul
    role="listbox"
    aria-label="People"
    className="absolute z-20 w-full border border-base-content bg-base-100"
  >
    {people.map((person, index) => (
      <li
        key={person.id}
        role="option"
        aria-selected={index === at}
        className={`cursor-pointer px-2 py-0.5 ${index === at ? 'bg-base-200' : ''}`}
        onMouseDown={event => {
          event.preventDefault()
          onChoose(person)
        }}
      >
        {person.name || person.mail}
      </li>
    ))}
  </ul>
)

const shownAtMost = 6

function usePeople(wanted: string | undefined): readonly PersonName[] {
  const people = useKnownPeople(wanted !== undefined)
  if (wanted === undefined) return []
  const word = fold(wanted.trim())
  return activeOf(people)
    .filter(each => fold(each.name).includes(word) && each.name !== wanted.trim())
    .slice(0, shownAtMost)
}

/** Longer names first, so that no name is found within another. */
const withMentions = (text: string, people: Draft['people']): string =>
  people
    .toSorted((a, b) => b.name.length - a.name.length)
    .reduce((so, { id, name }) => so.replaceAll(`@${name}`, mentionOf(id)), text)

/** Who is mentioned and cannot open it is not told, and finds nothing: whoever writes knows it before. */
function NotTold({ id, people }: { readonly id: string; readonly people: Draft['people'] }) {
  const { slug } = useHere()
  const { data } = useReachQuery(
    people.length === 0 ? skipToken : { slug, id, people: people.map(each => each.id), places: [] },
  )
  if (data === undefined || data.people.length === 0) return null
  const names = data.people.map(each => each.name)
  return (
    <p role="status" className="text-sm text-warning">
      {listed(names)} cannot open this and will not be told. Share it with them under “Access”, or leave the
      name out.
    </p>
  )
}
