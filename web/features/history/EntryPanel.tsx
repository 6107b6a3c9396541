import { useState } from 'react'
import { Link } from 'react-router'
import type { EntryDetailView, FactView } from '#contract/oversight-views.ts'
import { withCommas } from '#core/words/impact.ts'
import { useEntryQuery } from '../../api/oversight.ts'
import { useDecision } from '../../api/use-decision.ts'
import { useHere } from '../../api/use-here.ts'
import { Differences } from '../../ui/BeforeAfter.tsx'
import { LongDay, Time } from '../../ui/dates.tsx'
import { Decision } from '../../ui/Decision.tsx'
import { Panel } from '../../ui/Panel.tsx'

interface Props {
  readonly revision: string
  readonly onOpen: (revision: number) => void
  readonly onClose: () => void
}

/** One entry: all that was done in it, why, its effect, and its undoing. */
export function EntryPanel({ revision, onOpen, onClose }: Props) {
  const { slug } = useHere()
  const { data: entry, isError } = useEntryQuery({ slug, revision })
  if (isError)
    return (
      <Panel title="Nothing to see" onClose={onClose}>
        There is no such entry that you may know of.
      </Panel>
    )
  if (entry === undefined) return <Panel title="One moment" onClose={onClose} children={null} />
  return (
    <Panel title={entry.author?.name ?? 'The workspace'} onClose={onClose}>
      <p className="quiet mb-2 text-sm">
        <LongDay at={entry.at} />, <Time at={entry.at} />
        {entry.author === null && ' · an end or a start that passed by itself'}
      </p>
      {entry.reason !== '' && <p className="mb-2">“{entry.reason}”</p>}
      <ul className="mb-3">
        {entry.facts.map((fact, index) => (
          <li key={index} className="border-t border-base-300 py-1.5">
            {fact.text}
            <Leads fact={fact} />
          </li>
        ))}
        {entry.factCount > entry.facts.length && (
          <li className="quiet border-t border-base-300 py-1.5">
            and {withCommas(entry.factCount - entry.facts.length)} more
          </li>
        )}
      </ul>
      <h3 className="font-bold">What it did</h3>
      <Differences differences={entry.differences} counted={entry.counted} />
      <Undoing entry={entry} onOpen={onOpen} />
    </Panel>
  )
}

/** Where the thing that was changed is now. */
function Leads({ fact: { place, person } }: { readonly fact: FactView }) {
  const { slug, workspace } = useHere()
  const mayView = workspace.me.privileges.includes('view people')
  if (place !== null)
    return (
      <Link className="act ml-2 text-sm" to={`/at/${slug}/content/${place.id}`}>
        Open {place.name}
      </Link>
    )
  if (person === null || !mayView) return null
  return (
    <Link className="act ml-2 text-sm" to={`/at/${slug}/people/${person.id}`}>
      Look at {person.name}
    </Link>
  )
}

function Undoing({
  entry,
  onOpen,
}: {
  readonly entry: EntryDetailView
  readonly onOpen: (revision: number) => void
}) {
  const [isOpen, setOpen] = useState(false)
  const { undoes, undoneBy, mayUndo, revision } = entry
  return (
    <div className="mt-4 border-t border-base-content pt-2">
      {undoes !== null && (
        <p>
          This undid an earlier change.{' '}
          <button type="button" className="act" onClick={() => onOpen(undoes)}>
            Look at that one
          </button>
        </p>
      )}
      {undoneBy !== null && (
        <p>
          Undone since.{' '}
          <button type="button" className="act" onClick={() => onOpen(undoneBy)}>
            Look at its undoing
          </button>
        </p>
      )}
      {undoneBy === null && !mayUndo && (
        <p className="quiet text-sm">This stands: coming in, and time that has passed, are not undone.</p>
      )}
      {mayUndo && undoneBy === null && !isOpen && (
        <button type="button" className="btn-plain" onClick={() => setOpen(true)}>
          Undo it …
        </button>
      )}
      {isOpen && <UndoDecision revision={revision} onDone={() => setOpen(false)} />}
    </div>
  )
}

function UndoDecision({ revision, onDone }: { readonly revision: number; readonly onDone: () => void }) {
  const decision = useDecision([{ kind: 'undo', revision }], 'It is undone.', onDone)
  return <Decision act="Undo it" onLeave={onDone} {...decision} />
}
