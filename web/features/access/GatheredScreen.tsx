import { useState } from 'react'
import type { DraftView } from '#contract/access-views.ts'
import { useChangeDraftMutation, useDraftsQuery, useDropDraftMutation } from '../../api/drafts.ts'
import { useDecisionOn } from '../../api/use-decision.ts'
import { useHere } from '../../api/use-here.ts'
import { Day } from '../../ui/dates.tsx'
import { Decision } from '../../ui/Decision.tsx'
import { onSubmit } from '../../ui/on-submit.ts'
import { OversightHead } from '../../ui/OversightHead.tsx'
import { ProblemNote } from '../../ui/ProblemNote.tsx'
import { HandOver } from './HandOver.tsx'

/** Changes that are gathered and not made yet: looked through, applied together, kept for later, handed over, dropped. */
export function GatheredScreen() {
  const { slug, workspace } = useHere()
  const { data } = useDraftsQuery(slug)
  if (data === undefined) return <main aria-busy />
  return (
    <main className="min-h-0 overflow-y-auto px-4 pt-3 pb-6">
      <OversightHead me={workspace.me} />
      <div className="grid max-w-4xl gap-8">
        <section aria-label="Gathered now">
          <h2 className="mb-1 text-lg font-bold">Gathered now</h2>
          {data.gathered === null ? (
            <p>
              Nothing. Wherever a change shows its effect, “Gather it” puts it here instead of making it; what
              is gathered is made together, with one effect and one reason.
            </p>
          ) : (
            <Draft key={data.gathered.id} draft={data.gathered} />
          )}
        </section>
        {data.kept.length > 0 && (
          <section aria-label="Kept for later">
            <h2 className="mb-1 text-lg font-bold">Kept for later</h2>
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
  readonly draft: DraftView
}

function Kept({ draft }: Props) {
  const [isOpen, setOpen] = useState(draft.from !== null)
  const { name, from, word, changedAt, items } = draft
  return (
    <article aria-label={name} className="border-t border-base-content py-2">
      <div className="flex items-baseline justify-between gap-3">
        <h3 className="font-bold">{name}</h3>
        <span className="quiet text-sm">
          {items.length === 1 ? '1 change' : `${items.length} changes`}
          {from !== null && `, handed over by ${from.name}`} · <Day at={changedAt} />{' '}
          <button
            type="button"
            className="act ml-2 text-base-content"
            aria-expanded={isOpen}
            aria-label={`${isOpen ? 'Fold' : 'Look through'} ${name}`}
            onClick={() => setOpen(!isOpen)}
          >
            {isOpen ? 'Fold' : 'Look through'}
          </button>
        </span>
      </div>
      {word !== '' && <p className="quiet">“{word}”</p>}
      {isOpen && <Draft draft={draft} />}
    </article>
  )
}

type Open = 'apply' | 'keep' | 'hand' | undefined

function Draft({ draft }: Props) {
  const { slug } = useHere()
  const [drop] = useDropDraftMutation()
  const [open, setOpen] = useState<Open>()
  const count = draft.items.length === 1 ? '1 change' : `${draft.items.length} changes`
  return (
    <>
      <Items draft={draft} />
      {open === undefined && (
        <div className="mt-3 flex flex-wrap gap-2">
          <button type="button" className="btn-act" onClick={() => setOpen('apply')}>
            See what {draft.items.length === 1 ? 'it does' : 'they do'} together
          </button>
          {draft.name === '' && (
            <button type="button" className="btn-plain" onClick={() => setOpen('keep')}>
              Keep for later
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
            Drop {count}
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
  return (
    <ol aria-label="What is gathered">
      {draft.items.map((item, index) => (
        <li key={index} className="flex items-start justify-between gap-3 border-t border-base-300 py-1.5">
          <span className="min-w-0">
            {item.lines.map(line => (
              <span key={line} className="block first-letter:uppercase">
                {line}
              </span>
            ))}
            <ProblemNote problem={item.problem ?? undefined} />
          </span>
          <button
            type="button"
            className="act shrink-0 text-sm"
            aria-label={`Leave it out: ${item.lines.join(', ')}`}
            onClick={() => void change({ slug, id: draft.id, without: index })}
          >
            Leave it out
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
  const count = draft.items.length === 1 ? '1 change' : `${draft.items.length} changes`
  const decision = useDecisionOn({
    edits: draft.edits,
    said: `${count} made.`,
    onDone,
    draft: draft.id,
  })
  return <Decision act={`Apply ${count}`} onLeave={onDone} tells {...decision} />
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
        aria-label="A name for it"
        placeholder="A name for it"
        maxLength={200}
        autoFocus
        value={name}
        onChange={event => setName(event.target.value)}
      />
      <button className="btn-act" disabled={isLoading || name.trim() === ''}>
        Keep it
      </button>
      <button type="button" className="btn-plain" onClick={onDone}>
        Leave it
      </button>
    </form>
  )
}
