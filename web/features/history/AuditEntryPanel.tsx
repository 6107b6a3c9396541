import { useState } from 'react'
import { Link } from 'react-router'
import type { AuditEntryDetailView, AuditEventView } from '#contract/views/history.ts'
import { numberWords } from '#core/words/english.ts'
import { useAuditEntryQuery } from '../../api/oversight.ts'
import { useDecision } from '../../api/use-decision.ts'
import { useHere } from '../../api/use-here.ts'
import { Differences } from '../../ui/BeforeAfter.tsx'
import { LongDay, Time } from '../../ui/dates.tsx'
import { Decision } from '../../ui/Decision.tsx'
import { AbsentPanel } from '../../ui/AbsentPanel.tsx'
import { Panel } from '../../ui/Panel.tsx'

interface Props {
  readonly revision: string
  readonly onOpen: (revision: number) => void
  readonly onClose: () => void
}

/** One entry: all that was done in it, why, its effect, and its undoing. */
export function EntryPanel({ revision, onOpen, onClose }: Props) {
  const { slug } = useHere()
  const { data: entry, isError } = useAuditEntryQuery({ slug, revision })
  if (isError) return <AbsentPanel what="Entry" onClose={onClose} />
  if (entry === undefined) return <Panel title="Loading …" onClose={onClose} children={null} />
  return (
    <Panel title={entry.author?.name ?? 'The workspace'} onClose={onClose}>
      <p className="quiet mb-2 text-sm">
        <LongDay at={entry.at} />, <Time at={entry.at} />
        {entry.author === null && ' · a start or an end date that passed'}
      </p>
      {entry.reason !== '' && <p className="mb-2">“{entry.reason}”</p>}
      <ul className="mb-3">
        {entry.events.map((event, index) => (
          <li key={index} className="border-t border-base-300 py-1.5">
            {event.text}
            <Leads event={event} />
          </li>
        ))}
        {entry.eventCount > entry.events.length && (
          <li className="quiet border-t border-base-300 py-1.5">
            and {numberWords(entry.eventCount - entry.events.length)} more
          </li>
        )}
      </ul>
      <h3 className="font-bold">Effect</h3>
      <Differences differences={entry.differences} counted={entry.counted} />
      <Undoing entry={entry} onOpen={onOpen} />
    </Panel>
  )
}

/** Where the thing that was changed is now. */
function Leads({ event: { place, person } }: { readonly event: AuditEventView }) {
  const { slug, workspace } = useHere()
  const mayView = workspace.me.privileges.includes('view people')
  if (place !== null)
    return (
      <Link className="link ml-2 text-sm" to={`/at/${slug}/content/${place.id}`}>
        Open {place.name}
      </Link>
    )
  if (person === null || !mayView) return null
  return (
    <Link className="link ml-2 text-sm" to={`/at/${slug}/people/${person.id}`}>
      Open {person.name}
    </Link>
  )
}

function Undoing({
  entry,
  onOpen,
}: {
  readonly entry: AuditEntryDetailView
  readonly onOpen: (revision: number) => void
}) {
  const [isOpen, setOpen] = useState(false)
  const { undoes, undoneBy, mayUndo, revision } = entry
  return (
    <div className="mt-4 border-t border-base-content pt-2">
      {undoes !== null && (
        <p>
          This change undid an earlier one.{' '}
          <button type="button" className="btn-inline" onClick={() => onOpen(undoes)}>
            Show the earlier change
          </button>
        </p>
      )}
      {undoneBy !== null && (
        <p>
          This change was undone.{' '}
          <button type="button" className="btn-inline" onClick={() => onOpen(undoneBy)}>
            Show the undo
          </button>
        </p>
      )}
      {undoneBy === null && !mayUndo && (
        <p className="quiet text-sm">This cannot be undone: joining, and dates that have passed.</p>
      )}
      {mayUndo && undoneBy === null && !isOpen && (
        <button type="button" className="btn-plain" onClick={() => setOpen(true)}>
          Undo …
        </button>
      )}
      {isOpen && <UndoDecision revision={revision} onDone={() => setOpen(false)} />}
    </div>
  )
}

function UndoDecision({ revision, onDone }: { readonly revision: number; readonly onDone: () => void }) {
  const decision = useDecision([{ kind: 'undo', revision }], 'The change is undone.', onDone)
  return <Decision label="Undo" onLeave={onDone} {...decision} />
}
