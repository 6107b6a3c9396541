import { useState } from 'react'
import type { DraftHead } from '#contract/views/drafts.ts'
import type { Problem } from '#contract/views/problem.ts'
import type { EditRequest } from '#contract/edit-requests.ts'
import {
  useChangeDraftMutation,
  useDraftItemsQuery,
  useDraftQuery,
  useDraftsQuery,
  useDiscardDraftMutation,
} from '../../../api/drafts.ts'
import { useDecisionOn } from '../../../api/use-decision.ts'
import { counted } from '#core/words/english.ts'
import { useHere } from '../../../api/use-here.ts'
import { Day } from '../../../ui/dates.tsx'
import { Decision } from '../../../ui/Decision.tsx'
import { onSubmit } from '../../../ui/on-submit.ts'
import { OversightHead } from '../../../ui/OversightHead.tsx'
import { ProblemNote } from '../../../ui/ProblemNote.tsx'
import { NotYet } from '../../../ui/NotYet.tsx'
import { HandOver } from './HandOver.tsx'

/** Draft changes: previewed, applied together, saved for later, handed over, discarded. */
export function DraftScreen() {
  const { slug, workspace } = useHere()
  const { data, error } = useDraftsQuery(slug)
  if (data === undefined) return <NotYet error={error} />
  return (
    <main className="min-h-0 overflow-y-auto px-4 pt-3 pb-6">
      <OversightHead me={workspace.me} />
      <div className="grid max-w-4xl gap-8">
        <section aria-label="Your draft">
          <h2 className="mb-1 text-lg font-bold">Your draft</h2>
          {data.draft === null ? (
            <p>
              No draft changes. Use “Add to draft” in any form that changes access. Then preview and apply all
              draft changes together.
            </p>
          ) : (
            <Draft key={data.draft.id} draft={data.draft} />
          )}
        </section>
        {data.kept.length > 0 && (
          <section aria-label="Saved drafts">
            <h2 className="mb-1 text-lg font-bold">Saved drafts</h2>
            {data.kept.map(draft => (
              <Kept key={draft.id} draft={draft} />
            ))}
          </section>
        )}
      </div>
    </main>
  )
}

interface Props {
  readonly draft: DraftHead
}

function Kept({ draft }: Props) {
  const [isOpen, setOpen] = useState(draft.from !== null)
  const { name, from, comment, changedAt, count } = draft
  return (
    <article aria-label={name} className="border-t border-base-content py-2">
      <div className="flex items-baseline justify-between gap-3">
        <h3 className="font-bold">{name}</h3>
        <span className="quiet text-sm">
          {changesWords(count)}
          {from !== null && `, handed over by ${from.name}`} · <Day at={changedAt} />{' '}
          <button
            type="button"
            className="btn-inline ml-2 text-base-content"
            aria-expanded={isOpen}
            aria-label={`${isOpen ? 'Hide' : 'Show'} ${name}`}
            onClick={() => setOpen(!isOpen)}
          >
            {isOpen ? 'Hide' : 'Show'}
          </button>
        </span>
      </div>
      {comment !== '' && <p className="quiet">“{comment}”</p>}
      {isOpen && <Draft draft={draft} />}
    </article>
  )
}

const changesWords = (count: number) => counted(count, 'change', 'changes')

type Open = 'apply' | 'keep' | 'hand' | undefined

function Draft({ draft }: Props) {
  const { slug } = useHere()
  const [drop] = useDiscardDraftMutation()
  const [open, setOpen] = useState<Open>()
  const count = changesWords(draft.count)
  return (
    <>
      <Items draft={draft} />
      {open === undefined && (
        <div className="mt-3 flex flex-wrap gap-2">
          <button type="button" className="btn-main" onClick={() => setOpen('apply')}>
            Preview
          </button>
          {draft.name === '' && (
            <button type="button" className="btn-plain" onClick={() => setOpen('keep')}>
              Save for later
            </button>
          )}
          <button type="button" className="btn-plain" onClick={() => setOpen('hand')}>
            Hand over
          </button>
          <button
            type="button"
            className="btn-plain ml-auto"
            onClick={() => void drop({ slug, id: draft.id })}
          >
            Discard {count}
          </button>
        </div>
      )}
      {open === 'apply' && <Apply draft={draft} onDone={() => setOpen(undefined)} />}
      {open === 'keep' && <Keep draft={draft} onDone={() => setOpen(undefined)} />}
      {open === 'hand' && <HandOver draft={draft} onDone={() => setOpen(undefined)} />}
    </>
  )
}

/** Each act as the history would tell it. */
function Items({ draft }: Props) {
  const { slug } = useHere()
  const [change] = useChangeDraftMutation()
  const { data, error } = useDraftItemsQuery({ slug, id: draft.id })
  if (data === undefined)
    return error === undefined ? (
      <p role="status" className="quiet">
        Loading …
      </p>
    ) : (
      <ProblemNote problem={error as Problem} />
    )
  return (
    <ol aria-label="Draft changes">
      {data.items.map((item, index) => (
        <li key={index} className="flex items-start justify-between gap-3 border-t border-base-300 py-1.5">
          <span className="min-w-0">
            {item.lines.map(line => (
              <span key={line} className="block first-letter:uppercase">
                {line}
              </span>
            ))}
            {item.more > 0 && <span className="quiet block">and {item.more} more</span>}
            <ProblemNote problem={item.problem ?? undefined} />
          </span>
          <button
            type="button"
            className="btn-inline shrink-0 text-sm"
            aria-label={`Remove from the draft: ${item.lines.join(', ')}`}
            onClick={() => void change({ slug, id: draft.id, without: index })}
          >
            Remove
          </button>
        </li>
      ))}
    </ol>
  )
}

interface OpenProps extends Props {
  readonly onDone: () => void
}

function Apply({ draft, onDone }: OpenProps) {
  const { slug } = useHere()
  const { data } = useDraftQuery({ slug, id: draft.id })
  return data === undefined ? null : <ApplyEdits draft={draft} edits={data.edits} onDone={onDone} />
}

interface EditsProps extends OpenProps {
  readonly edits: readonly EditRequest[]
}

function ApplyEdits({ draft, edits, onDone }: EditsProps) {
  const count = changesWords(draft.count)
  const decision = useDecisionOn({
    edits,
    confirmation: `${count} applied.`,
    onDone,
    draft: draft.id,
  })
  return <Decision label={`Apply ${count}`} onLeave={onDone} tells {...decision} />
}

function Keep({ draft, onDone }: OpenProps) {
  const { slug } = useHere()
  const [change, { isLoading }] = useChangeDraftMutation()
  const [name, setName] = useState('')
  const keep = async () => {
    await change({ slug, id: draft.id, name: name.trim() })
    onDone()
  }
  return (
    <form className="mt-3 flex max-w-lg gap-2" onSubmit={onSubmit(keep)}>
      <input
        className="field"
        aria-label="Name of the draft"
        placeholder="Name of the draft"
        maxLength={200}
        autoFocus
        value={name}
        onChange={event => setName(event.target.value)}
      />
      <button className="btn-main" disabled={isLoading || name.trim() === ''}>
        Save draft
      </button>
      <button type="button" className="btn-plain" onClick={onDone}>
        Cancel
      </button>
    </form>
  )
}
